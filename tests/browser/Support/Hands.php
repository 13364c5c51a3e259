<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverKeys;

/** What a designer does on the pane of the composer, with pointer and keyboard. */
final readonly class Hands
{
    private const MOST_TABS = 160;

    public function __construct(private Chrome $desk)
    {
    }

    /** Presses the key of a tool, and draws a box on the pane; figures in px of the page from the canvas's top left. */
    public function draw(string $key, int $x, int $y, int $width, int $height): void
    {
        $this->keys($key);
        $this->desk->see('.room.drawing');
        $edge = $this->desk->see('.room .canvas-edge')->getLocation();
        $room = $this->desk->see('.room');
        $dx = $edge->getX() - $room->getLocation()->getX() - intdiv($room->getSize()->getWidth(), 2);
        $dy = $edge->getY() - $room->getLocation()->getY() - intdiv($room->getSize()->getHeight(), 2);
        (new WebDriverActions($this->desk->driver))
            ->moveToElement($room, $dx + $x, $dy + $y)->clickAndHold()->moveByOffset(intdiv($width, 2), $height)->moveByOffset($width - intdiv($width, 2), 0)->release()->perform();
        $this->desk->until(fn (): bool => $this->desk->find('.room.drawing') === null, 'the tool to be put down');
    }

    public function dragChosen(int $dx, int $dy): void
    {
        $box = $this->desk->see('.room rect.chosen');
        (new WebDriverActions($this->desk->driver))->moveToElement($box)->clickAndHold()->moveByOffset(intdiv($dx, 2), $dy)->moveByOffset($dx - intdiv($dx, 2), 0)->release()->perform();
    }

    public function figures(string $id, int $x, int $y, int $width, int $height): void
    {
        foreach (['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height] as $name => $value) {
            $this->desk->type("[aria-label=\"$name of $id\"]", (string) $value);
        }
    }

    public function field(string $label): string
    {
        return $this->desk->value("[aria-label=\"$label\"]");
    }

    /** @param list<string> $media */
    public function fill(string $zone, array $media): void
    {
        $this->desk->press('.ledger th button', $zone);
        $this->desk->press('.details .add');
        foreach ($media as $name) {
            $this->desk->press('.modal .pick', $name);
        }
        $this->desk->press('.modal .bar button', 'Add');
        $this->desk->see('.details .items li', $media[0] ?? '');
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'the picker to close');
    }

    /** Chooses elements in the ledger, one after the other with Shift. */
    public function choose(string ...$ids): void
    {
        $this->focusPane();
        $this->keys(WebDriverKeys::ESCAPE);
        foreach ($ids as $id) {
            $this->desk->script('document.querySelector(arguments[0]).dispatchEvent(new MouseEvent("click", { bubbles: true, shiftKey: true }))', ".ledger th button[title=\"$id\"]");
        }
    }

    public function focusPane(): void
    {
        $this->desk->see('.room');
        $this->desk->script('document.querySelector(".room").focus()');
    }

    /** Keys pressed on the pane. */
    public function keys(string ...$keys): void
    {
        $this->focusPane();
        foreach ($keys as $key) {
            $this->desk->driver->getKeyboard()->sendKeys($key . WebDriverKeys::NULL);
        }
    }

    /** Goes on with Tab until what is wanted has the focus, as somebody without a pointer does. */
    public function tabTo(string $selector, ?string $text = null): self
    {
        return $this->tabsTo($selector, $text) ? $this : throw new \RuntimeException(sprintf('%d times Tab did not lead to “%s” “%s”.', self::MOST_TABS, $selector, $text ?? ''));
    }

    /** The same, and whether it came there. */
    public function tabsTo(string $selector, ?string $text = null): bool
    {
        for ($presses = 0; $presses < self::MOST_TABS; $presses++) {
            $there = $this->desk->driver->executeScript(
                'const e = document.activeElement; return e && e.matches(arguments[0]) && (arguments[1] === null || e.textContent.includes(arguments[1]))',
                [$selector, $text],
            );
            if ($there === true) {
                return true;
            }
            $this->press(WebDriverKeys::TAB);
        }

        return false;
    }

    /** Keys to whatever has the focus, one after the other; Ctrl, Shift and Alt are held until the end of their word. */
    public function press(string ...$words): self
    {
        $strokes = [];
        foreach ($words as $word) {
            $held = [];
            foreach (mb_str_split($word) as $key) {
                if ($key === WebDriverKeys::NULL) {
                    continue;
                }
                $strokes[] = ['type' => 'keyDown', 'value' => $key];
                if (in_array($key, [WebDriverKeys::CONTROL, WebDriverKeys::SHIFT, WebDriverKeys::ALT], true)) {
                    $held[] = $key;
                } else {
                    $strokes[] = ['type' => 'keyUp', 'value' => $key];
                }
            }
            foreach ($held as $key) {
                $strokes[] = ['type' => 'keyUp', 'value' => $key];
            }
        }
        $this->desk->driver->executeCustomCommand('/session/:sessionId/actions', 'POST', ['actions' => [['type' => 'key', 'id' => 'keys', 'actions' => $strokes]]]);

        return $this;
    }
}
