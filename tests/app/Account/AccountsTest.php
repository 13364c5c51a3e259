<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Account;

use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\BrowserKit\Cookie;
use Symfony\Component\Console\Tester\CommandTester;
use UpperPane\App\Storage\Prune;
use UpperPane\Tests\App\ApiTestCase;

/** Accounts that an administrator makes, guests who come by a link, and what everybody does with his own. */
final class AccountsTest extends ApiTestCase
{
    private const MARTA = ['login' => 'marta', 'name' => 'Marta', 'password' => 'lighthouse', 'roles' => [['role' => 'editor', 'place' => 'gates']]];

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testAnAccountIsMadeChangedAndTakenAway(): void
    {
        [$status, $made] = $this->ask('POST', '/api/accounts', self::MARTA);
        self::assertSame([201, [['role' => 'editor', 'place' => 'gates', 'place_name' => 'Gates']], null], [$status, $made['roles'], $made['seen_at']]);
        self::assertSame(['ines', 'marta'], array_column($this->ask('GET', '/api/accounts')[1]['accounts'], 'login'));
        self::assertSame([[409, '/login'], [422, '/password'], [422, '/login'], [422, '/roles/0/place'], [422, '/roles'], [422, '/roles/0/role']], array_map(
            function (array $other): array {
                [$status, $said] = $this->ask('POST', '/api/accounts', $other + ['login' => 'other'] + self::MARTA);

                return [$status, $said['error']['path']];
            },
            [['login' => 'marta'], ['password' => 'short'], ['login' => 'Not a login'], ['roles' => [['role' => 'editor', 'place' => 'moon']]], ['roles' => []], ['roles' => [['role' => 'king']]]],
        ));
        self::assertSame(200, $this->signIn('lighthouse', 'marta'));
        self::assertSame(404, $this->ask('GET', '/api/accounts')[0]);
        $this->signIn();
        self::assertSame(200, $this->ask('PUT', '/api/accounts/marta', ['name' => 'Marta R.', 'roles' => [['role' => 'reader']]])[0]);
        $told = $this->ask('GET', '/api/accounts')[1]['accounts'][1];
        self::assertSame(['Marta R.', [['role' => 'reader', 'place' => null, 'place_name' => null]], '2026-06-01T09:00:00Z'], [$told['name'], $told['roles'], $told['seen_at']]);

        self::assertSame([409, 'account.own'], $this->code('DELETE', '/api/accounts/ines'));
        self::assertSame([409, 'account.last'], $this->code('PUT', '/api/accounts/ines', ['roles' => [['role' => 'designer']]]));
        self::assertSame([204, 404], [$this->ask('DELETE', '/api/accounts/marta')[0], $this->ask('DELETE', '/api/accounts/marta')[0]]);
        self::assertSame(401, $this->ask('POST', '/api/sign-in', ['login' => 'marta', 'password' => 'lighthouse'])[0]);
    }

    /** For whoever has the server: the first administrator, and a way in where nobody has a password any more. */
    public function testTheConsoleGivesARoleAndAPassword(): void
    {
        $grant = static function (string ...$words): array {
            $console = new CommandTester((new Application(self::$kernel ?? throw new \LogicException()))->find('upper-pane:grant'));
            $code = $console->execute(['login' => $words[0], 'role' => $words[1]] + (isset($words[2]) ? [$words[2] => true] : []));

            return [$code, trim($console->getDisplay())];
        };
        [$code, $password] = $grant('eva', 'operator');
        self::assertSame([0, 200], [$code, $this->signIn($password, 'eva')]);
        self::assertSame(['look', 'fill-in', 'hand-over'], array_keys($this->ask('GET', '/api/session')[1]['account']['rights']));
        self::assertSame([0, ''], $grant('eva', 'installer'), 'one more role, and the password stays');
        [, $fresh] = $grant('eva', 'operator', '--password');
        self::assertNotSame($password, $fresh);
        self::assertSame([401, 200], [$this->signIn($password, 'eva'), $this->signIn($fresh, 'eva')]);
        self::assertCount(2, $this->ask('GET', '/api/account')[1]['roles'], 'each role once');
        self::assertSame([2, 2], [$grant('eva', 'king')[0], $grant('Not a login', 'reader')[0]]);
    }

    /** Of a place that is there no more nobody is anything. */
    public function testRolesGoWithTheirPlace(): void
    {
        $attic = $this->ask('POST', '/api/places', ['name' => 'Attic', 'parent' => 'hall'])[1]['id'];
        $this->ask('POST', '/api/accounts', ['roles' => [['role' => 'editor', 'place' => $attic], ['role' => 'reader', 'place' => 'gates']]] + self::MARTA);
        self::assertSame(204, $this->ask('DELETE', "/api/places/$attic")[0]);
        self::assertSame([['role' => 'reader', 'place' => 'gates', 'place_name' => 'Gates']], $this->ask('GET', '/api/accounts')[1]['accounts'][1]['roles']);
    }

