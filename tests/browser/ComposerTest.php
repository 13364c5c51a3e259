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
        $count = fn (): int => count($this->desk->driver->findElements(WebDriverBy::cssSelector('.ledger tbody tr')));
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

    public function testATextIsTypedInPlaceAndFiguresThatAreNoneArePutBack(): void
    {
        $this->desk->press('.ledger th button', 'place');
        $box = $this->desk->see('.room rect.chosen');
        $this->desk->driver->action()->moveToElement($box)->doubleClick()->perform();
        $this->desk->see('.in-place')->sendKeys("Hare\nSkerry");
        $this->desk->until(fn (): bool => str_contains((string) $this->desk->script('return document.querySelector(".room [data-element=place]").textContent'), 'Hare'), 'the words on the pane');
        $this->desk->type('[aria-label="width of place"]', 'wide');
        $width = fn (): string => (string) $this->desk->see('[aria-label="width of place"]')->getAttribute('value');
        $this->desk->until(fn (): bool => $width() === '400', 'the figure to be put back');
        $this->desk->type('[aria-label="width of place"]', '-4');
        $this->desk->until(fn (): bool => $width() === '400', 'the figure to be put back');
        $field = $this->desk->see('[aria-label="width of place"]');
        $field->click();
        $field->sendKeys(WebDriverKeys::ARROW_UP . WebDriverKeys::SHIFT . WebDriverKeys::ARROW_UP);
        $this->desk->until(fn (): bool => $width() === '411', 'the arrows to step by 1 and 10');
    }

    public function testAnEarlierRevisionIsPutBack(): void
    {
        $this->desk->type('[aria-label="Name of the layout"]', 'Deck strip, winter');
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'layouts/deck-strip')['name'] === 'Deck strip, winter', 'saving');
        $this->desk->press('.head .actions button', 'Revisions');
        $rows = fn (): array => $this->desk->driver->findElements(WebDriverBy::cssSelector('.modal tbody tr'));
        $this->desk->until(fn (): bool => count($rows()) > 1, 'the revisions');
        $this->desk->press('.modal tbody tr:nth-child(2) button', 'put back');
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'layouts/deck-strip')['name'] !== 'Deck strip, winter', 'the earlier name');
    }

    public function testAPlaylistIsPutInOrderAndHandedOverAsItIs(): void
    {
        $this->desk->press('nav a', 'Playlists')->press('.actions button', 'New playlist');
        $this->desk->press('.add');
        foreach (['shop-charts', 'open-late', 'crossing-at-dawn'] as $name) {
            $this->desk->press('.modal .pick', $name);
        }
        $this->desk->press('.modal .bar button', 'Add 3 items');
        $this->desk->see('.facts', 'loop of 35.0 s');
        $first = fn (): string => $this->desk->see('.items li .name')->getText();
        $this->desk->until(fn (): bool => $first() === 'shop-charts.png', 'the order in which they were pressed');
        $this->desk->see('.items li .grip')->sendKeys(WebDriverKeys::ARROW_DOWN);
        $this->desk->until(fn (): bool => $first() === 'open-late-small.png', 'the keyboard to move an item');
        $this->desk->type('.items li .lasts input', '4,5');
        $this->desk->see('.facts', 'loop of 29.5 s');
        $this->desk->press('.items li .how button', 'off');
        $this->desk->see('.facts', 'loop of 25.0 s');
        $this->desk->until(fn (): bool => str_contains($this->desk->see('.save-note')->getText(), 'saved'), 'saving');
        $this->desk->press('.head .actions a', 'Hand over');
        $this->desk->press('.leaf .one', 'Shop window');
        $this->desk->see('article', 'exact');
        $this->desk->press('.head .actions button', 'Hand over to 1 display');
        $this->desk->see('.done', 'Shop window: release 2');
    }

    public function testMediaThatIsUsedStaysAndTheReasonIsTold(): void
    {
        $this->desk->go(Desk::url('/media?search=notice-berth'));
        $this->desk->press('.grid li button', 'delete');
        $this->desk->driver->switchTo()->alert()->accept();
        $this->desk->see('[role=alert]', '"notice-berth-2.png" is used in "Check-in, day sailings"');
    }

    private function key(string $key): void
    {
        $this->desk->script('document.querySelector(".room").focus()');
        $this->desk->driver->getKeyboard()->sendKeys($key . WebDriverKeys::NULL);
    }
}
