<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\HttpFoundation\RateLimiter\AbstractRequestRateLimiter;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\RateLimiter\RateLimiterFactory;
use Symfony\Component\Security\Http\SecurityRequestAttributes;

/** Five wrong attempts a minute for one name from one address. */
final class SignInLimiter extends AbstractRequestRateLimiter
{
    public function __construct(private readonly RateLimiterFactory $attempts)
    {
    }

    protected function getLimiters(Request $request): array
    {
        $login = $request->attributes->getString(SecurityRequestAttributes::LAST_USERNAME);

        return [$this->attempts->create(hash('sha256', mb_strtolower($login) . '|' . $request->getClientIp()))];
    }
}