    public function testWhoeverIsSignedInElsewhereCanBeSignedOutFromHere(): void
    {
        $elsewhere = $this->session();
        $this->client->getCookieJar()->clear();
        $this->signIn();
        $sessions = $this->ask('GET', '/api/account')[1]['sessions'];
        self::assertSame([true, false], array_column($sessions, 'here'));
        $here = $this->session();
        $this->asIn($elsewhere);
        self::assertSame(200, $this->ask('GET', '/api/estate')[0]);
        $this->asIn($here);
        self::assertSame(204, $this->ask('DELETE', "/api/account/sessions/{$sessions[1]['id']}")[0]);
        $this->asIn($elsewhere);
        self::assertSame(401, $this->ask('GET', '/api/estate')[0]);
        self::assertNull($this->ask('GET', '/api/session')[1]['account']);
        $this->asIn($here);
        self::assertSame([200, 1], [$this->ask('GET', '/api/estate')[0], count($this->ask('GET', '/api/account')[1]['sessions'])]);
    }

    public function testANewPasswordEndsAllOtherSessions(): void
    {
        $elsewhere = $this->session();
        $this->client->getCookieJar()->clear();
        $this->signIn();
        self::assertSame([422, 'password.wrong'], $this->code('PUT', '/api/account/password', ['old' => 'wrong', 'new' => 'lighthouse']));
        self::assertSame([422, 'value.range'], $this->code('PUT', '/api/account/password', ['old' => 'harbour', 'new' => 'short']));
        self::assertSame(204, $this->ask('PUT', '/api/account/password', ['old' => 'harbour', 'new' => 'lighthouse'])[0]);
        self::assertSame(200, $this->ask('GET', '/api/estate')[0]);
        $this->asIn($elsewhere);
        self::assertSame(401, $this->ask('GET', '/api/estate')[0]);
        self::assertSame([401, 200], [$this->signIn(), $this->signIn('lighthouse')]);
    }

    public function testAGuestComesByALinkAndGoesByHimself(): void
    {
        $asked = ['name' => 'Market people', 'role' => 'editor', 'place' => 'gates', 'days' => 2];
        self::assertSame([422, 'value.unknown'], $this->code('POST', '/api/accounts/guests', ['role' => 'designer'] + $asked));
        self::assertSame([422, 'value.range'], $this->code('POST', '/api/accounts/guests', ['days' => 0] + $asked));
        self::assertSame([422, 'value.range'], $this->code('POST', '/api/accounts/guests', ['days' => 4000] + $asked));
        [$status, $made] = $this->ask('POST', '/api/accounts/guests', $asked);
        self::assertSame([201, '2026-06-03T09:00:00Z'], [$status, $made['ends_at']]);
        $path = '/api/invitation/' . basename($made['link']);
        $this->ask('DELETE', '/api/session');
        self::assertSame(['name' => 'Market people', 'ends_at' => '2026-06-03T09:00:00Z'], array_intersect_key($this->ask('GET', $path)[1], ['name' => 1, 'ends_at' => 1]));
        self::assertSame([404, 'invitation.over'], $this->code('POST', '/api/invitation/' . str_repeat('0', 40)));
        self::assertSame(200, $this->ask('POST', $path)[0]);
        $session = $this->ask('GET', '/api/session')[1];
        self::assertSame(['Market people', ['look' => ['gates'], 'fill-in' => ['gates']]], [$session['account']['name'], $session['account']['rights']]);
        self::assertSame(['tall'], array_column($this->estate()['displays'], 'id'));

        static::mockTime('2026-06-03T09:00:01Z');
        self::assertSame(401, $this->ask('GET', '/api/estate')[0]);
        self::assertSame(404, $this->ask('POST', $path)[0]);
        static::getContainer()->get(Prune::class)->run();
        $this->signIn();
        self::assertSame(['ines'], array_column($this->ask('GET', '/api/accounts')[1]['accounts'], 'login'));
    }

    /** @return list<Cookie> of who is signed in now */
    private function session(): array
    {
        return array_values($this->client->getCookieJar()->all());
    }

    /** @param list<Cookie> $cookies */
    private function asIn(array $cookies): void
    {
        $this->client->getCookieJar()->clear();
        array_map($this->client->getCookieJar()->set(...), $cookies);
        $this->csrf = (string) ($this->ask('GET', '/api/session')[1]['csrf'] ?? '');
    }

    /**
     * @param ?array<string, mixed> $body
     * @return array{int, string}
     */
    private function code(string $method, string $path, ?array $body = null): array
    {
        [$status, $said] = $this->ask($method, $path, $body);

        return [$status, $said['error']['code'] ?? ''];
    }
}
