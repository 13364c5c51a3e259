<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Web\Scene;

/** What lies above what plays: made at the desk, put up from a telephone, drawn by a player where the core says, and gone by itself. */
final class OverlayTest extends TestCase
{
    private Chrome $desk;

    private ?Chrome $player = null;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk, '/overlays');
        $this->desk->see('.station', 'Mark of the ferries');
    }

    protected function tearDown(): void
    {
        foreach (Desk::api($this->desk, 'in-force')['in_force'] as $one) {
            $one['stands'] ? Desk::post($this->desk, "{$one['kind']}s/{$one['id']}/end", []) : null;
        }
        $this->desk->close();
        $this->player?->close();
    }

    /** A notice until half past ten stands at the foot of two displays, and is put up and ended by keys alone. */
    public function testANoticeInAHurryFromATelephone(): void
    {
        $player = $this->plays('check-in-1');
        $phone = Chrome::open(390, 844);
        try {
            $phone->go(Desk::url('/hurry'))->type('input[autocomplete=username]', 'ines')->type('input[type=password]', 'harbour')->press('.go', 'Sign in')->see('textarea');
            $weight = 'return performance.getEntriesByType("resource").filter((one) => /assets/.test(one.name)).reduce((sum, one) => sum + one.encodedBodySize, 0)';
            self::assertLessThan(100_000, $phone->script($weight), 'the first page, as it comes over the air');
            $phone->type('textarea', 'The lift is out of order')->press('summary');
            $phone->press('details .place span', 'Check-in 1')->press('details .place span', 'Check-in 2');
            $phone->press('.lengths button', 'until closing time')->see('p.soft', ':30, on the clock of this telephone');
            $phone->press('.see', 'See it first')->see('figure', 'Check-in 1');
            $phone->press('.go', 'Show on 2 displays')->see('.done', 'Shown on 2 displays');
            $until = new \DateTimeImmutable(Desk::api($this->desk, 'in-force')['in_force'][0]['until']);
            self::assertSame('23:30', $until->setTimezone(new \DateTimeZone('Europe/Lisbon'))->format('H:i'), 'when Saltgate Quay closes');
            $player->see('.stage-canvas [data-element]', 'The lift is out of order');
            // It lies where the core says, above what plays on.
            $look = Desk::post($this->desk, 'notices/look', ['text' => 'The lift is out of order', 'for_min' => 60, 'displays' => ['check-in-1']])['looks'][0];
            $plate = self::part($look['picture']['run_sheet']['layers'], 'background', 'looked-at')['rect'];
            $drawn = $player->script('const b = [...document.querySelectorAll("[data-kind=background]")].at(-1).getBoundingClientRect(); return [b.x, b.y, b.width, b.height]');
            self::assertEqualsWithDelta([$plate['x'], $plate['y'], $plate['width'], $plate['height']], $drawn, 1.0);
            self::assertGreaterThan(3, count($player->driver->findElements(\Facebook\WebDriver\WebDriverBy::cssSelector('.stage-canvas [data-element]'))), 'what plays goes on below it');
            // On every page of the desk it is told, and ended there by keys.
            $this->desk->go(Desk::url('/layouts'))->see('.in-force', 'The lift is out of order');
            $focus = 'const end = document.querySelector(".in-force .btn"); end?.focus(); return end !== null && document.activeElement === end';
            $this->desk->until(fn (): bool => $this->desk->script($focus) === true, '“end now” to have the focus');
            $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ENTER);
            $player->until(static fn (): bool => $player->find('.stage-canvas [data-element]', 'The lift is out of order') === null, 'the notice to be gone');
            $this->desk->until(fn (): bool => $this->desk->find('.in-force') === null, 'nothing to be in force');
        } finally {
            $phone->close();
        }
    }

    /** A press that is held for two seconds; a shorter one does nothing. It hides all else, and what lay below goes on as if nothing had been. */
    public function testATakeoverIsHeldSeenAndEnded(): void
    {
        $player = $this->plays('check-in-1');
        $player->until(static fn (): bool => self::lacks($player) === [], 'all that a takeover takes to be kept before it is needed');
        $phone = $this->desk;
        $phone->go(Desk::url('/hurry?takeover=take-evacuation'))->see('.prepared [aria-checked=true]', 'Evacuation');
        $phone->press('.place span', 'Departure hall');
        $hold = $phone->see('.hold', 'take over');
        $phone->script('arguments[0].scrollIntoView()', $hold);
        $phone->driver->action()->clickAndHold($hold)->perform();
        $phone->until(static fn (): bool => (float) $phone->script('return /scaleX\\((.*)\\)/.exec(document.querySelector(".gone").style.transform)[1]') > 0.2, 'a part of the press');
        $phone->driver->action()->release()->perform();
        $phone->until(static fn (): bool => $phone->script('return document.querySelector(".gone").style.transform') === 'scaleX(0)', 'nothing to be gone');
        self::assertSame([], array_filter(Desk::api($phone, 'in-force')['in_force'], static fn (array $one): bool => $one['stands']), 'let go before');
        // By keys: the space bar is held as a finger is.
        $phone->script('arguments[0].focus()', $hold);
        $phone->script('arguments[0].dispatchEvent(new KeyboardEvent("keydown", { key: " ", code: "Space", bubbles: true }))', $hold);
        $phone->see('.done', 'Shown on');
        $phone->script('arguments[0].dispatchEvent(new KeyboardEvent("keyup", { key: " ", bubbles: true }))', $hold);
        $player->see('.stage-canvas', 'Leave the building');
        $below = 'return [...document.querySelectorAll(".stage-canvas [data-element]")].filter((one) => /clock|zone|main|head-line/.test(one.dataset.element)).length';
        self::assertSame(0, $player->script($below), 'nothing below it is drawn');
        [$r, $g, $b] = self::colourAt($player, 100, 100);
        self::assertSame([0xa3, 0x26, 0x2a], [$r, $g, $b]);
        $phone->press('.forced button', 'End now')->see('.done', 'is ended');
        $player->until(static fn (): bool => $player->find('.stage-canvas', 'Leave the building') === null, 'the takeover to be gone');
        $player->until(static fn (): bool => count($player->driver->findElements(\Facebook\WebDriver\WebDriverBy::cssSelector('.stage-canvas img, .stage-canvas video'))) > 0, 'what plays');
        self::assertNotSame([0xa3, 0x26, 0x2a], self::colourAt($player, 100, 100));
    }

    /** Nine players of the page's machine in Node take it within moments; those that lose contact meanwhile end it on time as well, and all go on as if nothing had been. */
    public function testATakeoverReachesNinePlayersAndEndsByItself(): void
    {
        $nine = ['check-in-1', 'check-in-2', 'check-in-3', 'check-in-4', 'pier-tolm', 'info-post', 'gate-totem-a', 'gate-totem-b', 'gate-totem-c'];
        $told = Scene::of('players', 'takenOver', [
            'base' => Desk::url('/'),
            'secrets' => array_map(fn (string $one): string => basename(Desk::players($this->desk, $one)[0]['address']), $nine),
            'takeover' => ['overlay' => 'take-evacuation', 'reason' => 'Drill', 'displays' => $nine],
            'words' => 'Leave the building',
            'lasts_ms' => 20_000,
        ]);
        $says = json_encode($told, JSON_THROW_ON_ERROR);
        self::assertNotContains(null, $told['seen'], $says);
        self::assertNotContains(null, $told['gone'], $says);
        self::assertSame([], array_filter($told['gone'], static fn (int $late): bool => $late < 0), $says);
        self::assertSame(array_fill(0, 9, true), $told['goes_on'], $says);
        getenv('UPPER_PANE_LONG') === '1' && fwrite(STDERR, "$says\n");
    }

    /** Made in a few presses: what, for whom, where; beside it how it looks on the displays that differ most, and where it would cover less. */
    public function testAnOverlayIsMadeSeenAndPutUp(): void
    {
        $this->desk->press('button', 'New overlay')->press('.choice', 'Ticker')->type('.make input[type=text], .make input:not([type])', 'Pier café');
        $this->desk->script('const s = document.querySelector(".make select"); s.value = "gates"; s.dispatchEvent(new Event("change", { bubbles: true }))');
        $this->desk->press('.make button', 'Make it')->see('.looks', 'Gate totem');
        $id = basename((string) parse_url($this->desk->driver->getCurrentURL(), PHP_URL_PATH));
        try {
            $this->desk->see('.overlay textarea')->clear();
            $this->desk->type('.overlay textarea', 'Soup until three at the café');
            $this->desk->see('.found', 'falls on');
            $asked = Desk::api($this->desk, "overlays/$id")['document'];
            $this->desk->press('.cures button');
            $saved = fn (): array => Desk::api($this->desk, "overlays/$id")['document'];
            $this->desk->until(static fn (): bool => [$saved()['edge'], $saved()['room'] ?? 'cover'] !== [$asked['edge'], $asked['room'] ?? 'cover'], 'the cure to be saved');
            $this->desk->press('button', 'Put up')->see('.note', 'Being put up on 3 displays');
            $player = $this->plays('gate-totem-a');
            $player->see('.stage-canvas', 'Soup until three at the café');
        } finally {
            Desk::post($this->desk, 'places/gates/settings', ['setting' => 'overlays', 'value' => ['add' => ['gate-notices']]], 'PUT');
            $this->putUp($id);
            $this->delete($id);
        }
    }

    /** Dragged over a real picture it snaps to the nearest corner; arrows do the same, and undo takes both back. */
    public function testAMarkIsDraggedToAnotherCornerAndBack(): void
    {
        $this->desk->press('tbody a', 'Mark of the ferries')->see('.looks .stage-canvas');
        $picture = $this->desk->see('.picture');
        $corner = fn (string $name) => $this->desk->until(fn (): bool => $this->desk->find("[aria-label='$name'][aria-checked=true]") !== null, "the corner $name");
        $this->desk->script('arguments[0].scrollIntoView()', $picture);
        ['width' => $width, 'height' => $height] = (array) $this->desk->script('const b = arguments[0].getBoundingClientRect(); return { width: b.width, height: b.height }', $picture);
        $this->desk->driver->action()->moveToElement($picture, (int) ($width / 4), (int) (-$height / 4))->clickAndHold()
            ->moveToElement($picture, (int) (-$width / 4), (int) ($height / 4))->release()->perform();
        $corner('bottom left');
        $this->desk->enter("[aria-label='bottom left']")->sendKeys(WebDriverKeys::ARROW_RIGHT);
        $corner('bottom right');
        $this->desk->press('button', 'Undo')->press('button', 'Undo');
        $corner('top right');
        $this->desk->see('.found', 'covers');
        $this->desk->go(Desk::url('/displays?display=deck-strip'))->see('.carried', 'Mark on the vessel');
        self::assertStringContainsString('from Tolm Maid', $this->desk->see('.carried')->getText());
    }

    /** Running text on the glass is where the core has it, and the mark has its colours there: read off the picture of the browser, not off the page. */
    public function testWhatAPlayerDrawsIsWhereTheCoreSays(): void
    {
        $block = ['kind' => 'ticker', 'created' => '2026-11-01T00:00:00Z', 'when' => 'always', 'edge' => 'bottom', 'thickness' => 0.1]
            + ['text' => "\u{2588}", 'ground' => '#000000', 'speed_px_s' => 60]
            + ['style' => ['family' => 'Inter', 'size_px' => 60, 'color' => '#ffffff', 'valign' => 'middle']];
        $id = Desk::post($this->desk, 'overlays', ['name' => 'Block', 'document' => $block])['id'];
        $state = fn (?array $value): array => Desk::post($this->desk, 'displays/check-in-2/settings', ['setting' => 'overlays', 'value' => $value], 'PUT');
        try {
            $state(['add' => [$id]]);
            $this->putUp($id);
            $sheet = self::part(self::planes($this->desk, 'check-in-2'), 'ticker', $id);
            $player = $this->plays('check-in-2');
            $player->until(static fn (): bool => $player->script('return document.querySelector(".stage-canvas [data-kind=ticker]") !== null'), 'the line');
            ['pass_ms' => $pass, 'from_px' => $from, 'speed_px_s' => $speed, 'length_px' => $length] = $sheet['ticker'];
            $looks = 0;
            $player->until(function () use ($player, $pass, $from, $speed, $length, $sheet, &$looks): bool {
                $before = (int) $player->script('return Date.now()');
                $picture = imagecreatefromstring($player->driver->takeScreenshot()) ?: throw new \RuntimeException('No picture.');
                $after = (int) $player->script('return Date.now()');
                [$first, $last] = array_map(static fn (int $ms): float => $from + $speed * ($ms % $pass) / 1000, [$before, $after]);
                if ($last > $first || $last < 10 || $first + $length > 1900) {
                    return false;
                }
                $y = (int) ($sheet['rect']['y'] + $sheet['rect']['height'] / 2);
                for ($x = 0; $x < 1920 && (imagecolorat($picture, $x, $y) & 255) < 128; $x++) {
                }
                // Where it was at some moment while the picture was taken, give or take three frames.
                self::assertGreaterThanOrEqual($last - 4 - abs($speed) / 20, $x);
                self::assertLessThanOrEqual($first + 4 + abs($speed) / 20, $x);

                return ++$looks === 2;
            }, 'two looks at the line', 120);
            $mark = self::part(self::planes($this->desk, 'check-in-2'), 'picture', 'house-mark')['rect'];
            $light = min(self::colourAt($player, (int) ($mark['x'] + $mark['width'] - 4), (int) ($mark['y'] + $mark['height'] / 2)));
            self::assertGreaterThan(200, $light, 'the plate of the mark is light');
        } finally {
            $state(null);
            $this->putUp($id);
            $this->delete($id);
        }
    }

    private function delete(string $overlay): void
    {
        $this->desk->script(
            'return fetch("/api/session").then((r) => r.json()).then(({ csrf }) => fetch("/api/overlays/" + arguments[0], { method: "DELETE", headers: { "X-CSRF-Token": csrf } }))',
            $overlay,
        );
    }

    private function putUp(string $overlay): void
    {
        $id = Desk::post($this->desk, 'above', ['overlay' => $overlay])['handing']['id'];
        $this->desk->until(fn (): bool => Desk::api($this->desk, "handings/$id")['state'] === 'done', 'it to be put up');
    }

    private function plays(string $display, int $width = 1920, int $height = 1080): Chrome
    {
        $this->player = Chrome::open($width, $height);
        $this->player->go(Desk::url(Desk::players($this->desk, $display)[0]['address']))->see('.stage-canvas [data-element]');

        return $this->player;
    }

    /** @return array<mixed> what is named beforehand and not kept by a player yet; not empty where nothing is named */
    private static function lacks(Chrome $player): array
    {
        return (array) $player->driver->executeAsyncScript(<<<'JS'
            const [done] = arguments
            const secret = location.pathname.split('/')[2]
            const { beforehand } = await (await fetch(`/pointers/${secret}.json`)).json()
            const open = indexedDB.open('upper-pane:' + secret)
            open.onsuccess = () => {
              open.result.transaction('files').objectStore('files').getAll().onsuccess = ({ target }) => {
                const kept = target.result.filter((one) => one.whole).map((one) => one.url)
                open.result.close()
                done(beforehand.length ? beforehand.filter((one) => !kept.includes(one.url)).map((one) => one.name) : ['nothing is named'])
              }
            }
            JS);
    }

    /** @return list<mixed> layers of all that lies above on a display, as its release has them */
    private static function planes(Chrome $desk, string $display): array
    {
        return $desk->driver->executeAsyncScript(<<<'JS'
            const [display, done] = arguments
            const estate = await (await fetch('/api/estate')).json()
            const row = estate.displays.find((one) => one.id === display)
            const manifest = await (await fetch(estate.releases[row.release].url)).json()
            const sheets = await Promise.all(manifest.planes.above.map(async (plane) => (await fetch(plane.sheet.url)).json()))
            done(sheets.flatMap((sheet) => sheet.layers))
            JS, [$display]);
    }

    /**
     * @param array<mixed> $layers
     * @return array<string, mixed> the first part of a kind that an overlay has, wherever in them it stands
     */
    private static function part(array $layers, string $kind, string $overlay): array
    {
        foreach ($layers as $layer) {
            $part = $layer['part'] ?? null;
            if ($part !== null && $part['kind'] === $kind && ($part['overlay'] ?? null) === $overlay) {
                return $part;
            }
            foreach ($layer['scenes'] ?? [] as $scene) {
                $found = self::part($scene, $kind, $overlay);
                if ($found !== []) {
                    return $found;
                }
            }
        }

        return [];
    }

    /** @return array{int, int, int} of the picture of the browser */
    private static function colourAt(Chrome $chrome, int $x, int $y): array
    {
        $picture = imagecreatefromstring($chrome->driver->takeScreenshot()) ?: throw new \RuntimeException('No picture.');
        $colour = imagecolorat($picture, $x, $y);

        return [($colour >> 16) & 255, ($colour >> 8) & 255, $colour & 255];
    }
}
