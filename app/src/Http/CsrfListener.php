<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;

/** Whatever a signed-in browser changes carries the token of its session, so that no other site can do it in its name. */
#[AsEventListener(priority: 5)]
final readonly class CsrfListener
{
    public function __construct(private CsrfTokenManagerInterface $tokens, private Security $security)
    {
    }

    public function __invoke(RequestEvent $event): void
    {
        $request = $event->getRequest();
        if ($request->isMethodSafe() || !str_starts_with($request->getPathInfo(), '/api') || $this->security->getUser() === null) {
            return;
        }
        // Players act with the secret of their own address and need no session.
        if (preg_match('~^/api/(pairing|play)(/|$)~', $request->getPathInfo()) === 1) {
            return;
        }
        if (!$this->tokens->isTokenValid(new CsrfToken('api', $request->headers->get('X-CSRF-Token') ?? ''))) {
            $event->setResponse(Problem::answer(403, 'csrf.wrong', 'This request does not come from the application. Reload the page and try again.'));
        }
    }
}
