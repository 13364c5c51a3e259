<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;
use UpperPane\Tests\Browser\Support\Screen;

/** From a surveyed display to a playing, proven layout, as a designer does it: with pointer and keyboard, in the real application. */
final class StoryTest extends TestCase
{
    private const COLOURS = ['brick' => '#a3262a', 'sand' => '#f0e3c8', 'kelp' => '#14665b', 'slate' => '#52616a'];

    private static ?Chrome $desk = null;
    private static ?Chrome $player = null;
    private static string $folder = '';

    public static function setUpBeforeClass(): void
    {
        self::$folder = sys_get_temp_dir() . '/upper-pane-story-' . bin2hex(random_bytes(4));
        mkdir(self::$folder);
        foreach (['brick' => '1344x864', 'sand' => '576x864', 'slate' => '576x864'] as $name => $size) {
            self::ffmpeg("color=c=" . self::COLOURS[$name] . ":s=$size", '-frames:v', '1', "$name.png");
        }
        $bt709 = ['-vf', 'scale=out_color_matrix=bt709', '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709'];
        self::ffmpeg('color=c=' . self::COLOURS['kelp'] . ':s=1920x216:d=3:r=25', ...[...$bt709, '-pix_fmt', 'yuv420p', '-c:v', 'libx264', 'kelp.mp4']);
        file_put_contents(self::$folder . '/fake.png', "#!/bin/sh\necho no\n");
        self::$desk = Chrome::open();
        self::$player = Chrome::open(1920, 1080);
    }

    public static function tearDownAfterClass(): void
    {
        self::$desk?->close();
        self::$player?->close();
        array_map(unlink(...), glob(self::$folder . '/*') ?: []);
        rmdir(self::$folder);
    }

    public function testSheSignsInAndLandsOnWhatEveryDisplayShows(): void
    {
        $desk = self::desk()->go(Desk::url());
        $desk->see('#login')->sendKeys('ines');
        $desk->see('#password')->sendKeys("wrong\n");
        $desk->see('[role=alert]', 'do not belong together');
        $desk->see('#password')->sendKeys("harbour\n");

        $desk->see('h1', 'Today');
        $desk->see('.one', 'Gate totem A');
        self::assertTrue($desk->see('.one .stage-canvas')->isDisplayed());
    }

    #[Depends('testSheSignsInAndLandsOnWhatEveryDisplayShows')]
    public function testANewPlayerIsBoundByItsCode(): void
    {
        $code = (string) self::player()->go(Desk::url('/player'))->see('[data-code]')->getAttribute('data-code');
        $desk = self::desk()->press('nav a', 'Displays');
        $desk->see('td', '1080 × 1920');
        $desk->type('input[type=search]', 'check-in 4');
        $desk->press('td.figures', '1920 × 1080');
        $desk->type('.bind input', 'AAAAAA')->press('.bind button');
        $desk->see('[role=alert]', 'No player shows the code AAAAAA');
        $desk->type('.bind input', substr($code, 0, 3) . ' ' . substr($code, 3))->press('.bind button');
        $desk->see('[role=status]', 'bound to Check-in 4');

        // It has a release already, and plays it at once.
        self::assertTrue(self::player()->see('.stage-canvas')->isDisplayed());
    }

    #[Depends('testANewPlayerIsBoundByItsCode')]
    public function testPicturesAndAFilmAreBroughtInAndAFakeIsRefused(): void
    {
        $desk = self::desk()->press('nav a', 'Media');
        $desk->see('.grid');
        $desk->script('document.querySelector("input[type=file]").hidden = false');
        foreach (['brick.png', 'sand.png', 'slate.png', 'kelp.mp4', 'fake.png'] as $file) {
            $desk->give('input[type=file]', self::$folder . "/$file");
            $desk->see('.grid li', $file);
        }
        $desk->until(fn (): bool => str_contains($desk->see('.grid li', 'kelp.mp4')->getText(), 'film, 1920 × 216, 3.0 s'), 'the film to be measured', 30);
        $desk->until(fn (): bool => str_contains($desk->see('.grid li', 'fake.png')->getText(), 'is no picture or film'), 'the fake to be refused', 30);
        $desk->until(static fn (): bool => count($desk->see('.grid li', 'brick.png')->findElements(WebDriverBy::tagName('img'))) === 1, 'its picture');
    }

