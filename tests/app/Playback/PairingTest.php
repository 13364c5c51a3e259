<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Playback;

use UpperPane\App\Playback\Pairing;
use UpperPane\Tests\App\ApiTestCase;

final class PairingTest extends ApiTestCase
{
    public function testANewPlayerIsBoundByTheCodeOnItsScreenOnce(): void
    {
        [$status, $new] = $this->ask('POST', '/api/pairing');
        self::assertSame(201, $status);
        self::assertMatchesRegularExpression('/^[A-Z0-9]{6}$/', $new['code']);
        self::assertNull($this->ask('GET', "/api/pairing/{$new['claim']}")[1]['address']);

        $this->signIn();
        $typed = strtolower(substr($new['code'], 0, 3) . ' ' . substr($new['code'], 3));
        [$status, $player] = $this->ask('POST', '/api/players', ['code' => $typed, 'display' => 'wide']);
        self::assertSame(201, $status);
        self::assertSame($player['address'], $this->ask('GET', "/api/pairing/{$new['claim']}")[1]['address']);
        self::assertMatchesRegularExpression('~^/play/[0-9a-f]{40}/$~', $player['address']);

        [$status, $again] = $this->ask('POST', '/api/players', ['code' => $new['code'], 'display' => 'tall']);
        self::assertSame([422, 'pairing.used', '/code'], [$status, $again['error']['code'], $again['error']['path']]);
        self::assertSame('pairing.wrong', $this->ask('POST', '/api/players', ['code' => 'AAAAAA', 'display' => 'tall'])[1]['error']['code']);
    }

    public function testAnOldCodeIsRefused(): void
    {
        $this->entities()->persist(new Pairing('claim', 'K7M4TX', new \DateTimeImmutable('-1 minute')));
        $this->entities()->flush();
        $this->signIn();

        self::assertSame('pairing.ended', $this->ask('POST', '/api/players', ['code' => 'K7M4TX', 'display' => 'wide'])[1]['error']['code']);
        self::assertTrue($this->ask('GET', '/api/pairing/claim')[1]['ended']);
    }

    public function testReportsAreTakenUntilTheAddressIsTakenBack(): void
    {
        $player = $this->player('wide');
        $report = ['release' => str_repeat('a', 64), 'since' => '2026-06-01T10:00:00Z', 'trouble' => null];
        self::assertSame(204, $this->ask('POST', "/api/play/$player->secret/report", $report)[0]);
        self::assertSame(404, $this->ask('POST', '/api/play/' . str_repeat('0', 40) . '/report', $report)[0]);

        $this->signIn();
        $told = $this->ask('GET', '/api/players')[1]['players'][0];
        self::assertSame([str_repeat('a', 64), '2026-06-01T10:00:00Z'], [$told['plays_sha256'], $told['plays_since']]);

        $this->ask('DELETE', "/api/players/$player->id");
        self::assertTrue(json_decode($this->published()->read("pointers/$player->secret.json"), true)['revoked']);
        self::assertSame(404, $this->ask('POST', "/api/play/$player->secret/report", $report)[0]);
    }
}
