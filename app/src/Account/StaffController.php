<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** All accounts, and what each may do where. */
#[Needs(Right::Administer)]
final readonly class StaffController
{
    public function __construct(private Staff $staff, private SigningIn $signingIn, private Who $who)
    {
    }

    #[Route('/api/accounts', methods: ['GET'])]
    public function list(): JsonResponse
    {
        return new JsonResponse(['accounts' => $this->staff->all()]);
    }

    #[Route('/api/accounts', methods: ['POST'])]
    public function make(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('login', 'name', 'password', 'roles');
        $account = $this->staff->make($body->field('login'), $body->field('name')->name(), $body->field('password'), $this->roles($body->field('roles')));

        return new JsonResponse($this->staff->told($account), 201);
    }

    /** A guest, who comes by a link and goes by himself: reader or editor at one place. The link is told once. */
    #[Route('/api/accounts/guests', methods: ['POST'], priority: 1)]
    public function invite(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('name', 'role', 'place', 'days');
        $forGuests = array_values(array_filter(Role::cases(), static fn (Role $one): bool => $one->isForGuests()));
        $role = Role::from($body->field('role')->oneOf(...array_map(static fn (Role $one): string => $one->value, $forGuests)));
        [$account, $token] = $this->staff->invite($body->field('name')->name(), $role, $body->field('place'), $body->field('days')->int(1, Staff::GUEST_DAYS));

        return new JsonResponse($this->staff->told($account) + ['link' => "/invited/$token"], 201);
    }

    #[Route('/api/accounts/{login}', methods: ['PUT'])]
    public function change(string $login, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('name', 'password', 'roles');
        $account = $this->account($login);
        $roles = $body->optional('roles');
        $this->staff->change($account, $body->optional('name')?->name(), $body->optional('password'), $roles === null ? null : $this->roles($roles));
        if ($body->has('password')) {
            $this->signingIn->end($login);
        }

        return new JsonResponse($this->staff->told($account));
    }

    #[Route('/api/accounts/{login}', methods: ['DELETE'])]
    public function delete(string $login): JsonResponse
    {
        if ($login === $this->who->login()) {
            throw new Problem(409, 'account.own', 'This is your own account. Somebody else who administers accounts can take it away.');
        }
        $this->staff->remove($this->account($login));

        return new JsonResponse(null, 204);
    }

    private function account(string $login): Account
    {
        return $this->staff->find($login) ?? throw Problem::notFound('This account');
    }

    /** @return list<array{Role, ?Node}> with the node that names the place */
    private function roles(Node $node): array
    {
        $roles = [];
        foreach ($node->items(50) as $one) {
            $one->object('role', 'place');
            $roles[] = [Role::from($one->field('role')->oneOf(...array_column(Role::cases(), 'value'))), $one->given('place')];
        }

        return $roles === [] ? throw $node->refused(Reason::ValueRange, 'is empty; whoever has no role can do nothing. Take the account away instead.') : $roles;
    }
}
