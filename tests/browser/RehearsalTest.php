<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Core\Make;

/** Time that is looked at before it plays: any display at any instant, and the tide table from a second to a week. */
final class RehearsalTest extends TestCase
{
    private Chrome $desk;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
    }

    protected function tearDown(): void
    {
        $this->desk->close();
    }

    public function testTheNightOnWhichTheClocksGoBackIsWatchedOnTwoPiersSideBySide(): void
    {
        Desk::signIn($this->desk, '/rehearsal?display=pier-great-pellan,pier-vennick&by=schedule&from=2026-10-25T00:30:00&to=2026-10-25T06:30:00');
        $this->desk->see('.facts', 'Sunday 25 October 2026, 00:30 to 06:30, 7 h on the clock of Europe/Lisbon');
        $this->desk->see('.odd', 'the clocks go back by 1 h');
        $caption = fn (int $n): string => $this->desk->see("figure:nth-of-type($n) figcaption")->getText();
        self::assertSame("Pier Great Pellan\n00:30:00 WEST\nPier board, night", $caption(1));
        $this->desk->until(static fn (): bool => str_contains($caption(2), "23:30:00 GMT+0\nPier board, night"), 'the same instant on the Azores');
        // The pictures of the strip say the hour that comes twice twice.
        $times = $this->desk->script('return [...document.querySelector(".strip").querySelectorAll(".picture .figures")].map((t) => t.textContent)');
        self::assertIsArray($times);
        self::assertSame(2, count(array_keys($times, '01:30', true)), implode(' ', $times));

        // Step by step: to the next change, which is an hour later on the Azores.
        $step = fn (): Chrome => $this->desk->press('.time .steps button:last-child');
        $step();
        $this->desk->until(static fn (): bool => str_contains($caption(1), '05:00:00 WET') && str_contains($caption(1), 'Pier board, day'), 'five o\'clock on Great Pellan');
        self::assertStringContainsString('04:00:00', $caption(2));
        self::assertStringContainsString('Pier board, night', $caption(2));
        $this->desk->see('.course li.due', 'everyday booking "Sailing day"');

        // A time that is typed; one that the day does not have is told.
        $this->desk->type('[aria-label="Time of the hand"]', '06:10');
        $this->desk->until(static fn (): bool => str_contains($caption(2), "05:10:00 GMT-1\nPier board, day"), 'ten past five on the Azores');
        $this->desk->type('[aria-label="Time of the hand"]', '25:10');
        $this->desk->see('.time .said-error', '2026-10-25 has no 25:10 in Europe/Lisbon.');

        // Sixty times as fast, what is seen moves on by itself and stands still again.
        $this->desk->press('.time .choice button', '60×')->press('.time .steps .run');
        $this->desk->until(static fn (): bool => str_contains($caption(1), '06:12:') || str_contains($caption(1), '06:13:'), 'two minutes to go by');
        $this->desk->press('.time .steps .run', 'stop');

        // Every item, and all of it as a table.
        $this->desk->press('.list-head button', 'every item');
        $this->desk->see('.course li', 'head');
        $csv = $this->desk->script('return await (await fetch(document.querySelector(".actions a[download]").href)).text()');
        self::assertIsString($csv);
        self::assertStringContainsString('"Pier Vennick",,"2026-10-25 05:00:00"', $csv);
        self::assertStringContainsString('"Pier Great Pellan",,"2026-10-25 05:00:00"', $csv);
    }

    public function testWhatIsSavedSaysWhereItIsFirstShownAndIsRehearsedThere(): void
    {
        Desk::signIn($this->desk, '/layouts/pier-lights');
        self::assertMatchesRegularExpression('~^first seen \d+ \w{3} 18:00 on Pier Vennick$~', $this->desk->see('.seen button', 'first seen')->getText());
        $this->desk->press('.seen button');
        $this->desk->press('[aria-label="First shown"] a', 'Pier Vennick');
        $this->desk->until(fn (): bool => preg_match('~18:00:00 GMT(-1)?\nPier board, Lights of Tolm~', $this->desk->see('figcaption')->getText()) === 1, 'its own beginning');

        // What nobody uses says so, and what is switched off says that.
        $document = Make::layout([Make::zone('main', 0, 0, 1920, 1080, [Make::picture('a')])]);
        $id = Desk::post($this->desk, 'layouts', ['name' => 'Nowhere yet', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])])['id'];
        $this->desk->go(Desk::url("/layouts/$id"));
        $this->desk->press('.seen button', 'seen nowhere');
        $this->desk->see('[aria-label="First shown"]', 'It is handed over to no display, and no layout, playlist or schedule uses it.');
        $this->desk->press('.head .actions a', 'Rehearse');
        $this->desk->see('.list-head', 'Nowhere yet');
    }

    public function testInTheTideTableLengthsAndOrderAreChangedByPointerAndByTyping(): void
    {
        Desk::signIn($this->desk);
        $items = array_map(static fn (string $name): array => Make::picture($name, durationMs: 20_000), ['ants', 'bees', 'cats']);
        $document = Make::layout([Make::zone('main', 0, 0, 1920, 1080, $items)]);
        $id = Desk::post($this->desk, 'layouts', ['name' => 'Tides of mine', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])])['id'];
        $this->desk->go(Desk::url("/layouts/$id"));
        $this->desk->press('.tide .steps .run', 'stop');
        $this->desk->see('.tide .row-name', '60.0 s');
        $items = fn (): array => Desk::api($this->desk, "layouts/$id")['document']['elements'][0]['playlist']['items'];
        $order = fn (): string => implode(' ', array_column($items(), 'id'));

        // The right edge of a slot taken hold of and drawn by 70 px: 2.5 min on about 1080 px, 10 s more.
        $slot = $this->slot('ants');
        $edge = $slot->findElement(WebDriverBy::cssSelector('.edge'));
        $width = $this->desk->see('.tide .bed')->getSize()->getWidth();
        (new WebDriverActions($this->desk->driver))->moveToElement($edge)->clickAndHold()->moveByOffset((int) round($width / 30), 0)->moveByOffset((int) round($width / 30), 0)->release()->perform();
        $this->desk->until(static fn (): bool => $items()[0]['duration_ms'] === 30_000, '"ants" to last 30 s');
        $this->desk->see('.tide .row-name', '70.0 s');

        // What is picked is typed over, and goes a place later.
        $this->desk->holds('.tide .picked input', '30');
        $this->desk->type('.tide .picked input', '12,5');
        $this->desk->until(static fn (): bool => $items()[0]['duration_ms'] === 12_500, '12.5 s');
        $this->desk->press('.tide .picked button', 'later');
        $this->desk->until(static fn (): bool => $order() === 'bees ants cats', 'ants behind bees');
        $this->drawn('bees ants cats');

        // A name is taken hold of and put where another stands.
        $from = $this->slot('cats')->findElement(WebDriverBy::cssSelector('.name'));
        $to = $this->slot('bees')->findElement(WebDriverBy::cssSelector('.name'));
        (new WebDriverActions($this->desk->driver))->moveToElement($from)->clickAndHold()->moveByOffset(8, 0)->moveToElement($to)->release()->perform();
        $this->desk->until(static fn (): bool => $order() === 'cats bees ants', 'cats in the place of bees');
        $this->drawn('cats bees ants');
        $this->desk->press('.actions button', 'Undo');
        $this->desk->until(static fn (): bool => $order() === 'bees ants cats', 'it to be undone');

        // From a second to a week: slots, rounds, and how it goes round.
        for ($n = 0; $n < 3; $n++) {
            $this->desk->press('[aria-label="A longer span"]');
        }
        $this->desk->see('.tide .span', '30 min');
        self::assertSame('', $this->desk->see('.tide .slot')->getText(), 'rounds without names');
        while ($this->desk->find('[aria-label="A longer span"]:disabled') === null) {
            $this->desk->press('[aria-label="A longer span"]');
        }
        $this->desk->see('.tide .span', '1 week');
        $this->desk->see('.tide .slot.many', '3 items, a round of 52.5 s');
        while ($this->desk->find('[aria-label="A shorter span"]:disabled') === null) {
            $this->desk->press('[aria-label="A shorter span"]');
        }
        $this->desk->see('.tide .span', '1 s');
        self::assertMatchesRegularExpression('/^\d\d:\d\d:\d\d\.\d$/', $this->desk->see('.tide .tick')->getText());
    }

    /** Waits until the tide table shows a round in this order: what is saved is drawn only when the core has worked it out. */
    private function drawn(string $order): void
    {
        $script = "return [...document.querySelectorAll('.tide .slot')].map((slot) => slot.dataset.item).join(' ')";
        $this->desk->until(fn (): bool => str_contains((string) $this->desk->driver->executeScript($script), $order), "the tide table to show $order");
    }

    /** The first slot of an item that is seen with its right edge. */
    private function slot(string $name): RemoteWebElement
    {
        $found = $this->desk->until(function () use ($name): ?RemoteWebElement {
            foreach ($this->desk->driver->findElements(WebDriverBy::cssSelector('.tide .slot')) as $slot) {
                if (str_starts_with($slot->getText(), $name) && $slot->findElements(WebDriverBy::cssSelector('.edge')) !== [] && $slot->getLocation()->getX() > 230) {
                    return $slot;
                }
            }

            return null;
        }, "a slot of $name");
        assert($found instanceof RemoteWebElement);

        return $found;
    }
}
