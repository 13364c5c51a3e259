<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Security\Http\Event\LoginSuccessEvent;
use Symfony\Component\Uid\Ulid;

/** Where somebody is signed in: noted when he signs in, so that he can end it from elsewhere. */
final readonly class SigningIn
{
    private const KEY = 'signed_in';
    /** How exactly it is known when somebody was last seen. */
    private const SEEN_EVERY_S = 300;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Security $security,
        private RequestStack $requests,
        private ClockInterface $clock,
    ) {
    }

    #[AsEventListener]
    public function begins(LoginSuccessEvent $event): void
    {
        $id = strtolower((string) new Ulid());
        $agent = mb_strimwidth((string) $event->getRequest()->headers->get('User-Agent'), 0, 200, '');
        $this->entities->persist(new SignedIn($id, $event->getUser()->getUserIdentifier(), $agent, $this->clock->now()));
        $this->entities->flush();
        $event->getRequest()->getSession()->set(self::KEY, $id);
    }

    /** Behind the firewall, before anything is asked: what was ended from elsewhere is over. */
    #[AsEventListener(priority: 7)]
    public function goesOn(RequestEvent $event): void
    {
        $user = $event->isMainRequest() ? $this->security->getUser() : null;
        if ($user === null) {
            return;
        }
        $now = $this->clock->now();
        $seen = $this->connection->fetchOne('SELECT seen_at FROM signed_in WHERE id = ? AND login = ?', [$this->here(), $user->getUserIdentifier()]);
        if (!is_string($seen)) {
            $this->security->logout(false);

            return;
        }
        if (strtotime("$seen UTC") < $now->getTimestamp() - self::SEEN_EVERY_S) {
            $this->connection->executeStatement('UPDATE signed_in SET seen_at = ? WHERE id = ?', [$now->format('Y-m-d H:i:s'), $this->here()]);
        }
    }

    /** The one in which this is asked. */
    public function here(): string
    {
        $id = $this->requests->getMainRequest()?->hasSession() === true ? $this->requests->getSession()->get(self::KEY) : null;

        return is_string($id) ? $id : '';
    }

    /** @return list<array{id: string, agent: string, began_at: string, seen_at: string, here: bool}> the last seen first */
    public function all(string $login): array
    {
        return array_map(fn (SignedIn $one): array => [
            'id' => $one->id,
            'agent' => $one->agent,
            'began_at' => $one->beganAt->format('Y-m-d\TH:i:s\Z'),
            'seen_at' => $one->seenAt->format('Y-m-d\TH:i:s\Z'),
            'here' => $one->id === $this->here(),
        ], $this->entities->getRepository(SignedIn::class)->findBy(['login' => $login], ['seenAt' => 'DESC', 'id' => 'DESC']));
    }

    /** @param ?string $id null for all but the one in which this is asked */
    public function end(string $login, ?string $id = null): void
    {
        $id === null
            ? $this->connection->executeStatement('DELETE FROM signed_in WHERE login = ? AND id <> ?', [$login, $this->here()])
            : $this->connection->executeStatement('DELETE FROM signed_in WHERE login = ? AND id = ?', [$login, $id]);
    }
}
