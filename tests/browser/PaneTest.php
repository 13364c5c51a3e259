<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\OnALayout;

/** What keys and a hand that changes its mind do on the pane. */
final class PaneTest extends TestCase
{
    use OnALayout;

    protected function setUp(): void
    {
        $zone = ['id' => 'main', 'kind' => 'zone', 'rect' => ['x' => 100, 'y' => 100, 'width' => 600, 'height' => 400], 'playlist' => ['items' => []]];
        $this->open(static fn (): array => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => [$zone]], '.ledger th button');
    }

    public function testATextIsTypedOverAsSoonAsItIsDrawn(): void
    {
        $this->hands->draw('t', 300, 40, 200, 60);
        $this->desk->see('.in-place');
        // Letters that are keys of the pane as well: they hide and lock, and draw a zone.
        $this->desk->driver->getKeyboard()->sendKeys('hlz');
        $this->isSaid('hlz');
        $keys = ['F2' => "\u{E032}", 'Enter' => WebDriverKeys::ENTER];
        foreach ($keys as $name => $key) {
            $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ESCAPE);
            $this->desk->until(fn (): bool => $this->desk->find('.in-place') === null, "typing to end before $name");
            $this->desk->driver->getKeyboard()->sendKeys($key);
            $this->desk->see('.in-place');
            $this->desk->driver->getKeyboard()->sendKeys($name);
            $this->isSaid($name);
        }
        self::assertSame(['main', 'text1'], array_column($this->saved()['elements'], 'id'));
        self::assertArrayNotHasKey('hidden', $this->saved()['elements'][1]);
    }

    public function testEscapePutsBackWhatAHandHolds(): void
    {
        $this->desk->press('.ledger th button', 'main');
        $box = $this->desk->see('.room rect.chosen');
        $hold = static fn (Chrome $desk): WebDriverActions => (new WebDriverActions($desk->driver))->moveToElement($box)->clickAndHold()->moveByOffset(30, 20)->moveByOffset(33, 7);
        $hold($this->desk)->perform();
        // While it is held, and once it has rested so long that the document knows of it.
        $this->desk->until(fn (): bool => $this->hands->field('x of main') !== '100', 'the figures to follow');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ESCAPE);
        $this->desk->holds('[aria-label="x of main"]', '100')->holds('[aria-label="y of main"]', '100');
        (new WebDriverActions($this->desk->driver))->moveByOffset(40, 40)->release()->perform();
        $this->desk->holds('[aria-label="x of main"]', '100');
        $hold($this->desk)->release()->perform();
        $this->desk->until(fn (): bool => $this->hands->field('x of main') !== '100', 'what is let go to stay');
        $moved = $this->hands->field('x of main');
        $this->desk->press('.head .actions button', 'Undo')->holds('[aria-label="x of main"]', '100');
        self::assertGreaterThan(100, (int) $moved, 'one gesture is undone at once');
    }

    /** WCAG 2.1.4. */
    public function testKeysOfOneLetterCanBeTurnedOff(): void
    {
        $this->hands->focusPane();
        $this->desk->driver->getKeyboard()->sendKeys('?');
        $this->desk->press('.modal .single input');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ESCAPE);
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'the list to close');
        $this->hands->focusPane();
        $this->desk->driver->getKeyboard()->sendKeys('z?');
        self::assertSame('choose', $this->desk->script('return document.querySelector(".bar [aria-checked=true]")?.textContent.trim() ?? "choose"'));
        self::assertNull($this->desk->find('.room.drawing'));
        // What takes a second key goes on.
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::CONTROL . 'a' . WebDriverKeys::NULL);
        $this->desk->see('.room rect.chosen');
        $this->desk->script('localStorage.removeItem("upper-pane:single-keys")');
    }

    private function isSaid(string $text): void
    {
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelector(".room [data-element=text1]")?.textContent') === $text, "“{$text}” on the pane");
        $this->desk->until(fn (): bool => ($this->saved()['elements'][1]['text'] ?? null) === $text, "“{$text}” to be saved");
    }

    /** @return array<string, mixed> the document */
    private function saved(): array
    {
        return Desk::api($this->desk, "layouts/$this->layout")['document'];
    }
}
