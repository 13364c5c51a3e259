<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\TooManyLoginAttemptsAuthenticationException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationSuccessHandlerInterface;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;
use UpperPane\App\Http\Problem;

/** What signing in answers: who one is now, or why not. */
final readonly class SignInAnswer implements AuthenticationSuccessHandlerInterface, AuthenticationFailureHandlerInterface, AuthenticationEntryPointInterface
{
    public function __construct(private CsrfTokenManagerInterface $tokens, private Accounts $accounts, private Rights $rights)
    {
    }

    public function onAuthenticationSuccess(Request $request, TokenInterface $token): Response
    {
        // No token is told here: the session gets a new one after this answer (GET /api/session tells it).
        return new JsonResponse(['signed_in' => $token->getUserIdentifier()]);
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        for ($cause = $exception; $cause !== null; $cause = $cause->getPrevious()) {
            if ($cause instanceof UserNotFoundException) {
                $body = json_decode($request->getContent(), true);
                $this->accounts->pretend(is_array($body) && is_string($body['password'] ?? null) ? $body['password'] : '');
            }
        }

        return $exception instanceof TooManyLoginAttemptsAuthenticationException
            ? Problem::answer(429, 'sign-in.throttled', 'Too many attempts. Wait a minute, then try again.')
            : Problem::answer(401, 'sign-in.wrong', 'Name and password do not belong together.');
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return Problem::answer(401, 'sign-in.needed', 'You are not signed in, or no longer. What you typed is kept in this window; sign in to go on.');
    }

    /** @return array{account: array{login: string, name: string, rights: array<string, true|list<string>>}|null, csrf: string} */
    public function session(?Account $account): array
    {
        return [
            'account' => $account === null ? null : ['login' => $account->login, 'name' => $account->name, 'rights' => $this->rights->told()],
            'csrf' => $this->tokens->getToken('api')->getValue(),
        ];
    }
}
