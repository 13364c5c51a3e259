<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\Security\Core\Authorization\AuthorizationCheckerInterface;
use UpperPane\App\Http\Problem;

/** What somebody may not do is for him as if it was not there; it is written down that he tried. */
#[AsEventListener]
final readonly class NeededRight
{
    public function __construct(private AuthorizationCheckerInterface $checker, private Rights $rights, private LoggerInterface $logger)
    {
    }

    public function __invoke(ControllerEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || !str_starts_with($request->getPathInfo(), '/api')) {
            return;
        }
        $attributes = $event->getAttributes(Needs::class);
        $needs = end($attributes);
        if (!$needs instanceof Needs) {
            throw new \LogicException(sprintf('Nobody says which right %s needs.', $request->attributes->getString('_route')));
        }
        $plural = $request->attributes->get('plural');
        $right = $needs->of(is_string($plural) ? $plural : '');
        if ($right === null) {
            return;
        }
        if (!$this->checker->isGranted($right->value)) {
            $this->logger->warning('Not allowed: {login} asked {method} {path}, which needs the right to {right}.', [
                'login' => $this->rights->login(), 'method' => $request->getMethod(), 'path' => $request->getPathInfo(), 'right' => $right->value,
            ]);
            throw Problem::notFound('What you asked for');
        }
        $request->attributes->set(Rights::NEEDED, $right);
    }
}
