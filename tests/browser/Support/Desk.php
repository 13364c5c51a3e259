<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

use PHPUnit\Framework\Assert;
use UpperPane\Tests\App\Estate;

/** The application that bin/test started for browser tests, with the demo estate in it. */
final class Desk
{
    public static function url(string $path = '/'): string
    {
        return self::env('UPPER_PANE_TEST_URL') . $path;
    }

    public static function signIn(Chrome $chrome, string $path = '/', string $login = 'ines', string $password = 'harbour'): void
    {
        $chrome->go(self::url('/'));
        $chrome->see('#login')->sendKeys($login);
        $chrome->see('#password')->sendKeys("$password\n");
        $chrome->see('.passage');
        $chrome->go(self::url($path));
        $chrome->see('.passage');
    }

    /** @param 'stop'|'start' $action */
    public static function server(string $action, string ...$servers): void
    {
        $command = dirname(__DIR__, 3) . '/bin/lib/server test ' . self::env('UPPER_PANE_TEST_PORTS') . " $action " . implode(' ', $servers);
        // The server's own output must not hold this pipe open.
        exec("APP_ENV=prod $command </dev/null >/tmp/upper-pane-server.log 2>&1", result_code: $code);
        if ($code !== 0) {
            throw new \RuntimeException("$command: " . file_get_contents('/tmp/upper-pane-server.log'));
        }
    }

    /** @return array<string, mixed> a JSON answer, asked from inside a signed-in page */
    public static function api(Chrome $chrome, string $path): array
    {
        $answer = $chrome->driver->executeAsyncScript('const done = arguments[1]; fetch("/api/" + arguments[0]).then((r) => r.json()).then(done)', [$path]);
        assert(is_array($answer));

        return $answer;
    }

    /**
     * The same for what is sent.
     *
     * @param array<string, mixed> $body
     * @return array<string, mixed>
     */
    public static function post(Chrome $chrome, string $path, array $body, string $method = 'POST'): array
    {
        $answer = $chrome->driver->executeAsyncScript(<<<'JS'
            const [path, body, method, done] = arguments
            const { csrf } = await (await fetch('/api/session')).json()
            const answer = await fetch('/api/' + path, { method, headers: { 'Content-Type': 'application/json', 'X-CSRF-Token': csrf }, body })
            done(answer.status === 204 ? {} : await answer.json())
            JS, [$path, json_encode($body), $method]);
        assert(is_array($answer) && !isset($answer['error']), (string) json_encode($answer));

        return $answer;
    }

    /** @return array<array<string, mixed>> displays by id, with their releases and players */
    public static function displays(Chrome $chrome): array
    {
        return array_column(Estate::together(self::api($chrome, 'estate'))['displays'], null, 'id');
    }

    /** @return list<array<string, mixed>> players of a display that are bound, with their addresses */
    public static function players(Chrome $chrome, string $display): array
    {
        return array_values(array_filter(self::api($chrome, 'players')['players'], static fn (array $player): bool => $player['display'] === $display && $player['address'] !== null));
    }

    /**
     * Hands over, and waits until that is done.
     *
     * @param array<string, mixed> $body
     */
    public static function handOver(Chrome $chrome, array $body): void
    {
        $id = self::post($chrome, 'handover', $body)['handing']['id'];
        $chrome->until(static function () use ($chrome, $id): bool {
            $handing = self::api($chrome, "handings/$id");
            Assert::assertNotSame('failed', $handing['state'], (string) json_encode($handing));

            return $handing['state'] === 'done';
        }, 'the handover to be done');
    }

    private static function env(string $name): string
    {
        return getenv($name) ?: throw new \RuntimeException("$name is not set: browser tests are run by bin/test.");
    }
}
