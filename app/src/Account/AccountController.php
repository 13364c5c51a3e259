<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;

/** One's own account: who one is, where one is signed in, and the password. */
#[Needs(null)]
final readonly class AccountController
{
    public function __construct(private Staff $staff, private SigningIn $signingIn, private Who $who)
    {
    }

    #[Route('/api/account', methods: ['GET'])]
    public function show(): JsonResponse
    {
        return new JsonResponse($this->staff->told($this->mine()) + ['sessions' => $this->signingIn->all($this->mine()->login)]);
    }

    /** Whoever knows the old one; everywhere else he is signed out. */
    #[Route('/api/account/password', methods: ['PUT'])]
    public function password(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('old', 'new');
        $this->staff->changePassword($this->mine(), $body->field('old')->text(0, 4096), $body->field('new'));
        $this->signingIn->end($this->mine()->login);

        return new JsonResponse(null, 204);
    }

    /** Ends what is not this one; all of these where none is named. */
    #[Route('/api/account/sessions/{id}', methods: ['DELETE'], defaults: ['id' => null])]
    public function end(?string $id): JsonResponse
    {
        $this->signingIn->end($this->mine()->login, $id);

        return new JsonResponse(null, 204);
    }

    private function mine(): Account
    {
        return $this->staff->find($this->who->login() ?? '') ?? throw Problem::notFound('Your account');
    }
}
