<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\Depends;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;

/** A designer puts clocks, codes, running text and texts of several styles on a canvas, and works on many at once; the player shows them, and a scanner reads its code. */
final class ElementsTest extends TestCase
{
    private static ?Chrome $desk = null;
    private static string $zone = '';

    public static function tearDownAfterClass(): void
    {
        self::$desk?->close();
    }

    public function testACodeAClockAndRunningTextAreDrawnAndTypedOver(): void
    {
        self::$desk = Chrome::open();
        Desk::signIn(self::$desk, '/layouts');
        $desk = self::desk()->press('.actions button', 'New layout')->press('#for-display option[value="check-in-3"]');
        $desk->type('#layout-name', 'Lively');
        $desk->holds('[aria-label="Width in px"]', '1920')->press('.make button[type=submit]');
        $desk->see('.begin', 'draw the first zone');

        self::hands()->draw('q', 40, 40, 160, 160);
        self::hands()->figures('code1', 100, 100, 300, 300);
        $desk->type('[aria-label="What stands in the code"]', 'https://pellan.example/tolm');
        $desk->see('.says', 'version 3, 29 modules of 8 px (3.9 mm), scanned from about 1.1 m');
        $desk->type('[aria-label="quiet zone in modules"]', '1');
        $desk->see('.shelf .first', 'quiet zone of 1 modules')->isDisplayed();
        $desk->press('.shelf .first .fix', 'Give it 4');
        $desk->holds('[aria-label="quiet zone in modules"]', '4');

        self::hands()->draw('k', 220, 40, 200, 60);
        self::hands()->figures('clock1', 700, 100, 1100, 200);
        $desk->type('[aria-label="Pattern of the time"]', 'HH:mm Q');
        $desk->see('.details [role=alert]', '"Q" at character 7');
        $desk->type('[aria-label="Pattern of the time"]', 'EEEE');
        $desk->type('[aria-label="Language of the time"]', 'pt-PT');
        $desk->type('[aria-label="size of the clock in px"]', '120');
        self::$zone = explode(': ', (string) $desk->see('[aria-label="Time zone of the clock"]')->getDomProperty('placeholder'))[1];
        self::seeDay($desk, self::$zone);

        self::hands()->draw('r', 40, 220, 200, 40);
        self::hands()->figures('ticker1', 0, 880, 1920, 200);
        $desk->type('[aria-label="Running text"]', 'Sailings to Tolm leave from berth 4');
        $desk->type('[aria-label="size of the running text in px"]', '160');
        $desk->type('[aria-label="speed in px a second"]', '100');
        $desk->see('.shelf .first', '1.67 px at each refresh of 60 Hz');
        $desk->press('.shelf .first .fix', 'Let it run 120 px a second');
        $desk->holds('[aria-label="speed in px a second"]', '120');
        $left = fn (): float => (float) $desk->script('return document.querySelector("[data-element=ticker1]").firstElementChild.firstElementChild.getBoundingClientRect().left');
        $before = $left();
        $desk->until(fn (): bool => $left() !== $before, 'it to run');
    }

    #[Depends('testACodeAClockAndRunningTextAreDrawnAndTypedOver')]
    public function testSomeWordsOfATextAreSetOtherwise(): void
    {
        $desk = self::desk();
        self::hands()->draw('t', 40, 120, 200, 40);
        self::hands()->figures('text1', 700, 400, 1100, 200);
        $desk->type('textarea[aria-label=Text]', 'Berth 22 is open');
        $desk->script('const t = document.querySelector("textarea[aria-label=Text]"); t.focus(); t.setSelectionRange(6, 8); t.dispatchEvent(new Event("select"))');
        $desk->type('[aria-label="size of the words chosen, in % of the text"]', '150');
        $desk->see('[data-element=text1] span', '22');
        self::assertSame('150', (string) (100 * (float) $desk->script(
            'const span = document.querySelector("[data-element=text1] span"); return parseFloat(getComputedStyle(span).fontSize) / parseFloat(getComputedStyle(span.parentElement).fontSize)',
        )));
        $desk->script('const t = document.querySelector("textarea[aria-label=Text]"); t.focus(); t.setSelectionRange(0, 0)');
        $desk->driver->getKeyboard()->sendKeys('Now: ');
        $desk->see('[data-element=text1]', 'Now: Berth 22 is open');
        $desk->until(fn (): bool => $desk->find('[data-element=text1] span')?->getText() === '22', 'the mark to go along with what is typed before it');

        self::hands()->figures('text1', 700, 400, 300, 100);
        $desk->see('.shelf', 'text1');
        $desk->press('.details option[value=shrink]');
        $desk->see('.says', 'set in');
    }