    #[Depends('testPicturesAndAFilmAreBroughtInAndAFakeIsRefused')]
    public function testShePutsALayoutTogetherAndTheSumsWatchOverHer(): string
    {
        $desk = self::desk()->press('nav a', 'Layouts');
        $desk->press('.actions button', 'New layout');
        $desk->press('#for-display option[value="check-in-4"]');
        $desk->type('#layout-name', 'Story');
        $desk->holds('[aria-label="Width in px"]', '1920');
        $desk->press('.make button[type=submit]');
        $desk->see('.begin', 'draw the first zone');

        foreach ([[60, 60, 300, 200], [380, 60, 120, 200], [60, 280, 400, 60]] as $box) {
            self::hands()->draw('z', ...$box);
        }
        self::hands()->figures('zone1', 0, 0, 1344, 864);
        self::hands()->figures('zone2', 1344, 0, 576, 864);
        self::hands()->figures('zone3', 0, 864, 1920, 864);
        $desk->see('.shelf .first', 'has nothing to play');
        self::hands()->fill('zone1', ['brick.png']);
        self::hands()->fill('zone2', ['sand.png', 'slate.png']);
        self::hands()->fill('zone3', ['kelp.mp4']);
        $desk->see('.shelf .first', 'goes beyond the canvas by 648 px at the bottom');
        $desk->see('.sums .off', '864 + 864 = 1728');
        $desk->press('.shelf .first .fix', 'Cut it at the edge: 1920 x 216 px');
        $desk->until(fn (): bool => $desk->find('.sums .off') === null && $desk->find('.sums .right') !== null, 'the sums to add up');
        self::assertSame('216', self::hands()->field('height of zone3'));

        // The fix can be undone and done again, with the keys that everybody expects.
        self::hands()->keys(WebDriverKeys::CONTROL . 'z');
        $desk->until(fn (): bool => self::hands()->field('height of zone3') === '864', 'undo');
        self::hands()->keys(WebDriverKeys::CONTROL . WebDriverKeys::SHIFT . 'z');
        $desk->until(fn (): bool => self::hands()->field('height of zone3') === '216', 'redo');

        return (string) $desk->script('return location.pathname.split("/").pop()');
    }

    #[Depends('testShePutsALayoutTogetherAndTheSumsWatchOverHer')]
    public function testTextAndShapeAreMovedByPointerAndArrows(string $layout): string
    {
        $desk = self::desk();
        self::hands()->draw('t', 100, 90, 200, 60);
        self::hands()->figures('text1', 100, 300, 600, 120);
        $desk->type('textarea[aria-label=Text]', 'Welcome aboard');
        self::hands()->draw('s', 100, 200, 60, 40);
        self::hands()->figures('shape1', 100, 500, 200, 100);
        $desk->press('.ledger th button', 'text1');
        self::hands()->focusPane();
        self::hands()->keys(WebDriverKeys::ARROW_RIGHT, WebDriverKeys::SHIFT . WebDriverKeys::ARROW_DOWN);
        $desk->until(fn (): bool => self::hands()->field('x of text1') === '101' && self::hands()->field('y of text1') === '310', 'the arrows to move it by 1 and by 10 px');

        $desk->press('.ledger th button', 'shape1');
        $before = (int) self::hands()->field('x of shape1');
        self::hands()->dragChosen(90, 0);
        $desk->until(fn (): bool => (int) self::hands()->field('x of shape1') > $before + 100, 'the pointer to move the shape');
        $desk->until(fn (): bool => str_contains($desk->see('.save-note')->getText(), 'saved'), 'saving');

        return $layout;
    }

