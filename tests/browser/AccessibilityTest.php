<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/**
 * axe-core 4.14 (WCAG 2.2 AA rules) finds nothing serious on any station.
 *
 * What a stage draws is left out: it is a picture of somebody's design (`aria-hidden`), in which words pass over each other; how well
 * those are read is the core's to say (`TextContrasts`).
 */
final class AccessibilityTest extends TestCase
{
    private static ?Chrome $desk = null;

    public static function tearDownAfterClass(): void
    {
        self::$desk?->close();
    }

    #[DataProvider('stations')]
    public function testAxeFindsNothingSerious(string $path, string $ready): void
    {
        if (self::$desk === null) {
            self::$desk = Chrome::open();
            Desk::signIn(self::$desk);
        }
        self::$desk->go(Desk::url($path))->see($ready);
        self::$desk->script((string) file_get_contents(dirname(__DIR__, 2) . '/web/node_modules/axe-core/axe.min.js'));
        $violations = self::$desk->driver->executeAsyncScript(
            'const done = arguments[0]; axe.run({ exclude: [".stage-canvas"] }, { runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"] }).then((r) => done('
                . 'r.violations.filter((v) => ["serious", "critical"].includes(v.impact))'
                . '.map((v) => v.id + ": " + v.nodes.map((n) => n.target.join(" ")).slice(0, 4).join("; "))))',
        );

        self::assertSame([], $violations);
    }

    /** @return iterable<string, array{string, string}> */
    public static function stations(): iterable
    {
        yield 'today' => ['/', '.one .stage-canvas'];
        yield 'displays' => ['/displays?display=gate-totem-a', '.sheet'];
        yield 'a wall' => ['/displays/hall', '.hit'];
        yield 'a free wall from behind' => ['/displays/shop-wall?view=behind', '.hit'];
        yield 'reading plan' => ['/displays/lane-1?view=side', '.key'];
        yield 'wiring sheet' => ['/displays/hall/wiring', '.page svg'];
        yield 'matches' => ['/displays/matches', 'td button'];
        yield 'displays from a table' => ['/displays/from-table', '.empty'];
        yield 'media' => ['/media', '.grid img'];
        yield 'data' => ['/data', 'tbody tr'];
        yield 'a source' => ['/data/sailings', '.found-rows tbody tr'];
        yield 'a source that is typed' => ['/data/cafe-prices', '.typed tbody tr'];
        yield 'all that is filled in' => ['/filled', '.design .stage-canvas'];
        yield 'filling in' => ['/filled/price-tolm', '.glass .stage-canvas'];
        yield 'a template' => ['/layouts/price-of-the-day/template', '.sample .stage-canvas'];
        yield 'accounts' => ['/accounts', 'tbody tr'];
        yield 'an account' => ['/account', '.sessions li'];
        yield 'type faces' => ['/media/faces', '.faces td'];
        yield 'what was seen' => ['/displays/check-in-1/seen', '.players'];
        yield 'layouts' => ['/layouts', '.design .stage-canvas'];
        yield 'composer' => ['/layouts/check-in-day', '.tide .slot'];
        yield 'house styles' => ['/layouts/styles', '.styles'];
        yield 'a house style' => ['/layouts/styles/pellan-night', '[aria-label="Contrasts"]'];
        yield 'settings of places' => ['/displays/settings?setting=languages', 'tbody tr'];
        yield 'playlist' => ['/playlists/shop-window-round', '.items li'];
        yield 'schedules' => ['/schedules', 'tbody tr'];
        yield 'a week' => ['/schedules/piers', '.week .bar'];
        yield 'a month' => ['/schedules/piers?span=month', '.week .bar'];
        yield 'rehearsal' => ['/rehearsal?display=pier-vennick,check-in-1&by=schedule&list=items', '.strip .stage-canvas'];
        yield 'bench' => ['/bench', 'tbody tr'];
        yield 'before a display' => ['/bench/before?display=info-post', '.traces tr'];
        yield 'bin' => ['/bin', '.empty, tbody tr'];
        yield 'work' => ['/work', 'tbody tr'];
        yield 'overlays' => ['/overlays', 'tbody tr'];
        yield 'triggers' => ['/triggers', 'tbody tr'];
        yield 'panels' => ['/triggers/panels', 'tbody tr'];
        yield 'a panel' => ['/triggers/panels/departure-hall', '.group tbody tr'];
        yield 'a panel to be pressed' => ['/panel/departure-hall', '.keys .key'];
        yield 'a map of triggers' => ['/triggers/info-post', '.graph .stage-canvas'];
        yield 'an overlay' => ['/overlays/house-mark', '.looks .stage-canvas'];
        yield 'in a hurry' => ['/hurry', 'textarea'];
        yield 'handover' => ['/handover?layout=check-in-day&display=check-in-1', 'article'];
        yield 'playback' => ['/playback', 'tbody tr'];
    }
}