    #[Depends('testSomeWordsOfATextAreSetOtherwise')]
    public function testElementsAreGroupedLockedHiddenAndRepeated(): void
    {
        $desk = self::desk();
        self::hands()->choose('code1', 'clock1');
        self::hands()->keys(WebDriverKeys::CONTROL . 'g');
        self::hands()->keys(WebDriverKeys::ESCAPE);
        $desk->count('.ledger tr.on', 0);
        self::hands()->keys(WebDriverKeys::CONTROL . 'a');
        $desk->see('.several', '4 elements chosen');
        self::hands()->choose('text1');
        self::hands()->keys('l');
        $desk->see('.ledger tr.on .share', 'locked');
        self::hands()->keys(WebDriverKeys::ARROW_RIGHT, WebDriverKeys::DELETE);
        $desk->see('.notice', 'What is locked stays; unlock it first.');
        $desk->holds('[aria-label="x of text1"]', '700');
        self::hands()->keys('l', 'h');
        $desk->see('.ledger tr.on .share', 'hidden');
        $desk->until(fn (): bool => $desk->find('[data-element=text1]') === null, 'it to go from the pane');
        self::hands()->keys('h');
        $desk->see('[data-element=text1]');

        $desk->press('.acts button', 'repeat');
        $desk->script('const [c, r] = document.querySelectorAll(".repeat input"); for (const [f, v] of [[c, 2], [r, 1]]) { f.value = v; f.dispatchEvent(new Event("input")) }');
        $desk->press('.repeat button[type=submit]');
        $desk->see('.ledger th button[title=text2]');
        $desk->holds('[aria-label="x of text2"]', '1020');
        $desk->press('.head .actions button', 'Undo');
        $desk->until(fn (): bool => $desk->find('.ledger th button[title=text2]') === null, 'undo');
    }

    #[Depends('testElementsAreGroupedLockedHiddenAndRepeated')]
    public function testThePaneIsZoomedToThePixelAndGuidesAreDrawn(): void
    {
        $desk = self::desk();
        self::hands()->choose('code1');
        $scale = fn (): int => (int) $desk->see('.zoom')->getText();
        $fitted = $scale();
        self::hands()->keys('+', '+');
        $desk->until(fn (): bool => $scale() > 1.5 * $fitted, 'it to be larger');
        self::hands()->keys(...array_fill(0, 14, '+'));
        $desk->see('.room.pixels .grid');
        self::hands()->keys('1');
        $desk->until(fn (): bool => $scale() === 100, 'pixel for pixel');
        self::hands()->keys('0');
        $desk->until(fn (): bool => $scale() === $fitted, 'it to fit again');

        // The tide table folded away leaves its room to the pane, and comes back.
        self::hands()->draw('z', 300, 250, 60, 60);
        $desk->see('.tide .row-name', 'zone1');
        $fitted = $scale();
        $desk->press('.tide .fold', 'fold');
        $desk->until(fn (): bool => $desk->find('.tide .row-name') === null && $scale() > $fitted, 'the pane to have more room');
        $desk->press('.tide .fold', 'unfold')->see('.tide .row-name');
        $desk->press('.head .actions button', 'Undo');

        self::hands()->keys(WebDriverKeys::ESCAPE);
        $desk->type('[aria-label="margin kept free in px"]', '48');
        $desk->see('.room .safe');
        $desk->press('.guides button', 'add one');
        $desk->type('[aria-label="guide 1 across in px"]', '1/4');
        $desk->holds('[aria-label="guide 1 across in px"]', '480');
        $ruler = $desk->see('.ruler .down');
        (new \Facebook\WebDriver\Interactions\WebDriverActions($desk->driver))->moveToElement($ruler)->clickAndHold()->moveByOffset(200, 0)->release()->perform();
        $desk->count('.room .own.x .line', 2);
        $desk->press('[aria-label="Take guide 2 across away"]');
        $desk->count('.room .own.x .line', 1);
    }

    #[Depends('testThePaneIsZoomedToThePixelAndGuidesAreDrawn')]
    public function testThePlayerShowsThemAndAScannerReadsItsCode(): void
    {
        $desk = self::desk();
        $desk->until(fn (): bool => str_contains($desk->see('.save-note')->getText(), 'saved'), 'saving');
        $player = Chrome::open(1920, 1080);
        try {
            $code = (string) $player->go(Desk::url('/player'))->see('[data-code]')->getAttribute('data-code');
            $desk->press('.head .actions a', 'Hand over');
            $desk->see('article');
            $desk->press('.head .actions button', 'Hand over');
            $desk->see('.done', 'Check-in 3');
            $desk->go(Desk::url('/displays?display=check-in-3'))->type('.bind input', $code)->press('.bind button');
            $desk->see('[role=status]', 'bound to Check-in 3');
            $player->see('[data-element=ticker1]', 'Sailings to Tolm');
            $player->see('[data-element=code1] svg');
            $picture = sys_get_temp_dir() . '/upper-pane-code.png';
            $player->shot($picture);
            exec('zbarimg --raw -q ' . escapeshellarg($picture) . ' 2>/dev/null', $read);
            unlink($picture);
            self::assertSame(['https://pellan.example/tolm'], $read);
            self::seeDay($player, self::$zone);
            self::assertNotNull($player->find('[data-element=text1] span'));
        } finally {
            $player->close();
        }
    }

    /** The day of the week on the clock of the display. */
    private static function seeDay(Chrome $screen, string $zone): void
    {
        $day = new \IntlDateFormatter('pt-PT', \IntlDateFormatter::NONE, \IntlDateFormatter::NONE, $zone, null, 'EEEE');
        $screen->until(static fn (): bool => $screen->find('[data-element=clock1]', (string) $day->format(time())) !== null, "the day of the week in $zone");
    }

    private static function desk(): Chrome
    {
        return self::$desk ?? throw new \LogicException('No browser.');
    }

    private static function hands(): Hands
    {
        return new Hands(self::desk());
    }
}
