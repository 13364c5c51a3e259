<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;

final readonly class SessionController
{
    public function __construct(private Security $security, private SignInAnswer $answer)
    {
    }

    #[Route('/api/session', methods: ['GET'])]
    #[Needs(null)]
    public function show(): JsonResponse
    {
        $account = $this->security->getUser();

        return new JsonResponse($this->answer->session($account instanceof Account ? $account : null));
    }

    /** Whether whoever asks is signed in: for the web server, before it takes a body (bin/lib/nginx.conf). */
    #[Route('/api/session/check', methods: ['GET'])]
    #[Needs(null)]
    public function check(): JsonResponse
    {
        return new JsonResponse(null, $this->security->getUser() === null ? 401 : 204);
    }

    #[Route('/api/session', methods: ['DELETE'])]
    #[Needs(null)]
    public function signOut(): JsonResponse
    {
        if ($this->security->getUser() !== null) {
            $this->security->logout(false);
        }

        return new JsonResponse($this->answer->session(null));
    }
}
