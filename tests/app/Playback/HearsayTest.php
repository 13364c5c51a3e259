<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Playback;

use UpperPane\Tests\App\ApiTestCase;

/** At the installation somebody acts before a sensor, and sees what it says. */
final class HearsayTest extends ApiTestCase
{
    public function testWhatSensorsSayIsToldWithWhenItLastCame(): void
    {
        $this->signIn();
        $secret = $this->player('wide')->secret;
        self::assertSame(['learns_until' => null, 'heard' => []], $this->ask('GET', '/api/displays/wide/heard')[1]);
        [$status, $said] = $this->ask('POST', '/api/displays/wide/heard', ['minutes' => 10]);
        self::assertSame([200, 600], [$status, (int) strtotime((string) $said['learns_until']) - self::now()->getTimestamp()]);
        self::assertSame($said['learns_until'], $this->pointer($secret)['learns_until']);
        self::assertSame(422, $this->ask('POST', '/api/displays/wide/heard', ['minutes' => 61])[0]);

        $heard = static fn (string $button, string $last, bool $known): array => ['said' => ['sensor' => 'b1', 'button' => $button], 'last' => $last, 'times' => 2, 'known' => $known];
        [$first, $then] = [$heard('7', '2026-06-01T09:00:01Z', true), $heard('8', '2026-06-01T09:00:05Z', false)];
        self::assertSame(204, $this->reports($secret, ['format' => 'upper-pane/report@1', 'release' => null, 'heard' => [$first, $then]]));
        $told = $this->ask('GET', '/api/displays/wide/heard')[1]['heard'];
        self::assertSame([$then + ['player' => 'Player'], $first + ['player' => 'Player']], $told, 'the last first');

        // Its page begins anew, and knows nothing of that: what was heard last is still told.
        $again = $heard('7', '2026-06-01T10:00:00Z', true);
        $this->reports($secret, ['format' => 'upper-pane/report@1', 'release' => null, 'heard' => [$again]]);
        $this->reports($secret, ['format' => 'upper-pane/report@1', 'release' => null]);
        self::assertSame([$again + ['player' => 'Player'], $then + ['player' => 'Player']], $this->ask('GET', '/api/displays/wide/heard')[1]['heard']);

        $this->ask('POST', '/api/displays/wide/heard', ['minutes' => 0]);
        self::assertArrayNotHasKey('learns_until', $this->pointer($secret));
    }
}
