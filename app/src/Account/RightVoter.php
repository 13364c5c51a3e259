<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Authorization\Voter\Voter;

/**
 * Whether somebody has a right: anywhere, or at the place whose id is asked about.
 *
 * @extends Voter<string, ?string>
 */
final class RightVoter extends Voter
{
    public function __construct(private readonly Rights $rights)
    {
    }

    protected function supports(string $attribute, mixed $subject): bool
    {
        return Right::tryFrom($attribute) !== null && ($subject === null || is_string($subject));
    }

    protected function voteOnAttribute(string $attribute, mixed $subject, TokenInterface $token): bool
    {
        $places = $token->getUser() instanceof Account ? $this->rights->places(Right::from($attribute)) : [];

        return $places === null || ($subject === null ? $places !== [] : in_array($subject, $places, true));
    }
}
