<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Bundle\SecurityBundle\Security;

/** Who asks. */
final readonly class Who
{
    public function __construct(private Security $security)
    {
    }

    /** The login of whoever is signed in; null where nobody asks, as in a job. */
    public function login(): ?string
    {
        return $this->security->getUser()?->getUserIdentifier();
    }
}
