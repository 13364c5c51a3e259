<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;

/** A board as a designer makes it: rows of the Bench, a ready pattern, figures that follow, and what a player shows of it. */
final class BoardTest extends TestCase
{
    private Chrome $desk;
    private Hands $hands;

    /** @var list<string> paths of what is made, the last first to go */
    private array $made = [];

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        $this->hands = new Hands($this->desk);
        Desk::signIn($this->desk);
    }

    protected function tearDown(): void
    {
        foreach ($this->made as $path) {
            Desk::post($this->desk, $path, [], 'DELETE');
        }
        $this->desk->close();
    }

    public function testABoardIsMadeOfASourceAndItsFiguresFollow(): void
    {
        $this->open($this->layout([]));
        $this->hands->keys('b');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ENTER);
        $this->desk->press('.modal .sources label', 'Prices of the quay')->press('.modal .ready label', 'Prices')->press('.modal button', 'Make the board');
        $this->desk->see('.board .told', 'at once');
        $this->hands->figures('board1', 100, 100, 1700, 800);
        $this->desk->see('.says', '(800 + ');
        self::assertMatchesRegularExpression('/^\(800 \+ \d+\) \/ \(\d+ \+ \d+\) = /', $this->desk->see('.says')->getText());
        $this->desk->see('.stage-canvas', 'Fish pie');

        // Row height and gap: rows, pages and seconds follow at once.
        $this->desk->type('[aria-label="height of a row"]', '200')->type('[aria-label="gap between rows"]', '0');
        $this->desk->until(fn (): bool => $this->told('at once') === '4', 'four rows to have room');
        $this->choose('A page stands', 'stated');
        $this->desk->type('[aria-label="length of a page in ms"]', '5000');
        $rows = (int) $this->told('rows');
        $this->desk->until(fn (): bool => $this->told('seconds') === (string) (5 * (int) ceil($rows / 4)), 'its length to be pages of 5 s');

        // The same by the handle at the end of the first row; Escape puts back what was there.
        $handle = $this->desk->see('.board-handles circle');
        (new WebDriverActions($this->desk->driver))->moveToElement($handle)->clickAndHold()->moveByOffset(0, 40)->perform();
        $this->desk->until(fn (): bool => (int) $this->told('at once') < 4, 'fewer rows while it is held');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ESCAPE);
        (new WebDriverActions($this->desk->driver))->release()->perform();
        $this->desk->until(fn (): bool => $this->told('at once') === '4', 'four rows again');
        self::assertSame('200', $this->desk->value('[aria-label="height of a row"]'));

        // A brace offers the fields.
        $this->desk->script('const area = document.querySelector(`[aria-label="Text of item"]`); area.focus(); area.setSelectionRange(99, 99)');
        $this->desk->driver->getKeyboard()->sendKeys(' {no');
        $this->desk->see('.message [role=option]', 'note');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ENTER);
        self::assertSame('{item} {note}', $this->desk->value('[aria-label="Text of item"]'));
        $this->desk->see('.stage-canvas', 'Soup of the day from noon');

        $this->desk->press('.stress button', 'none')->see('.stage-canvas', 'No prices');
        $this->desk->press('.stress button', '10,000')->until(fn (): bool => $this->told('pages') === '2500', 'ten thousand rows');
        $this->desk->press('.stress button', 'as they are')->see('.stage-canvas', 'Fish pie');
        $this->desk->see('.tide', 'board1');
    }

    public function testATextTellsARowAndIsThereOnlyWhileThereIsOne(): void
    {
        $text = ['id' => 'words', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1900, 'height' => 300], 'text' => 'Today', 'style' => ['size_px' => 90, 'color' => '#ffffff']];
        $this->open($this->layout([$text]));
        $this->desk->press('.ledger th button', 'words');
        $this->choose('Tells rows of', 'cafe-prices');
        $this->desk->type('[aria-label=Text]', '{item} for {price, number, 0.00}')->see('.stage-canvas', 'Tea for 1.60');
        $this->desk->type('[aria-label="Try it from row"]', '2')->until(fn (): bool => $this->desk->find('.stage-canvas', 'Tea for') === null, 'the second row');
        $this->desk->press('.stress button', 'missing')->see('.stage-canvas', '– for –');
        $this->desk->press('.stress button', 'as they are')->see('.stage-canvas', 'Tea for 1.60');
        $this->desk->press('.only summary', 'Only while');
        $this->choose('Drawn only while rows are chosen of', 'cafe-prices');
        $this->desk->type('[aria-label="At least so many rows"]', '1000')->until(fn (): bool => $this->desk->find('.stage-canvas', 'Tea for') === null, 'the text to go');
        $this->desk->type('[aria-label="At least so many rows"]', '1')->see('.stage-canvas', 'Tea for 1.60');
    }

    public function testAChartIsMadeOfNumbers(): void
    {
        $this->open($this->layout([]));
        $this->hands->keys('g');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ENTER);
        $this->desk->press('.modal .sources label', 'Prices of the quay')->press('.modal button', 'Make the chart');
        $this->desk->see('.stage-canvas', 'Fish pie');
        $this->choose('Drawn as', 'line');
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelectorAll(".stage-canvas polyline").length') === 1, 'a line');
    }

    /** A layout whose words are those of a row, once for each row in a list; and it is seen over one of them while it is designed. */
    public function testAnItemPlaysRowByRow(): void
    {
        $rect = ['x' => 0, 'y' => 0, 'width' => 1900, 'height' => 300];
        $card = $this->layout([['id' => 'words', 'kind' => 'text', 'rect' => $rect, 'text' => 'Today', 'style' => ['size_px' => 90, 'color' => '#ffffff']]]);
        $this->open($card);
        $this->desk->press('.ledger th button', 'words');
        $this->choose('Tells rows of', 'row of its item');
        $this->desk->type('[aria-label=Text]', 'Try our {item}')->see('.stage-canvas', 'Try our –');
        $this->desk->see('[role=status]', 'No playlist or zone plays this layout row by row yet');

        $items = [['id' => 'i1', 'layout' => ['ref' => $card], 'duration_ms' => 3600_000]];
        $list = Desk::post($this->desk, 'playlists', ['name' => 'Of the café', 'document' => ['items' => $items]])['id'];
        array_unshift($this->made, "playlists/$list");
        $this->desk->until(fn (): bool => Desk::api($this->desk, "layouts/$card")['document']['elements'][0]['text'] === 'Try our {item}', 'the words to be saved');
        $this->desk->go(Desk::url("/playlists/$list"));
        $this->desk->press('[aria-label="More of Board of the day"]')->see('.times', 'Row by row');
        $this->choose('Once for each row of', 'cafe-prices');
        $this->desk->see('.items .marks', 'once for each row of Prices of the quay café');
        $this->desk->see('.items', '6 of 6 rows now');
        $this->desk->see('.stage-canvas', 'Try our');
        $this->desk->until(fn (): bool => array_column(Desk::api($this->desk, "playlists/$list")['document']['items'], 'each') !== [], 'it to be saved');
        $this->desk->see('.leaf', '6 items in');

        $this->open($card);
        $this->desk->see('.stage-canvas', 'Try our Tea');
        $this->desk->press('.ledger th button', 'words')->see('[role=status]', 'as “Of the café” plays them');
        $this->desk->type('[aria-label="Try it from row"]', '3')->see('.stage-canvas', 'Try our Soup of the day');
        $this->desk->press('.stress button', 'longest')->see('.stage-canvas', 'Try our Soup of the day');
    }

    /** A part of a row that is a picture, whose address is in a field; a standby stands there until it can be had. */
    public function testARowHasAPicture(): void
    {
        $this->open($this->layout([]));
        $this->hands->keys('b');
        $this->desk->driver->getKeyboard()->sendKeys(WebDriverKeys::ENTER);
        $this->desk->press('.modal .sources label', 'Day trips')->press('.modal .ready label', 'Offers with picture')->press('.modal button', 'Make the board');
        $this->desk->see('.tide', 'Morning on Tolm');
        // Whichever of its pages is due: one of them has no picture.
        $shown = 'return [...document.querySelectorAll(".stage-canvas img")].map((one) => one.src.split("/").pop())';
        $pictures = fn (): array => array_values(array_unique((array) $this->desk->script($shown)));
        // Fetched, looked into, and there the next time that anybody looks.
        $this->desk->until(function () use ($pictures): bool {
            $this->desk->driver->navigate()->refresh();
            $this->desk->see('.tide', 'Morning on Tolm');

            return count(array_filter($pictures(), static fn (string $one): bool => str_ends_with($one, '.svg'))) > 0;
        }, 'a picture of the Bench', 90);
        $this->desk->press('.ledger th button', 'board1')->press('[aria-label="Place and type of photo"]');
        $this->choose('Its address is in', '');
        $this->desk->until(static fn (): bool => count($pictures()) === 1, 'the same picture in every row');
        $this->desk->go(Desk::url('/data/day-trips'))->see('.uses', 'lights.svg: The server answers 404.');
    }

    /** Every told value read back from the page of a player equals what the core says, also after a page and after new data. */
    public function testAPlayerTellsWhatTheCoreSays(): void
    {
        $source = Desk::post($this->desk, 'sources', ['name' => 'Ferry horns', 'document' => ['from' => ['table' => self::horns('blows')]]])['id'];
        $rect = ['x' => 0, 'y' => 0, 'width' => 1600, 'height' => 100];
        $told = ['id' => 'what', 'kind' => 'text', 'message' => true, 'text' => '{n, number} {what}', 'rect' => $rect, 'style' => ['size_px' => 60]];
        $board = ['id' => 'horns', 'kind' => 'board', 'rect' => ['height' => 300] + $rect, 'rows' => ['source' => $source], 'page_ms' => 3000]
            + ['pattern' => ['size' => ['width' => 1600, 'height' => 100], 'elements' => [$told]]];
        $layout = $this->layout([$board]);
        $this->made[] = "sources/$source";
        Desk::handOver($this->desk, ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['check-in-2']]);
        $page = Chrome::open(1920, 1080);
        try {
            $page->go(Desk::url(Desk::players($this->desk, 'check-in-2')[0]['address']));
            $page->see('.stage-canvas', 'blows');
            // What stands there when none of the three pages is about to come or go.
            $seen = [];
            $page->until(static function () use ($page, &$seen): bool {
                [$ms, $texts] = $page->script('return [Date.now(), [...document.querySelectorAll(".stage-canvas [data-kind=text]")].map((one) => one.textContent)]');
                if ($ms % 3000 > 300 && $ms % 3000 < 2700) {
                    $seen[intdiv($ms % 9000, 3000)] ??= $texts;
                }

                return count($seen) === 3;
            }, 'each of the pages');
            foreach ($seen as $number => $texts) {
                self::assertSame(array_map(static fn (int $n): string => (3 * $number + $n) . ' blows', [1, 2, 3]), $texts);
            }
            // New data are there by themselves, and nothing else is handed over.
            $document = Desk::api($this->desk, "sources/$source")['document'];
            Desk::post($this->desk, "sources/$source", ['base' => 1, 'document' => ['from' => ['table' => self::horns('is silent')]] + $document], 'PUT');
            $page->see('.stage-canvas', 'is silent', 60);
        } finally {
            $page->close();
            Desk::handOver($this->desk, ['source' => ['kind' => 'layout', 'id' => 'check-in-day'], 'displays' => ['check-in-2']]);
        }
    }

    /** @return list<array<string, mixed>> */
    private static function horns(string $what): array
    {
        return array_map(static fn (int $n): array => ['n' => $n, 'what' => $what], range(1, 9));
    }

    /** @param list<array<string, mixed>> $elements */
    private function layout(array $elements): string
    {
        $id = Desk::post($this->desk, 'layouts', ['name' => 'Board of the day', 'document' => [
            'canvas' => ['width' => 1920, 'height' => 1080], 'background' => ['color' => '#17272e'], 'elements' => $elements,
        ]])['id'];
        array_unshift($this->made, "layouts/$id");

        return $id;
    }

    private function open(string $layout): void
    {
        $this->desk->go(Desk::url("/layouts/$layout"))->see('.tide');
        $this->desk->see('.ledger');
    }

    private function told(string $what): string
    {
        return (string) $this->desk->script(
            'return [...document.querySelectorAll(".board .told div")].find((one) => one.querySelector("dt").textContent.trim() === arguments[0])?.querySelector("dd").textContent.trim()',
            $what,
        );
    }

    private function choose(string $label, string $value): void
    {
        $this->desk->script(<<<'JS'
            const [label, value] = arguments
            const field = [...document.querySelectorAll('select')].find((one) => one.getAttribute('aria-label') === label || one.closest('label')?.textContent.trim().startsWith(label))
            field.value = value
            field.dispatchEvent(new Event('change'))
            JS, $label, $value);
    }
}
