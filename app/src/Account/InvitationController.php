<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Problem;

/** What an invitation is for, and coming in by it. */
#[Needs(null)]
final readonly class InvitationController
{
    public function __construct(private Staff $staff, private Security $security)
    {
    }

    #[Route('/api/invitation/{token}', methods: ['GET'])]
    public function show(#[\SensitiveParameter] string $token): JsonResponse
    {
        $guest = $this->guest($token);

        return new JsonResponse(array_intersect_key($this->staff->told($guest), ['name' => 1, 'roles' => 1, 'ends_at' => 1]));
    }

    #[Route('/api/invitation/{token}', methods: ['POST'])]
    public function come(#[\SensitiveParameter] string $token): JsonResponse
    {
        $guest = $this->guest($token);
        $this->security->login($guest, 'json_login', 'main');

        return new JsonResponse(['signed_in' => $guest->login]);
    }

    private function guest(#[\SensitiveParameter] string $token): Account
    {
        return $this->staff->invited($token) ?? throw new Problem(404, 'invitation.over', 'This invitation is over, or was never made. Ask for a new one.');
    }
}
