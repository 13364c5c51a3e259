<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** The browser of a player is killed at any instant, also while something else is handed to it: what was whole plays on. */
final class KilledTest extends TestCase
{
    /** Three in CI; fifty with UPPER_PANE_LONG=1, on a machine that does nothing else, each within 5 s. */
    public function testWhatWasWholePlaysAgain(): void
    {
        $isLong = getenv('UPPER_PANE_LONG') === '1';
        $random = new Randomizer(new Mt19937((int) (getenv('UPPER_PANE_SEED') ?: 1)));
        $desk = Chrome::open();
        Desk::signIn($desk);
        $bound = static fn (): array => Desk::players($desk, 'check-in-4')[0];
        $address = Desk::url($bound()['address']);
        $player = Chrome::open(960, 540);
        $profile = $player->profile;
        $slowest = 0.0;
        try {
            $player->go($address)->see('.stage-canvas [data-element]');
            foreach (range(1, $isLong ? 50 : 3) as $round) {
                $known = $player->script('return upperPanePlayer.playsSha256');
                $source = ['kind' => 'media', 'id' => ['shop-charts', 'shop-woollens', 'great-pellan-market'][$round % 3]];
                Desk::handOver($desk, ['source' => $source, 'displays' => ['check-in-4']]);
                $handed = self::named($bound()['address']);
                // The instant of the kill is what is random; nothing is waited for.
                usleep($random->getInt(0, 3_000_000));
                exec('pkill -9 -f -- ' . escapeshellarg("user-data-dir=$profile"));
                $player->close();
                array_map(unlink(...), glob("$profile/Singleton*") ?: []);
                $player = Chrome::open(960, 540, $profile);
                $began = microtime(true);
                $player->go($address)->see('.stage-canvas [data-element] img, .stage-canvas [data-element] video');
                $player->until(static fn (): bool => $player->script('return upperPanePlayer.playsSha256') !== null, 'it to play');
                $slowest = max($slowest, microtime(true) - $began);
                self::assertContains($player->script('return upperPanePlayer.playsSha256'), [$known, $handed], "round $round");
                $player->until(static fn (): bool => $player->script('return upperPanePlayer.playsSha256') === $handed, 'what was handed over to play');
                self::assertNull($player->script('return upperPanePlayer.told'), "round $round");
            }
        } finally {
            $player->close();
            Desk::handOver($desk, ['source' => ['kind' => 'layout', 'id' => 'check-in-day'], 'displays' => ['check-in-4']]);
            $desk->close();
        }
        if ($isLong) {
            fwrite(STDERR, sprintf("50 kills, the slowest start %.2f s\n", $slowest));
            self::assertLessThan(5.0, $slowest);
        }
    }

    /** SHA-256 of the release that its pointer names. */
    private static function named(string $address): string
    {
        $pointer = json_decode((string) file_get_contents(Desk::url('/pointers/' . basename($address) . '.json')), true);

        return $pointer['manifest']['sha256'];
    }
}
