<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** The habits of the hand in the composer, on the demo's deck strip. */
final class ComposerTest extends TestCase
{
    private Chrome $desk;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk, '/layouts/deck-strip');
        $this->desk->see('.tide .slot');
    }

    protected function tearDown(): void
    {
        $this->desk->close();
    }

    public function testKeysThatEverybodyExpects(): void
    {
        $count = fn (): int => count($this->desk->driver->findElements(WebDriverBy::cssSelector('.ledger tbody th')));
        $before = $count();
        $this->desk->press('.ledger th button', 'place');
        $this->key(WebDriverKeys::CONTROL . 'd');
        $this->desk->until(fn (): bool => $count() === $before + 1, 'duplicating');
        $this->key(WebDriverKeys::CONTROL . 'c');
        $this->key(WebDriverKeys::CONTROL . 'v');
        $this->desk->until(fn (): bool => $count() === $before + 2, 'pasting');
        $this->key(WebDriverKeys::DELETE);
        $this->desk->until(fn (): bool => $count() === $before + 1, 'deleting');
        $this->key(WebDriverKeys::CONTROL . 'a');
        $this->desk->until(fn (): bool => count($this->desk->driver->findElements(WebDriverBy::cssSelector('.ledger tr.on'))) === $before + 1, 'choosing all');
        $this->key(WebDriverKeys::ESCAPE);
        $this->desk->until(fn (): bool => $this->desk->find('.ledger tr.on') === null, 'choosing nothing');
        foreach (range(1, 3) as $step) {
            $this->key(WebDriverKeys::CONTROL . 'z');
        }
        $this->desk->until(fn (): bool => $count() === $before, 'undo of the whole visit');
        self::assertFalse($this->desk->see('.head .actions button')->isEnabled(), 'nothing is left to undo');
        $kept = fn (): int => count(Desk::api($this->desk, 'layouts/deck-strip')['document']['elements']);
        $this->desk->until(fn (): bool => str_starts_with($this->desk->see('.save-note')->getText(), 'saved') && $kept() === $before, 'saving');
        $this->desk->driver->getKeyboard()->sendKeys('?');
        $this->desk->see('.modal', 'undo, redo');
    }

    public function testATextIsTypedInPlaceAndFiguresThatAreNoneAreToldWhy(): void
    {
        $this->desk->press('.ledger th button', 'place');
        $box = $this->desk->see('.room rect.chosen');
        $this->desk->driver->action()->moveToElement($box)->doubleClick()->perform();
        $this->desk->see('.in-place')->sendKeys("Hare\nSkerry");
        $this->desk->until(fn (): bool => str_contains((string) $this->desk->script('return document.querySelector(".room [data-element=place]").textContent'), 'Hare'), 'the words on the pane');
        $width = fn (): string => $this->desk->value('[aria-label="width of place"]');
        foreach (['wide' => '"wide" cannot be read', '-4' => '-4 px; at least 1 px are right.'] as $typed => $why) {
            $this->desk->type('[aria-label="width of place"]', (string) $typed);
            $this->desk->see('.figure-field [role=alert]', $why);
            self::assertSame([(string) $typed, 'true'], [$width(), $this->desk->see('[aria-label="width of place"]')->getAttribute('aria-invalid')]);
            $this->desk->see('[aria-label="width of place"]')->sendKeys(WebDriverKeys::ESCAPE);
            $this->desk->until(fn (): bool => $width() === '400', 'the figure to be put back');
        }
        $this->desk->enter('[aria-label="width of place"]')->sendKeys(WebDriverKeys::ARROW_UP . WebDriverKeys::SHIFT . WebDriverKeys::ARROW_UP);
        $this->desk->until(fn (): bool => $width() === '411', 'the arrows to step by 1 and 10');
    }

    public function testWhatIsTypedAtTheSpeedOfAHandStaysWhileTheClockRuns(): void
    {
        foreach (['[aria-label="Name of the layout"]', '[aria-label="width of place"]'] as $selector) {
            $field = $this->desk->enter($selector);
            $field->sendKeys(WebDriverKeys::CONTROL . 'a' . WebDriverKeys::NULL);
            foreach (str_split('12345') as $key) {
                $field->sendKeys($key);
                // As long as a hand takes between two keys: the page is drawn several times meanwhile.
                $this->desk->driver->executeAsyncScript('const done = arguments[0]; let n = 0; const frame = () => (++n < 6 ? requestAnimationFrame(frame) : done()); frame()');
            }
            self::assertSame('12345', $field->getAttribute('value'));
            $field->sendKeys(WebDriverKeys::TAB);
        }
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'layouts/deck-strip')['name'] === '12345', 'saving');
        $this->desk->type('[aria-label="Name of the layout"]', ' ');
        $this->desk->holds('[aria-label="Name of the layout"]', '12345'); // a layout without a name is none
        $this->desk->press('.head .actions button', 'Undo')->press('.head .actions button', 'Undo');
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'layouts/deck-strip')['name'] !== '12345', 'the name as it was');
    }

    public function testWhatIsChosenAboutATextIsSeenOnThePane(): void
    {
        $this->desk->press('.ledger th button', 'place');
        $choose = fn (string $label, string $value): mixed => $this->desk->script(
            'const field = [...document.querySelectorAll(".details label")].find((l) => l.textContent.trim().startsWith(arguments[0])).querySelector("select");'
            . 'field.value = arguments[1]; field.dispatchEvent(new Event("change"))',
            $label,
            $value,
        );
        $look = fn (string $property): mixed => $this->desk->script('return getComputedStyle(document.querySelector(".room [data-element=place] > div"))[arguments[0]]', $property);
        $choose('Align', 'end');
        $this->desk->until(fn (): bool => $look('textAlign') === 'end', 'the words at the end of their line');
        $choose('In its box', 'bottom');
        $this->desk->until(fn (): bool => $look('justifyContent') === 'flex-end', 'the words at the bottom');
        $choose('Face', 'Inter');
        $this->desk->until(fn (): bool => str_contains((string) $look('fontFamily'), 'Inter'), 'another face');
        $this->desk->type('[aria-label="size of the text in px"]', '60');
        $this->desk->until(fn (): bool => $look('fontSize') === '60px', 'another size');
        // The head of the ledger lies above what is scrolled below it.
        $this->desk->script('document.querySelector("[aria-label=\'Name of the element\']").scrollIntoView({ block: "center" })');
        $this->desk->type('[aria-label="Name of the element"]', 'Landing');
        $this->desk->see('.ledger th button', 'Landing');
        foreach (range(1, 5) as $step) {
            $this->key(WebDriverKeys::CONTROL . 'z');
        }
        $this->desk->until(fn (): bool => $look('textAlign') !== 'end', 'everything as it was');
        $this->saved();
    }

    public function testTheStackAndTheDisplayOfALayoutAreChosen(): void
    {
        $order = fn (): array => array_map(static fn ($row): string => $row->getText(), $this->desk->driver->findElements(WebDriverBy::cssSelector('.ledger th button')));
        $before = $order();
        $this->desk->press('.ledger th button', 'deck')->press('.details .acts button', 'lower');
        $this->desk->until(fn (): bool => str_contains($order()[count($before) - 2], 'deck'), 'the element one lower');
        $this->key(WebDriverKeys::CONTROL . 'z');
        $this->desk->until(fn (): bool => $order() === $before, 'the stack as it was');
        $this->key(WebDriverKeys::ESCAPE);
        $this->desk->see('.details', 'For the display');
        $this->desk->script('const s = document.querySelector(".details select"); s.value = ""; s.dispatchEvent(new Event("change"))');
        $this->desk->see('.head .facts', 'for no display yet');
        $this->desk->script('const s = document.querySelector(".details select"); s.value = [...s.options].find((o) => o.text.startsWith("Deck strip")).value; s.dispatchEvent(new Event("change"))');
        $this->desk->see('.head .facts', 'read from 1.0 to 3.0 m');
        $this->saved();
    }

    public function testAnEarlierRevisionIsPutBack(): void
    {
        $this->desk->type('[aria-label="Name of the layout"]', 'Deck strip, winter');
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'layouts/deck-strip')['name'] === 'Deck strip, winter', 'saving');
        $this->desk->press('.head .named button', 'revisions');
        $rows = fn (): array => $this->desk->driver->findElements(WebDriverBy::cssSelector('.modal .revisions > li'));
        $this->desk->until(fn (): bool => count($rows()) > 1, 'the revisions');
        $this->desk->see('.modal .revisions > li:nth-child(1)', 'name: Deck strip, winter');
        $this->desk->see('.modal .revisions > li:nth-child(2) .stage-canvas');
        $this->desk->press('.modal .revisions > li:nth-child(2) button', 'put back');
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'layouts/deck-strip')['name'] !== 'Deck strip, winter', 'the earlier name');
    }

    public function testAPlaylistIsPutInOrderAndHandedOverAsItIs(): void
    {
        $this->desk->press('nav a', 'Playlists')->press('.actions button', 'New playlist');
        $this->desk->press('.add');
        foreach (['shop-charts', 'open-late', 'crossing-at-dawn'] as $name) {
            $this->desk->press('.modal .pick', $name);
        }
        // A file that is brought in from here is meant to be used.
        $file = sys_get_temp_dir() . '/brought-in-from-a-list.png';
        copy(dirname(__DIR__, 2) . '/demo/media/day-ticket.png', $file);
        $this->desk->give('.modal input[type=file]', $file)->press('.modal .bar button', 'Add 4 items');
        unlink($file);
        $this->desk->see('.items li', 'brought-in-from-a-list.png');
        $this->desk->see('.facts', 'loop of 45.0 s');
        $first = fn (): string => $this->desk->see('.items li .name')->getText();
        $this->desk->until(fn (): bool => $first() === 'shop-charts.png', 'the order in which they were pressed');
        $this->desk->see('.items li .grip')->sendKeys(WebDriverKeys::ARROW_DOWN);
        $this->desk->until(fn (): bool => $first() === 'open-late-small.png', 'the keyboard to move an item');
        $this->desk->type('.items li .lasts input', '4,5');
        $this->desk->see('.facts', 'loop of 39.5 s');
        $this->desk->press('.items li .how button', 'off');
        $this->desk->see('.facts', 'loop of 35.0 s');
        $this->desk->until(fn (): bool => str_contains($this->desk->see('.save-note')->getText(), 'saved'), 'saving');
        $this->desk->press('.head .actions a', 'Hand over');
        $this->desk->press('.leaf .one', 'Shop window');
        $this->desk->see('article', 'exact');
        $this->desk->press('.head .actions button', 'Hand over to 1 display');
        $this->desk->see('.done', 'handed over to Shop window');
        $this->desk->press('.done a', 'Watch it arrive')->see('.alone', 'Only the display of what was handed over.');
        $this->desk->count('main tbody tr', 1)->see('main tbody tr', 'Shop window');
        $this->desk->press('.alone a', 'Show all')->see('main tbody tr', 'Check-in 1');
    }

    public function testALayoutIsCopiedFoundAndDeleted(): void
    {
        $this->desk->press('nav a', 'Layouts')->see('.grid .name');
        $cards = fn (): int => count($this->desk->driver->findElements(WebDriverBy::cssSelector('.grid .design')));
        $before = $cards();
        $this->desk->script('[...document.querySelectorAll(".design")].find((d) => d.textContent.includes("Gate totem, boarding")).querySelector(".foot button").click()');
        $this->desk->see('.grid .name', 'Gate totem, boarding, copy');
        $this->desk->type('[aria-label="Search layouts"]', 'boarding, COPY');
        $this->desk->until(fn (): bool => $cards() === 1, 'the one that is searched for');
        self::assertStringContainsString('search=boarding', $this->desk->driver->getCurrentURL(), 'the address can be sent to somebody');
        $this->desk->press('.grid .foot button', 'delete');
        $this->desk->press('.modal-footer .btn-primary');
        $this->desk->see('.empty', 'Nothing fits this search.');
        $this->desk->type('[aria-label="Search layouts"]', "\u{E003}");
        $this->desk->until(fn (): bool => $cards() === $before, 'all others');
        $this->desk->script('[...document.querySelectorAll(".design")].find((d) => d.textContent.includes("Gate totem, boarding")).querySelector(".foot button:last-child").click()');
        $this->desk->press('.modal-footer .btn-primary');
        $this->desk->see('[role=alert]', 'Hand something else over there first.');
    }

    public function testMediaThatIsUsedStaysAndTheReasonIsTold(): void
    {
        $this->desk->go(Desk::url('/media?search=notice-berth'));
        $this->desk->press('.grid li button', 'delete');
        $this->desk->press('.modal-footer .btn-primary');
        $this->desk->see('[role=alert]', '"notice-berth-2.png" is used in ');
    }

    private function saved(): void
    {
        $this->desk->until(fn (): bool => str_starts_with($this->desk->see('.save-note')->getText(), 'saved'), 'saving');
    }

    private function key(string $key): void
    {
        $this->desk->script('document.querySelector(".room").focus()');
        $this->desk->driver->getKeyboard()->sendKeys($key . WebDriverKeys::NULL);
    }
}