    #[Depends('testTextAndShapeAreMovedByPointerAndArrows')]
    public function testTheHandOfTheTideTableMovesThePane(string $layout): string
    {
        $desk = self::desk();
        $desk->see('.row-name', 'zone2');
        $hand = $desk->see('.hand');
        $bed = $desk->see('.bed');
        (new WebDriverActions($desk->driver))->moveToElement($bed, 0, -40)->clickAndHold()->moveByOffset(60, 0)->release()->perform();
        $desk->see('.steps button:nth-child(3)', 'run'); // dragging the hand stops the clock
        $shown = fn (): string => (string) $desk->script('return [...document.querySelectorAll(".room [data-element=zone2]")].find((e) => e.style.visibility !== "hidden")?.dataset.item ?? ""');
        $first = $shown();
        $hand->sendKeys(WebDriverKeys::SHIFT . WebDriverKeys::ARROW_RIGHT);
        for ($i = 0; $i < 6 && $shown() === $first; $i++) {
            $hand->sendKeys(WebDriverKeys::SHIFT . WebDriverKeys::ARROW_RIGHT);
        }
        self::assertNotSame($first, $shown(), 'the next changes bring the other item of zone2');

        return $layout;
    }

    #[Depends('testTheHandOfTheTideTableMovesThePane')]
    public function testSheHandsOverAndThePlayerShowsItWithinFiveSeconds(string $layout): string
    {
        $desk = self::desk()->press('.head .actions a', 'Hand over');
        $desk->see('article', 'exact');
        $desk->see('.changes', '"Story" takes the place of');
        $desk->press('.head .actions button', 'Hand over to 1 display');
        $pressed = microtime(true);
        $desk->see('.done', 'handed over to Check-in 4');
        self::player()->see('[data-element=text1]', 'Welcome aboard', 8);
        self::assertLessThan(5.0, microtime(true) - $pressed);

        return $layout;
    }

    #[Depends('testSheHandsOverAndThePlayerShowsItWithinFiveSeconds')]
    public function testThePlayerShowsInEveryZoneWhatTheCoreSaysForTwoInstants(string $layout): void
    {
        $document = Desk::api(self::desk(), "layouts/$layout")['document'];
        $file = self::$folder . '/story.json';
        file_put_contents($file, json_encode($document));
        $address = (string) strtok((string) self::player()->driver->getCurrentURL(), '#');
        $seen = [];
        foreach (['2026-06-01T10:00:02Z', '2026-06-01T10:00:13.500Z'] as $instant) {
            $shown = json_decode((string) shell_exec(dirname(__DIR__, 2) . '/bin/upperpane shown ' . escapeshellarg($file) . " --at $instant"), true);
            self::assertIsArray($shown);
            self::player()->go('about:blank')->go("$address#at=$instant");
            self::player()->see('[data-element=zone2]');
            self::player()->driver->executeAsyncScript('window.upperPanePlayer.settled().then(arguments[0])');
            $items = self::player()->script('return Object.fromEntries([...document.querySelectorAll("[data-item]")]'
                . '.filter((e) => e.style.visibility !== "hidden").map((e) => [e.dataset.element, e.dataset.item]))');
            $seen[] = $items['zone2'];
            $screen = Screen::of(self::player());
            $zones = array_values(array_filter($shown['things'], static fn (array $thing): bool => $thing['kind'] === 'zone'));
            self::assertCount(3, $zones);
            foreach ($zones as $zone) {
                self::assertSame($zone['item'], $items[$zone['element']]);
                $this->hasColour($screen, $zone['rect'], self::COLOURS[basename($zone['media']['name'], '.' . pathinfo($zone['media']['name'], PATHINFO_EXTENSION))], $instant);
            }
        }
        self::player()->go('about:blank')->go($address);
        self::player()->see('.stage-canvas');
        self::assertCount(2, array_unique($seen), 'the two instants show both items of zone2');
    }

