<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** A designer divides a canvas by calculation: from a starting division, by recipe, by splitting and joining, by the borders, for other rasters. */
final class DivideTest extends TestCase
{
    private Chrome $desk;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk, '/layouts');
        $this->desk->press('.actions button', 'New layout')->press('#for-display option[value="check-in-2"]');
        $this->desk->type('#layout-name', 'Divided');
        $this->desk->press('.tile', 'Main, side and footer')->press('.make button[type=submit]');
        $this->holds('main', [0, 0, 1344, 864])->holds('side', [1344, 0, 576, 864])->holds('foot', [0, 864, 1920, 216]);
    }

    protected function tearDown(): void
    {
        $this->desk->close();
    }

    public function testTheRecipeIsTypedOverAndAFaultIsMarkedAtItsPlace(): void
    {
        $this->desk->holds('[aria-label="columns of the recipe"]', '7fr 3fr');
        $this->desk->type('[aria-label="columns of the recipe"]', '7fr auto');
        $this->desk->see('.recipe [role=alert]', '"auto" at character 5 cannot be read');
        $this->holds('side', [1344, 0, 576, 864]);
        $this->desk->type('[aria-label="columns of the recipe"]', '2fr 1fr 1fr');
        $this->holds('side', [960, 0, 480, 864])->holds('zone1', [1440, 0, 480, 1080]);
        $this->desk->type('[aria-label="gap of the recipe"]', '16');
        $this->holds('side', [960, 0, 472, 851]);
        $this->desk->press('.head .actions button', 'Undo')->press('.head .actions button', 'Undo');
        $this->holds('side', [1344, 0, 576, 864]);
        $this->desk->holds('[aria-label="columns of the recipe"]', '7fr 3fr');
    }

    public function testZonesAreSplitJoinedMadeEqualAndSwapped(): void
    {
        $this->desk->press('.ledger th button', 'side');
        $this->desk->type('[aria-label="Tracks to split in"]', '1fr 200px');
        $this->desk->press('.divide button', 'rows');
        $this->holds('side', [1344, 0, 576, 664])->holds('side2', [1344, 664, 576, 200]);
        $this->choose('main', 'side');
        $this->desk->press('.divide button', 'Join them');
        $this->desk->see('.notice[role=alert]', '"main", "side" are no rectangle together');
        $this->choose('side', 'side2');
        $this->desk->press('.divide button', 'Make them equal');
        $this->holds('side2', [1344, 432, 576, 432]);
        $this->desk->press('.divide button', 'bottom');
        $this->holds('side', [1344, 432, 576, 432]);
        $this->desk->press('.head .actions button', 'Undo');
        $this->holds('side', [1344, 0, 576, 432]);
        $this->desk->press('.divide button', 'Swap them');
        $this->holds('side', [1344, 432, 576, 432]);
        $this->desk->press('.divide button', 'Join them');
        $this->holds('side', [1344, 0, 576, 864]);
        $this->desk->holds('[aria-label="rows of the recipe"]', '4fr 1fr');
    }

    public function testABorderMovesAllThatShareIt(): void
    {
        $border = $this->desk->see('[aria-label="Border between main, side and foot"]');
        (new WebDriverActions($this->desk->driver))->moveToElement($border, -150, 0)->clickAndHold()->moveByOffset(0, -30)->moveByOffset(0, -30)->release()->perform();
        $this->desk->until(fn (): bool => $this->figure('height of main') < 800, 'the border to move');
        self::assertSame($this->figure('height of main'), $this->figure('height of side'));
        self::assertSame(1080, $this->figure('height of main') + $this->figure('height of foot'));
        $this->desk->press('.head .actions button', 'Undo');
        $this->holds('foot', [0, 864, 1920, 216]);

        $this->desk->script('document.querySelector("[aria-label=\"Border between main and side\"]").focus()');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ARROW_LEFT . WebDriverKeys::ARROW_LEFT);
        $this->holds('main', [0, 0, 1342, 864])->holds('side', [1342, 0, 578, 864]);
        $this->desk->holds('[aria-label="columns of the recipe"]', '671fr 289fr');
    }

    public function testFiguresAreTypedAsSums(): void
    {
        foreach (['1920-600' => '1320', '1/3' => '640', '50%' => '960', '100mm' => '204', '7 apples' => '7 apples'] as $typed => $px) {
            $this->desk->type('[aria-label="width of main"]', (string) $typed)->holds('[aria-label="width of main"]', $px);
        }
        $this->desk->see('.figure-field [role=alert]', '"apples" cannot be read');
        $this->desk->type('[aria-label="width of main"]', '1344')->type('[aria-label="height of foot"]', '206');
        $this->desk->press('.sums button', 'Make "foot" 216 px high');
        $this->holds('foot', [0, 864, 1920, 216]);
    }

    public function testItIsSolvedForOtherRasters(): void
    {
        $this->desk->press('.bar button', 'Other raster');
        $this->desk->type('[aria-label="Width of the other raster"]', '1366');
        $this->desk->type('[aria-label="Height of the other raster"]', '768');
        $this->desk->see('.changes', '"main": 1344 x 864 becomes 956 x 614 px.');
        $this->desk->press('.modal button', 'Make this layout so');
        $this->holds('main', [0, 0, 956, 614])->holds('side', [956, 0, 410, 614])->holds('foot', [0, 614, 1366, 154]);
        $this->desk->until(fn (): bool => $this->desk->find('.sums .off') === null && $this->desk->find('.sums .right') !== null, 'the sums to add up');

        // Px stay px: a footer of 154 px does not fit a canvas of 100, until it is a share.
        $this->desk->type('[aria-label="rows of the recipe"]', '1fr 154px');
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'the dialogue to close');
        $this->desk->press('.bar button', 'Other raster');
        $this->desk->type('[aria-label="Width of the other raster"]', '192');
        $this->desk->type('[aria-label="Height of the other raster"]', '96');
        $this->desk->see('.modal [role=alert]', '58 px too many');
        $this->desk->press('.modal button', 'Turn its px into fr');
        $this->desk->see('.changes', '"foot": 1366 x 154 becomes 192 x 19 px.');
        $this->desk->press('.modal button', 'As a layout of its own');
        $this->desk->holds('[aria-label="Name of the layout"]', 'Divided, 192 × 96');
        $this->holds('main', [0, 0, 134, 77]);
    }

    public function testAVariantForThePortraitTotemSharesTheContentAndTheMatchChoosesIt(): void
    {
        $this->desk->press('.bar button', 'text')->see('.room');
        $room = $this->desk->see('.room');
        (new WebDriverActions($this->desk->driver))->moveToElement($room, -100, -60)->clickAndHold()->moveByOffset(160, 40)->release()->perform();
        $this->desk->type('.details textarea', 'Both ways');
        $this->desk->press('.bar button', 'Turned variant');
        $this->holds('main', [0, 0, 756, 1536])->holds('foot', [0, 1536, 1080, 384]);
        $this->desk->see('.head .facts', '1080 × 1920 px, portrait');
        $this->desk->press('.bar button', 'Divide')->press('.tile', 'Head, main and footer');
        $this->holds('side', [0, 0, 1080, 320])->holds('main', [0, 320, 1080, 1280]);
        $this->desk->press('.ledger th button', 'text1');
        $this->desk->type('.details textarea', 'Shared words');

        $this->desk->press('[aria-label=Variant] button', 'landscape');
        $this->holds('side', [1344, 0, 576, 864]);
        $this->desk->until(fn (): bool => str_contains((string) $this->desk->script('return document.querySelector(".room [data-element=text1]")?.textContent'), 'Shared words'), 'the words here too');
        $this->desk->until(fn (): bool => str_starts_with($this->desk->see('.save-note')->getText(), 'saved'), 'saving');

        $id = (string) $this->desk->script('return location.pathname.split("/").pop()');
        $this->desk->go(Desk::url("/handover?layout=$id&display=check-in-2&display=gate-totem-a"));
        $this->desk->until(fn (): bool => substr_count($this->desk->see('main')->getText(), 'exact') >= 2, 'each display to be offered its own variant');
        $this->desk->go(Desk::url("/layouts/$id"))->press('[aria-label=Variant] button', 'portrait');
        $this->desk->press('.head .actions a', 'Hand over');
        $this->desk->see('article', 'Ticket office');
        self::assertStringNotContainsString('Check-in', $this->desk->see('article')->getText(), 'the displays that the variant is for');
        $this->desk->go(Desk::url("/layouts/$id"))->press('[aria-label=Variant] button', 'portrait');
        $this->desk->press('.bar button', 'remove it');
        $this->desk->until(fn (): bool => $this->desk->find('[aria-label=Variant]') === null, 'it to go');
    }

    public function testALayoutPlaysInAZoneOfAnother(): void
    {
        $this->desk->press('.ledger th button', 'side')->press('.details .add', 'Add a layout');
        $this->desk->type('[aria-label="Search layouts to play"]', 'boarding');
        $this->desk->press('.modal .pick', 'Gate totem, boarding');
        $this->desk->see('.items li', 'layout, 1080 × 1920');
        $this->desk->see('.shelf .counts')->click();
        $this->desk->see('.list', '"Gate totem, boarding" (1080 x 1920 px)');
        $this->desk->type('[aria-label="Duration of Gate totem, boarding in s"]', '3');
        $this->desk->see('.list', 'shows 7 words for 3 s');
        $this->desk->press('.list .fix', 'Show it for');
        $this->desk->until(fn (): bool => $this->desk->find('.list', 'duration.short') === null, 'time enough to read it');
        $this->desk->press('.items [aria-label="More of Gate totem, boarding"]')->press('.items .times option', 'until its loops meet')->see('.items .lasts', 'its own loop');
        $this->desk->until(
            fn (): bool => (bool) $this->desk->script('return [...document.querySelectorAll(".room [data-element]")].some((e) => e.dataset.element === "side/gate")'),
            'its words on the pane',
        );
    }

    public function testALayoutOfAnotherShapeGetsAVariantForItsZone(): void
    {
        $this->desk->press('.ledger th button', 'side')->press('.details .add', 'Add a layout');
        $this->desk->type('[aria-label="Search layouts to play"]', 'info post');
        $this->desk->press('.modal .pick', 'Info post, day');
        $this->desk->see('.offers', 'leaves 16 % of the zone empty');
        $this->desk->press('.offers button', 'fill the zone');
        $this->desk->see('.offers', 'loses 16 %');
        $this->desk->press('.offers button', 'solve it for 576 × 864');
        $this->desk->see('.notice', '"Info post, day" has a variant for this zone now.');
        $this->desk->until(fn (): bool => $this->desk->find('.offers') === null, 'it to fit');
        $variants = Desk::api($this->desk, 'layouts/info-post-day')['document']['variants'];
        self::assertSame(['id' => '576x864'], array_intersect_key($variants[0], ['id' => 1]));
        self::assertEquals(['x' => 0, 'y' => 144, 'width' => 576, 'height' => 486], $variants[0]['places']['main']['rect'], '27 of 48 parts of 864 px');
    }

    public function testReadableWordsOverAPictureWithTheHelpOfTheChecks(): void
    {
        $this->desk->go(Desk::url('/layouts/hall-day'));
        $this->desk->press('.counts')->press('.list .fix', 'Outline it in black, 12 px');
        $this->desk->until(fn (): bool => $this->desk->find('.list', 'text.contrast') === null, 'the words to stand out');
        $stroke = fn (): string => (string) $this->desk->script('return getComputedStyle(document.querySelector(".room [data-element=welcome] div div")).webkitTextStrokeWidth');
        $this->desk->until(fn (): bool => $stroke() === '24px', 'the outline, half of it under the letters');
        $this->desk->press('.counts')->press('.head .actions button', 'From the back row');
        $this->desk->see('.told', 'As large as Hall wall looks from 15.0 m');
        $this->desk->press('.seen-bar button', 'contrast map')->see('.told td.enough', 'of 3');
        $this->desk->press('.seen-bar button', 'Back to the pane')->see('.room');
        $this->desk->press('.head .actions button', 'Undo');
        $this->desk->see('.shelf', 'seam');
        $this->desk->until(fn (): bool => str_starts_with($this->desk->see('.save-note')->getText(), 'saved'), 'saving');
    }

    public function testADivisionIsKeptForTheTeam(): void
    {
        $this->desk->type('[aria-label="rows of the recipe"]', '9fr 1fr');
        $this->desk->press('.bar button', 'Divide');
        $this->desk->press('.keep button', 'Keep this layout');
        $this->desk->type('[aria-label="Name of the division"]', 'House, low footer');
        $this->desk->press('.keep button', 'Keep it');
        $this->desk->see('.tile', 'House, low footer');
        $this->desk->press('.tile', 'Quarters');
        $this->holds('main', [0, 0, 960, 540]);
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'the dialogue to close');
        $this->desk->press('.bar button', 'Divide');
        $this->desk->press('.tile', 'House, low footer');
        $this->holds('main', [0, 0, 1344, 972]);
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'the dialogue to close');
        $this->desk->press('.bar button', 'Divide');
        $this->desk->press('[aria-label="Remove the division House, low footer"]');
        $this->desk->until(fn (): bool => $this->desk->find('.tile', 'House, low footer') === null, 'it to go');
    }

    private function choose(string $one, string $other): void
    {
        $this->desk->press('.ledger th button', " $one");
        (new WebDriverActions($this->desk->driver))->keyDown(null, WebDriverKeys::SHIFT)->click($this->desk->see('.ledger th button', " $other"))->keyUp(null, WebDriverKeys::SHIFT)->perform();
    }

    private function figure(string $label): int
    {
        return (int) $this->desk->value("[aria-label=\"$label\"]");
    }

    /** @param array{int, int, int, int} $rect */
    private function holds(string $id, array $rect): self
    {
        foreach (['x', 'y', 'width', 'height'] as $index => $side) {
            $this->desk->holds("[aria-label=\"$side of $id\"]", (string) $rect[$index]);
        }

        return $this;
    }
}
