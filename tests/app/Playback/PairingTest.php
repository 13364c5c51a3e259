<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Playback;

use UpperPane\App\Playback\Pairing;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

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
        $this->entities()->persist(new Pairing('claim', 'K7M4TX', self::now('-1 minute')));
        $this->entities()->flush();
        $this->signIn();

        self::assertSame('pairing.ended', $this->ask('POST', '/api/players', ['code' => 'K7M4TX', 'display' => 'wide'])[1]['error']['code']);
        self::assertTrue($this->ask('GET', '/api/pairing/claim')[1]['ended']);
    }

    public function testReportsAreTakenUntilTheAddressIsTakenBack(): void
    {
        $player = $this->player('wide');
        $report = ['release' => str_repeat('a', 64), 'since' => '2026-06-01T10:00:00Z', 'trouble' => null];
        self::assertSame(204, $this->reports($player->secret, $report));
        self::assertSame(404, $this->reports(str_repeat('0', 40), $report));

        $this->signIn();
        $told = $this->ask('GET', '/api/players')[1]['players'][0];
        self::assertSame([str_repeat('a', 64), '2026-06-01T10:00:00Z'], [$told['plays_sha256'], $told['plays_since']]);

        $this->ask('DELETE', "/api/players/$player->id");
        self::assertTrue(json_decode($this->published()->read("pointers/$player->secret.json"), true)['revoked']);
        self::assertSame(404, $this->reports($player->secret, $report));
    }

    public function testAPlayerOfSeveralOutputsPlaysWhatItsWorstOutputPlays(): void
    {
        $this->signIn();
        $players = [['id' => 'a'], ['id' => 'b']];
        $wall = ['id' => 'wall'] + Make::wall(3, 1, players: $players);
        $wall['panels'][2]['player'] = 'b';
        $this->ask('POST', '/api/displays', ['place' => 'hall', 'document' => $wall]);
        $bind = function (): array {
            $code = $this->ask('POST', '/api/pairing')[1]['code'];

            return $this->ask('POST', '/api/players', ['code' => $code, 'display' => 'wall'])[1];
        };
        [$first, $second] = [$bind(), $bind()];
        self::assertSame(['a', 'b'], [$first['part'], $second['part']], 'each new player takes the place of the next surveyed one');
        $pointer = json_decode($this->published()->read('pointers/' . basename($first['address']) . '.json'), true);
        self::assertSame([1, 2], $pointer['player']['outputs']);

        $say = fn (int $output, string $plays, ?string $trouble = null): int => $this->reports(basename($first['address']), [
            'release' => str_repeat($plays, 64), 'since' => null, 'trouble' => $trouble, 'output' => $output,
        ]);
        $told = fn (): array => array_column($this->ask('GET', '/api/players')[1]['players'], null, 'part')['a'];
        self::assertSame(204, $say(1, 'a'));
        $half = $told();
        self::assertNull($half['called_at'], 'output 2 has not been heard');
        $say(2, 'b', 'no picture');
        self::assertSame([null, 'Output 2: no picture', ['1', '2']], [$told()['plays_sha256'], $told()['trouble'], array_map(strval(...), array_keys($told()['outputs']))]);
        $say(2, 'a');
        $whole = $told();
        self::assertSame([str_repeat('a', 64), null], [$whole['plays_sha256'], $whole['trouble']]);
        self::assertNotNull($whole['called_at']);
    }
}