    #[Depends('testSheHandsOverAndThePlayerShowsItWithinFiveSeconds')]
    public function testPlaybackSaysWhatThePlayerReports(string $layout): string
    {
        $desk = self::desk()->press('nav a', 'Playback');
        $desk->until(fn (): bool => count(array_filter(
            $desk->driver->findElements(WebDriverBy::cssSelector('tbody tr')),
            static fn ($row): bool => str_contains($row->getText(), 'Check-in 4') && str_contains($row->getText(), 'plays what it should'),
        )) > 0, 'the report of release 2', 30);

        // Saved again, and said to be newer than what plays.
        $desk->go(Desk::url("/layouts/$layout"))->type('[aria-label="Name of the layout"]', 'Story, evening');
        $desk->until(fn (): bool => str_contains($desk->see('.save-note')->getText(), 'saved'), 'saving');
        $desk->press('nav a', 'Playback');
        $desk->see('.changed', 'not handed over');

        return $layout;
    }

    #[Depends('testPlaybackSaysWhatThePlayerReports')]
    public function testAPortraitLayoutIsRefusedForALandscapeDisplay(): void
    {
        $desk = self::desk()->press('nav a', 'Layouts');
        $desk->press('.actions button', 'New layout');
        $desk->press('#for-display option[value="gate-totem-a"]');
        $desk->holds('[aria-label="Width in px"]', '1080');
        $desk->press('.make button[type=submit]');
        self::hands()->draw('z', 20, 20, 80, 120);
        self::hands()->figures('zone1', 0, 0, 1080, 1920);
        self::hands()->fill('zone1', ['brick.png']);
        $desk->until(fn (): bool => str_contains($desk->see('.save-note')->getText(), 'saved'), 'saving');
        $desk->press('.head .actions a', 'Hand over');
        $desk->see('article', 'exact');
        $desk->press('.leaf .one', 'Check-in 1');
        $desk->see('article.stopped', 'crossed: width and height swapped');
        $desk->see('.found', 'The canvas is 1080 x 1920 px, portrait; Check-in 1 is 1920 x 1080 px, landscape.');
        self::assertFalse($desk->see('.head .actions button')->isEnabled());
    }

    private static function desk(): Chrome
    {
        return self::$desk ?? throw new \LogicException('No browser.');
    }

    private static function hands(): Hands
    {
        return new Hands(self::desk());
    }

    private static function player(): Chrome
    {
        return self::$player ?? throw new \LogicException('No browser.');
    }

    /** @param array{x: int, y: int, width: int, height: int} $rect */
    private function hasColour(Screen $screen, array $rect, string $colour, string $when): void
    {
        // Inside every corner by 2 px, but not under the words and the shape, which lie from 300 to 700 px.
        foreach ([$rect['x'] + 2, $rect['x'] + $rect['width'] - 3] as $x) {
            foreach ([$rect['y'] + 2, $rect['y'] + $rect['height'] - 3] as $y) {
                self::assertTrue($screen->is($x, $y, $colour, 6), "$when at $x, $y: {$screen->at($x, $y)}, wanted $colour");
            }
        }
        foreach ([[$rect['x'] - 2, $rect['y'] + 9], [$rect['x'] + $rect['width'] + 2, $rect['y'] + 9], [$rect['x'] + 9, $rect['y'] - 2]] as [$x, $y]) {
            if ($x > 0 && $y > 0 && $x < $screen->width()) {
                self::assertFalse($screen->is($x, $y, $colour, 6), "$when at $x, $y the colour goes beyond its zone");
            }
        }
    }

    private static function ffmpeg(string $source, string ...$options): void
    {
        $file = self::$folder . '/' . array_pop($options);
        exec(implode(' ', array_map(escapeshellarg(...), ['ffmpeg', '-v', 'error', '-y', '-f', 'lavfi', '-i', $source, ...$options, $file])), result_code: $code);
        self::assertSame(0, $code, $file);
    }
}
