<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpKernel\Event\ResponseEvent;

/**
 * Gives whoever is signed in a cookie by which the web server knows, without asking, that the cookie of his session was made here.
 *
 * Whoever makes one up is a stranger like one who has none (bin/lib/nginx.conf, which compares with its `secure_link`).
 */
#[AsEventListener(priority: -1100)]
final readonly class SessionMark
{
    public const COOKIE = 'upper_pane_mark';

    public function __construct(
        private Who $who,
        #[Autowire(env: 'APP_SECRET')]
        #[\SensitiveParameter]
        private string $secret,
    ) {
    }

    /** Once the session has its id, which it gets anew where somebody signs in. */
    public function __invoke(ResponseEvent $event): void
    {
        $request = $event->getRequest();
        if (!$event->isMainRequest() || $this->who->login() === null || !$request->hasSession() || $request->getSession()->getId() === '') {
            return;
        }
        $mark = self::mark(self::key($this->secret), $request->getSession()->getId());
        if ($request->cookies->get(self::COOKIE) !== $mark) {
            $event->getResponse()->headers->setCookie(Cookie::create(self::COOKIE, $mark, secure: $request->isSecure(), sameSite: Cookie::SAMESITE_STRICT));
        }
    }

    /** What the web server knows: of the secret of the application nothing follows from it. */
    public static function key(#[\SensitiveParameter] string $secret): string
    {
        return hash('sha256', "session mark $secret");
    }

    /** As nginx computes it: MD5, which is enough for a hundred requests more or less, and what it can. */
    private static function mark(#[\SensitiveParameter] string $key, string $session): string
    {
        return rtrim(strtr(base64_encode(md5("$key $session", true)), '+/', '-_'), '=');
    }
}
