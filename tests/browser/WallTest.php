<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Overlay\Mark;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\MakeEdid;

/** Walls in the real application: surveyed by hand, wired, aligned, composed for, and played panel by panel. */
final class WallTest extends TestCase
{
    private static ?Chrome $desk = null;
    private static ?Chrome $panel = null;

    public static function setUpBeforeClass(): void
    {
        self::$desk = Chrome::open();
        self::$panel = Chrome::open(1920, 1080);
        Desk::signIn(self::$desk);
    }

    public static function tearDownAfterClass(): void
    {
        self::$desk?->close();
        self::$panel?->close();
    }

    /** The pages of the six outputs of the Hall wall, put together with ImageMagick, against what `shown` says is where. */
    public function testTheSixPagesPutTogetherAreWhatIsShown(): void
    {
        $at = '2026-06-01T10:00:05Z';
        [$layout, $wall] = [self::demoLayout(), self::hall()->wall];
        $address = self::hallPlayer()['address'];
        $folder = sys_get_temp_dir() . '/upper-pane-pages-' . bin2hex(random_bytes(4));
        mkdir($folder);
        $canvas = "-size {$wall->canvas->width}x{$wall->canvas->height} xc:black";
        [$said, $pages, $blank] = ["convert $canvas", "convert $canvas", ''];
        // What tells data says something else at any time; the mark of the house is mixed and scaled by the browser's own hand.
        $mark = Overlay::fromArray((array) json_decode((string) file_get_contents(dirname(__DIR__, 2) . '/demo/overlays/house-mark.json'), true))->lies;
        assert($mark instanceof Mark);
        foreach ([$layout->zones['board']->rect(), $mark->rect(Room::whole($wall->canvas), Size::px(640, 160))] as $rect) {
            $blank .= sprintf(' -draw "rectangle %d,%d %d,%d"', $rect->x, $rect->y, $rect->right() - 1, $rect->bottom() - 1);
        }
        foreach (Make::shownAt($layout, 0)->at(Instant::parse($at)->ms)->toArray()['things'] as $thing) {
            if (str_starts_with($thing['element'], 'board')) {
                continue;
            }
            ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height] = $thing['rect'];
            if (isset($thing['media'])) {
                $said .= sprintf(' %s -geometry +%d+%d -composite', dirname(__DIR__, 2) . "/demo/media/{$thing['media']['name']}", $thing['drawn']['x'], $thing['drawn']['y']);
            } else {
                // Letters are drawn by the browser's own hand: where they stand both pictures are left black.
                $blank .= sprintf(' -draw "rectangle %d,%d %d,%d"', $x, $y, $x + $width - 1, $y + $height - 1);
            }
        }
        foreach ($wall->strips as $strip) {
            $blank .= sprintf(' -draw "rectangle %d,%d %d,%d"', $strip->x, $strip->y, $strip->right() - 1, $strip->bottom() - 1);
        }
        foreach ($wall->panels as $panel) {
            $page = self::panel()->go('about:blank')->go(Desk::url("$address?output=$panel->output#at=$at"));
            $page->see('.room .stage-canvas');
            $seen = 'return getComputedStyle(document.querySelector(".room")).visibility === "visible" && [...document.images].every((i) => i.complete)';
            $page->until(static fn (): bool => $page->script($seen) === true, 'the pictures of the page');
            $page->driver->executeAsyncScript('const done = arguments[0]; upperPanePlayer.settled().then(() => requestAnimationFrame(() => requestAnimationFrame(done)))');
            $page->shot("$folder/$panel->output.png");
            $pages .= " $folder/$panel->output.png -geometry +{$panel->source->x}+{$panel->source->y} -composite";
        }
        self::ran("$said -fill black $blank PNG24:$folder/said.png");
        self::ran("$pages -fill black $blank PNG24:$folder/pages.png");
        self::assertSame('0', self::ran("compare -metric AE -fuzz 1% $folder/said.png $folder/pages.png null:"), "$folder is kept to be looked at");
        self::assertGreaterThan(1_000_000, (int) self::ran("compare -metric AE $folder/said.png $canvas null:"), 'it is not black itself');
        array_map(unlink(...), glob("$folder/*") ?: []);
        rmdir($folder);
    }

    public function testAPanelThatHangsTurnedIsDrawnTurned(): void
    {
        $totem = self::playerOf('gate-totem-a');
        $page = self::panel()->go('about:blank')->go(Desk::url($totem['address']));
        $page->see('.room .stage-canvas');
        $box = $page->script('const r = document.querySelector(".room"); const b = r.getBoundingClientRect(); return [Math.round(b.width), Math.round(b.height), r.style.transform]');
        self::assertSame([1920, 1080, 'rotate(-90deg)'], $box, 'the panel sends 1920 x 1080, and hangs turned by 90 degrees');
    }

    public function testAPlayerOfSeveralOutputsAsksWhichOneAWindowIs(): void
    {
        $page = self::panel()->go('about:blank')->go(Desk::url(self::hallPlayer()['address']));
        $page->see('h1', 'Which output is this window?');
        $page->press('.outputs a', '3');
        $page->see('.room .stage-canvas');
        self::assertStringEndsWith('?output=3', $page->driver->getCurrentURL());
    }

    /** Who hangs the display sees at the glass what is kept, what is missing, how it is drawn; it goes by itself or by Escape. */
    public function testTheGlassItselfTellsWhoHangsItHowItStands(): void
    {
        $page = self::panel()->go('about:blank')->go(Desk::url(self::hallPlayer()['address'] . '?output=3'));
        $page->see('.room .stage-canvas');
        $isOpen = static fn (): bool => $page->find('.setup') !== null;
        $page->driver->getKeyboard()->sendKeys("\u{E032}");
        $page->see('.setup h1', 'Hall wall');
        $page->see('.setup dd', '1:1, window 1920 × 1080, output 1920 × 1080 px');
        $page->see('.setup .outputs a[aria-current]', '3');
        $page->see('.setup dd', 'files');
        $page->press('.setup button', 'Test picture')->see('.alignment[data-output="3"]');
        $page->driver->getKeyboard()->sendKeys("\u{E032}");
        $page->see('.setup h1');
        $page->driver->getKeyboard()->sendKeys("\u{E00C}");
        $page->until(static fn (): bool => !$isOpen(), 'it to leave');
    }

    public function testAWrongCableIsSeenOnTheAlignmentPictureAndMended(): void
    {
        $desk = self::desk()->go(Desk::url('/displays/hall'));
        $desk->press('button', 'Show alignment picture')->see('button', 'Alignment until');
        $page = self::panel()->go('about:blank')->go(Desk::url(self::hallPlayer()['address'] . '?output=2'));
        $page->see('.alignment[data-panels="A2"][data-output="2"]');

        // The installer sees A2 where A3 hangs: the two are swapped.
        $desk->press('tr', 'A2');
        $desk->script('document.activeElement?.blur()');
        (new WebDriverActions($desk->driver))->keyDown(null, "\u{E008}")->click($desk->see('tbody th', 'A3'))->keyUp(null, "\u{E008}")->perform();
        $desk->press('button', 'A2 and A3 are swapped');
        $page->see('.alignment[data-panels="A3"][data-output="2"]');
        $desk->press('button', 'Undo');
        $page->see('.alignment[data-panels="A2"][data-output="2"]');
        $desk->press('button', 'Alignment until');
        $desk->see('button', 'Show alignment picture');
        $page->until(static fn (): bool => $page->find('.alignment') === null && $page->find('.room .stage-canvas') !== null, 'what is handed over comes back');
    }

    public function testAWallIsSurveyedByHand(): void
    {
        $desk = self::desk()->go(Desk::url('/displays'));
        $desk->press('button', 'New display…');
        $desk->type('.modal input[placeholder]', 'Cafe wall');
        $desk->press('.modal option[value="wide-55"]');
        $fields = $desk->count('.modal input[type=number]', 2)->driver->findElements(WebDriverBy::cssSelector('.modal input[type=number]'));
        foreach ([3, 2] as $index => $count) {
            $fields[$index]->sendKeys("\u{E009}a\u{E000}$count");
        }
        $desk->press('.modal button', 'Survey it');

        // What comes next stands there, the first of it under the hand.
        $desk->see('.leads', 'Make a layout for it');
        $desk->until(static fn (): bool => $desk->script('return document.activeElement.matches(".leads .bind input")'), 'the code to have the focus');

        // A 55 inch class panel of 16:9 is 1217.6 x 684.9 mm; its bezels are typed from the label.
        $desk->see('text', '5824 px');
        foreach (['left' => '1.8', 'top' => '1,8', 'right' => '0.9', 'bottom' => '0.9'] as $side => $mm) {
            $desk->type("[aria-label^='Bezel $side']", $mm);
        }
        $desk->see('.sum', '3 × 1920 + 2 × 4 = 5768 ✓');
        $desk->see('.facts', 'canvas 5768 × 2164 px');
        $desk->press('button', 'butted')->see('.sum', '3 × 1920 = 5760 ✓');
        $desk->press('button', 'hidden')->see('.sum', '2 × 4 = 5768');

        // Numbered the other way round by pressing the panels in turn.
        $desk->press('button', 'Number by pressing');
        foreach (['B3', 'B2', 'B1', 'A3', 'A2', 'A1'] as $id) {
            $desk->script('document.querySelector(arguments[0]).dispatchEvent(new PointerEvent("pointerdown", { bubbles: true, button: 0 }))', ".hit[aria-label^='Panel $id']");
            $desk->until(static fn (): bool => $desk->find(".hit[aria-label^='Panel $id']") !== null, $id);
        }
        $desk->see('.hit[aria-label="Panel B3 → 1"]');
        $desk->see('.hit[aria-label="Panel A1 → 6"]');

        // One panel turned makes the grid ragged, which is said, and undone.
        $desk->press('tbody th', 'A2')->press('[aria-label="Turned clockwise"] button', '90°');
        $desk->see('.shelf', 'The grid is ragged');
        $desk->press('button', 'Undo');
        $desk->until(static fn (): bool => !str_contains($desk->see('.shelf')->getText(), 'ragged'), 'the grid is even again');

        // Hung freely, a panel is dragged; the other panels draw its frame.
        $desk->press('button', 'freely');
        $desk->see('.facts', 'cut from mm');
        $a2 = $desk->see('.hit[aria-label^="Panel A2"]');
        (new WebDriverActions($desk->driver))->moveToElement($a2)->clickAndHold()->moveByOffset(0, -40)->moveByOffset(0, -30)->release()->perform();
        $desk->until(static fn (): bool => str_contains($desk->see('.save-note')->getText(), ', revision'), 'saved');
        $saved = self::whole('cafe-wall');
        self::assertLessThan(-50, $saved['document']['panels'][1]['origin_mm']['y'], 'A2 hangs higher than A1, which stands at 0');
        self::assertSame(0, $saved['document']['panels'][0]['origin_mm']['y']);

        // A sensor with its bands, how far an edge has to be passed, and how it counts; and a box of buttons.
        $desk->press('button', '+ sensor')->type('[aria-label="Distance bands of sensor s1, m"]', '0,5 1 2 4')->type('[aria-label="Hysteresis of sensor s1, mm"]', '50');
        $choose = 'const f = document.querySelector(arguments[0]); f.value = arguments[1]; f.dispatchEvent(new Event("change", { bubbles: true }))';
        $desk->script($choose, '[aria-label="Which band of sensor s1 is 1"]', 'far-first');
        $desk->press('button', '+ sensor')->see('[aria-label="Kind of sensor s2"]');
        $desk->script($choose, '[aria-label="Kind of sensor s2"]', 'buttons');
        $desk->type('[aria-label="Buttons of s2"]', '1 2');
        $sensors = [
            ['id' => 's1', 'kind' => 'presence', 'bands_mm' => [500, 1000, 2000, 4000], 'hysteresis_mm' => 50, 'numbering' => 'far-first'],
            ['id' => 's2', 'kind' => 'buttons', 'bands_mm' => [500, 1000, 2000], 'buttons' => ['1', '2']],
        ];
        $desk->until(static fn (): bool => isset(self::whole('cafe-wall')['document']['sensors'][1]['buttons']), 'the sensors to be saved');
        self::assertEquals($sensors, self::whole('cafe-wall')['document']['sensors']);
        self::assertSame([6, 5], array_slice(array_column($saved['wall']['panels'], 'output'), 0, 2));

        $desk->press('a', 'Wiring sheet');
        $desk->see('.page svg text', 'From behind, mirrored');
        $desk->see('.page svg text', 'player a, output 6');
    }

    public function testAnEdidAndAFixCorrectASurvey(): void
    {
        $file = sys_get_temp_dir() . '/upper-pane-office.edid';
        file_put_contents($file, MakeEdid::of([MakeEdid::fullHd(), MakeEdid::name('Quay 43')]));
        $desk = self::desk()->go(Desk::url('/displays/ticket-office'));
        $desk->see('.shelf', 'the wrong way round');
        $desk->press('.shelf button', 'Make it 1920 x 1080 px');
        $desk->see('.shelf', 'Nothing in the survey contradicts itself');
        $desk->see('.facts', 'canvas 1920 × 1080 px');

        $desk->give('input[aria-label="EDID file"]', $file);
        $desk->see('[role=status]', 'Quay 43 says: 1920 × 1080 px, 941 × 529 mm, 60.000 Hz');
        file_put_contents($file, 'no EDID');
        $desk->give('input[aria-label="EDID file"]', $file);
        $desk->see('[role=alert]', 'It has 7 bytes; an EDID has 128');
        unlink($file);
        $desk->press('button', 'Undo')->press('button', 'Undo');
        $desk->see('.shelf', 'the wrong way round');
        $desk->until(static fn (): bool => str_contains($desk->see('.save-note')->getText(), ', revision'), 'saved');
    }

    public function testWhereItCanBeReadIsDrawnAndSaid(): void
    {
        $desk = self::desk()->go(Desk::url('/displays/lane-1?view=above'));
        $desk->see('.says', 'is at the limit');
        $desk->see('.key', 'LED pitch 10 mm: comfortable from 10.0 m, pixels merge at 34.4 m');
        $desk->type('[aria-label="Height of a capital, px"]', '47');
        $desk->see('.says', 'reads comfortably');
        $desk->type('[aria-label="Height of a capital, px"]', '6');
        $desk->see('.says', 'under 7 px no capital can be drawn');
        $desk->press('[aria-label=View] button', 'from the side')->see('svg[aria-label="The display from the side"]');
    }

    public function testATableIsLookedAtBeforeItIsTakenIn(): void
    {
        $file = sys_get_temp_dir() . '/upper-pane-table.csv';
        $rows = "Café 1;Departure hall;1920;1080;941,2;529,4;1;8\nCafé 2;Nowhere;1920;1080;941,2;529,4;1;8\n";
        file_put_contents($file, mb_convert_encoding("name;place;width_px;height_px;width_mm;height_mm;nearest_m;farthest_m\n$rows", 'ISO-8859-1'));
        $desk = self::desk()->go(Desk::url('/displays/from-table'));
        $desk->give('input[type=file]', $file);
        $desk->see('[role=status]', '1 new, 0 changed, 0 as they are, 1 left out. Read as Windows-1252 (Latin-1), parted by semicolons.');
        $desk->see('td', 'place is "Nowhere", no place of the estate.');
        $desk->press('button', 'Take in 1 row')->see('[role=status]', 'Taken in.');
        unlink($file);
        $desk->press('[role=status] a', 'See the displays');
        $desk->type('input[type=search]', 'café');
        $desk->see('td', 'Café 1');
    }

    public function testTheMatchTableTellsWhatFitsWhereAndWhy(): void
    {
        $desk = self::desk()->go(Desk::url('/displays/matches'));
        $desk->see('tbody tr:nth-child(1) td.exact');
        $desk->type('input[type=search]', 'Gate totem, boarding');
        $desk->press('td.crossed button');
        $desk->see('.why', 'crossed, one is portrait, the other landscape');
        $desk->press('td.exact button')->see('.why', 'exact, pixel for pixel');
        $desk->press('.why a', 'Hand over…');
        $desk->see('h1', 'Handover');
        $desk->see('article', 'Gate totem A');
    }

    public function testTheComposerDrawsTheWallAndClearsASeam(): void
    {
        $desk = self::desk()->go(Desk::url('/layouts/hall-day'));
        $desk->see('.shelf', '"welcome" crosses the seam between A1');
        $desk->count('.wall .hidden', 5); // two columns, and three pieces of the row between them
        $desk->count('.wall .panel', 6);
        $desk->press('.unit', 'px')->see('.ruler text', '1000');
        $desk->press('.shelf button', 'Move it 220 px to the left, onto A1');
        $desk->until(static fn (): bool => !str_contains($desk->see('.shelf')->getText(), 'crosses the seam'), 'the seam is clear');
        $desk->holds('[aria-label="x of welcome"]', '80');
        $desk->press('button', 'Undo');
        $desk->see('.shelf', '"welcome" crosses the seam');
    }

    private static function desk(): Chrome
    {
        return self::$desk ?? throw new \LogicException();
    }

    private static function panel(): Chrome
    {
        return self::$panel ?? throw new \LogicException();
    }

    /** @return array<string, mixed> */
    private static function whole(string $display): array
    {
        return Desk::api(self::desk(), "displays/$display");
    }

    /** @return array{address: string} */
    private static function hallPlayer(): array
    {
        return self::playerOf('hall');
    }

    /** @return array{address: string} */
    private static function playerOf(string $display): array
    {
        return ['address' => (string) Desk::players(self::desk(), $display)[0]['address']];
    }

    private static function hall(): Display
    {
        return Display::fromArray(self::whole('hall')['document']);
    }

    private static function demoLayout(): Composed
    {
        return Make::demo((array) json_decode((string) file_get_contents(dirname(__DIR__, 2) . '/demo/layouts/hall-day.json'), true));
    }

    private static function ran(string $command): string
    {
        exec("/usr/bin/$command 2>&1", $lines, $code);
        self::assertLessThan(2, $code, implode("\n", $lines));

        return implode("\n", $lines);
    }
}
