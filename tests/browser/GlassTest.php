<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Screen;

/** What is seen on the glass when the machine under it is not what it should be. */
final class GlassTest extends TestCase
{
    private Chrome $desk;
    private Chrome $player;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk);
        $this->player = Chrome::open(1920, 1080);
        $this->player->go(Desk::url(Desk::players($this->desk, 'check-in-2')[0]['address']));
        $this->player->see('.stage-canvas [data-element=main]');
        $isKept = 'const done = arguments[0]; caches.keys().then((names) => done(navigator.serviceWorker.controller !== null && names.some((one) => one.includes("precache"))))';
        $this->player->until(fn (): bool => $this->player->driver->executeAsyncScript($isKept) === true, 'the page to be kept');
    }

    protected function tearDown(): void
    {
        $this->player->close();
        $this->desk->close();
        Desk::server('start', 'nginx');
    }

    /** What is damaged is never shown: it is fetched anew before it is used, and the rest plays meanwhile. */
    public function testAKeptFileThatIsDamagedIsFetchedAnew(): void
    {
        $pieces = <<<'JS'
            const [work, done] = arguments
            const open = indexedDB.open('upper-pane:' + location.pathname.split('/')[2])
            open.onsuccess = () => {
              const db = open.result
              const rooms = db.transaction('pieces', 'readwrite').objectStore('pieces')
              const all = rooms.getAllKeys()
              all.onsuccess = async () => {
                const keys = all.result.filter(([url]) => url.endsWith('.png') || url.endsWith('.jpg'))
                if (work === 'damage') for (const key of keys) rooms.put(new Blob(['damaged']), key)
                const sizes = []
                for (const key of keys) await new Promise((next) => { rooms.get(key).onsuccess = (e) => { sizes.push(e.target.result.size); next() } })
                db.close()
                done(sizes)
              }
            }
            JS;
        $sizes = (array) $this->player->driver->executeAsyncScript($pieces, ['look']);
        self::assertGreaterThan(2, count($sizes));
        self::assertSame(array_fill(0, count($sizes), 7), $this->player->driver->executeAsyncScript($pieces, ['damage']));
        $this->player->driver->navigate()->refresh();
        $this->player->see('.stage-canvas [data-element=main] img, .stage-canvas [data-element=main] video');
        $this->player->until(fn (): bool => $this->player->driver->executeAsyncScript($pieces, ['look']) === $sizes, 'all of them to be whole again');
        $this->player->until(fn (): bool => $this->player->script('return upperPanePlayer.told') === null, 'nothing to be wrong any more');
    }

    /** A small picture of what the browser draws, whatever it believes itself to draw. */
    public function testAnAgentBesideTheBrowserTellsWhatIsOnTheGlass(): void
    {
        $port = (int) file_get_contents("{$this->player->profile}/DevToolsActivePort");
        $command = sprintf('%s --once --browser http://127.0.0.1:%d 2>&1', escapeshellarg(dirname(__DIR__, 2) . '/bin/glass'), $port);
        $agent = static function () use ($command): int {
            exec($command, $said, $code);

            return $code;
        };
        self::assertSame(0, $agent());
        [$glass] = Desk::api($this->desk, 'displays/check-in-2/glass')['glass'];
        $this->desk->go(Desk::url('/displays/check-in-2/seen'))->see('.glass figcaption', 'ago, at');
        $picture = '.glass img[alt="What ' . $glass['name'] . ' has on its glass"]';
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelector(arguments[0])?.naturalWidth', $picture) === 960, 'the picture of the glass');
        $this->desk->see('.glass figure:nth-of-type(2) .stage-canvas');
        // A plate that stands all the time, as the browser of the player draws it; JPEG is not exact.
        $pixel = $this->desk->driver->executeAsyncScript(
            'const [of, done] = arguments; createImageBitmap(document.querySelector(of)).then((bitmap) => { const c = new OffscreenCanvas(960, 540).getContext("2d");'
            . ' c.drawImage(bitmap, 0, 0); done([...c.getImageData(6, 100, 1, 1).data].slice(0, 3)) })',
            [$picture],
        );
        assert(is_array($pixel));
        self::assertTrue(Screen::of($this->player)->is(12, 200, sprintf('#%02x%02x%02x', ...array_map(intval(...), $pixel)), 16));

        // Where nothing plays it says so.
        $this->player->go('about:blank');
        self::assertSame(1, $agent());
    }

    /** What was drawn is counted, and what cannot be is told with where it lies. */
    public function testTheDeskKnowsWhatWasSeenAndWhatCannotBe(): void
    {
        $film = '.stage-canvas [data-element=main] video';
        $this->player->see($film, null, 60);
        $break = 'const film = document.querySelector(arguments[0]); film && Object.defineProperty(film, "error", { value: { code: 3 } }); return film !== null';
        $this->player->until(fn (): bool => (bool) $this->player->script($break, $film), 'a film to be broken');
        $told = fn (): array => Desk::api($this->desk, 'displays/check-in-2/seen');
        $this->desk->until(fn (): bool => ($told()['players'][0]['troubles'] ?? []) !== [], 'the desk to know of it');
        ['says' => $says, 'element' => $element, 'item' => $item] = $told()['players'][0]['troubles'][0];
        self::assertSame(['"crossing-at-dawn.mp4" cannot be decoded: it is damaged, or this machine cannot play its codec', 'main', 'i1'], [$says, $element, $item]);

        $this->desk->until(fn (): bool => count($told()['things']) > 2, 'what was seen to arrive');
        $seen = array_column($told()['things'], null, 'id');
        self::assertSame(['main', 'side', 'foot'], array_values(array_intersect(['main', 'side', 'foot'], array_column($seen, 'element'))));
        foreach ($seen as $thing) {
            self::assertGreaterThan(0, $thing['times'] + $thing['missed'] + $thing['ms'] + $thing['missed_ms'], (string) json_encode($thing));
        }
        $this->desk->go(Desk::url('/displays/check-in-2/seen'));
        $this->desk->see('.players .said-error', 'cannot be decoded: it is damaged, or this machine cannot play its codec (main, i1)');
        $this->desk->see('.table td', 'crossing-at-dawn.mp4');
    }

    /** An empty battery, and nobody there: all of it as it was, standing still, until somebody says what time it is. */
    public function testAClockBeyondBeliefStandsStill(): void
    {
        $facts = <<<'JS'
            const done = arguments[0]
            const open = indexedDB.open('upper-pane:' + location.pathname.split('/')[2])
            open.onsuccess = () => {
              const all = open.result.transaction('facts').objectStore('facts').getAllKeys()
              all.onsuccess = () => { open.result.close(); done(all.result) }
            }
            JS;
        $isNoted = fn (): bool => array_diff(['instant', 'pointer', 'stood'], (array) $this->player->driver->executeAsyncScript($facts)) === [];
        $this->player->until($isNoted, 'what stood, and when, to be noted');
        Desk::server('stop', 'nginx');
        (new ChromeDevToolsDriver($this->player->driver))->execute('Page.addScriptToEvaluateOnNewDocument', ['source' => <<<'JS'
            const back = Date.now() - 86400000
            const Real = Date
            globalThis.Date = class extends Real {
              constructor(...a) { super(...(a.length ? a : [Real.now() - back])) }
              static now() { return Real.now() - back }
            }
            JS]);
        $this->player->driver->navigate()->refresh();
        $seen = "return [...document.querySelectorAll('.frozen .stage-canvas img')].filter((one) => one.naturalWidth > 0 && one.checkVisibility({ visibilityProperty: true })).length";
        $this->player->until(fn (): bool => $this->player->script($seen) >= 2, 'its pictures as they were');
        self::assertStringContainsString('The clock of this player says 1970-01-02', (string) $this->player->script('return upperPanePlayer.told'));

        Desk::server('start', 'nginx');
        $this->player->until(fn (): bool => $this->player->script('return document.querySelector(".frozen")') === null, 'it to go on');
        $this->player->until(fn (): bool => str_contains((string) $this->player->script('return upperPanePlayer.told'), 'days slow; it goes by the server'), 'the clock of the server to be taken');
        $this->desk->until(fn (): bool => str_contains(Desk::displays($this->desk)['check-in-2']['players'][0]['trouble'] ?? '', 'days slow'), 'the desk to know it');
    }
}
