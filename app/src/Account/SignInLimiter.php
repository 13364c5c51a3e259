<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\HttpFoundation\RateLimiter\AbstractRequestRateLimiter;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\RateLimiter\RateLimiterFactory;
use Symfony\Component\Security\Http\SecurityRequestAttributes;

/**
 * Wrong attempts: a few a minute for one account from one address, more for the account from wherever, for the address on whatever name, and in all.
 *
 * The account is the one that is found by what was typed, so that other spellings of its name have no attempts of their own.
 */
final class SignInLimiter extends AbstractRequestRateLimiter
{
    public function __construct(
        private readonly RateLimiterFactory $attempts,
        private readonly RateLimiterFactory $account,
        private readonly RateLimiterFactory $address,
        private readonly RateLimiterFactory $all,
        private readonly Accounts $accounts,
    ) {
    }

    protected function getLimiters(Request $request): array
    {
        $typed = $request->attributes->getString(SecurityRequestAttributes::LAST_USERNAME);
        $account = $this->accounts->find($typed)->login ?? mb_strtolower($typed);
        $key = static fn (string ...$parts): string => hash('sha256', implode('|', $parts));

        return [
            $this->attempts->create($key($account, (string) $request->getClientIp())),
            $this->account->create($key($account)),
            $this->address->create($key((string) $request->getClientIp())),
            $this->all->create('all'),
        ];
    }
}
