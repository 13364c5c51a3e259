<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverKeys as Key;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\OnALayout;

/** What plays and what is booked, gone through by keys: Tab leads into a grid once, arrows go on within it. */
final class GridTest extends TestCase
{
    use OnALayout;

    private const ALT = "\u{E00A}";
    private const HERE = 'const e = document.activeElement; return { from: Number(e.dataset.from), to: Number(e.dataset.to), item: e.dataset.item ?? null,
        row: e.closest(".lane")?.getAttribute("aria-label") ?? null, cells: document.querySelectorAll(".tide .slot[tabindex=\"0\"]").length }';

    protected function setUp(): void
    {
        $this->open(static fn (Chrome $desk): array => array_diff_key(Desk::api($desk, 'layouts/check-in-day')['document'], ['id' => 1, 'name' => 1, 'format' => 1]), '.tide .slot');
    }

    public function testWhatPlaysIsGoneThroughAndPutInAnotherOrderByKeys(): void
    {
        // The clock stands, so that nothing goes on meanwhile.
        $this->hands->focusPane();
        $this->hands->press(' ');
        $this->hands->tabTo('.tide .slot');
        $first = $this->here();
        self::assertSame(1, $first['cells'], 'Tab leads to one of them');
        $next = $this->after(Key::ARROW_RIGHT);
        self::assertSame([$first['to'], $first['row'], 1], [$next['from'], $next['row'], $next['cells']]);
        $below = $this->after(Key::ARROW_DOWN);
        self::assertNotSame($next['row'], $below['row']);
        self::assertTrue($below['from'] < $next['to'] && $below['to'] > $next['from'], 'what plays there at that time');
        self::assertSame($next['row'], $this->after(Key::ARROW_UP)['row']);
        $end = $this->after(Key::END);
        $home = $this->after(Key::HOME);
        self::assertGreaterThan($home['from'], $end['from']);
        // At the edge, and with Page down, the window goes on.
        $this->after(Key::END);
        self::assertSame($end['to'], $this->after(Key::ARROW_RIGHT)['from']);
        self::assertGreaterThan($end['to'], $this->after(Key::PAGE_DOWN)['to']);
    }

    public function testAnItemIsTakenTimedAndPutElsewhereByKeys(): void
    {
        $this->hands->focusPane();
        $this->hands->press(' ');
        $zone = $this->ownList();
        $items = fn (): array => array_column($this->zone($zone)['playlist']['items'], null, 'id');
        $this->hands->tabTo('.tide .slot');
        for ($rows = 0; $this->here()['row'] !== $this->called($zone) && $rows < 9; $rows++) {
            $this->after(Key::ARROW_DOWN);
        }
        $there = array_keys($items());
        $second = $there[1] ?? self::fail('the list has two items');
        for ($presses = 0; $this->here()['item'] !== $second && $presses < 30; $presses++) {
            $this->after(Key::ARROW_RIGHT);
        }
        $this->hands->press(self::ALT . Key::ARROW_LEFT);
        $this->desk->until(fn (): bool => array_keys($items())[0] === $second, 'it to come first');

        $this->hands->press(Key::ENTER);
        $this->desk->until(fn (): bool => $this->desk->script('return document.activeElement.matches(".picked input")'), 'its figure to be typed');
        $this->hands->press(Key::CONTROL . 'a', '0:07', Key::ENTER);
        $this->desk->until(fn (): bool => $items()[$second]['duration_ms'] === 7000, 'it to last 7 s');
        $this->hands->press(Key::ESCAPE);
        $this->desk->until(fn (): bool => $this->here()['row'] === $this->called($zone), 'the focus to be back');
        self::assertNull($this->desk->find('.tide .picked'));
    }

    public function testEscapePutsTheHandBack(): void
    {
        $this->hands->focusPane();
        $this->hands->press(' ');
        $at = fn (): int => (int) $this->desk->see('.tide .hand')->getAttribute('aria-valuenow');
        $this->desk->see('.tide .steps .run', 'run');
        $before = $at();
        $scale = $this->desk->see('.tide .bed .scale');
        (new WebDriverActions($this->desk->driver))->moveToElement($scale)->clickAndHold()->moveByOffset(120, 0)->perform();
        $this->desk->until(static fn (): bool => $at() !== $before, 'the hand to follow');
        $this->hands->press(Key::ESCAPE);
        self::assertSame($before, $at());
        (new WebDriverActions($this->desk->driver))->moveByOffset(40, 0)->release()->perform();
        self::assertSame($before, $at(), 'it holds nothing any more');
    }

    public function testTheHandIsPutWhereATimeIsTypedAndWhereLoopsMeet(): void
    {
        $at = fn (): string => (string) $this->desk->see('.tide .hand')->getAttribute('aria-valuetext');
        $this->desk->type('[aria-label="Instant of the hand"]', '14:03');
        $this->desk->until(static fn (): bool => $at() === '14:03:00', 'the hand to be there');
        $this->desk->holds('[aria-label="Instant of the hand"]', '14:03:00');
        $this->desk->type('[aria-label="Instant of the hand"]', 'soon');
        self::assertStringContainsString('14:03:20', (string) $this->desk->script('return document.querySelector("[aria-label=\"Instant of the hand\"]").validationMessage'));
        self::assertSame('14:03:00', $at());

        $this->desk->press('[aria-label="A longer span"]')->press('[aria-label="A longer span"]');
        $meets = trim($this->desk->see('.tide .meet button')->getText());
        $this->desk->press('.tide .meet button');
        $this->desk->until(static fn (): bool => $at() === $meets, 'the hand to stand where loops meet');
    }

    public function testWhatIsChosenIsSaidAndOneOfAFewIsChosenByArrows(): void
    {
        $zone = $this->ownList();
        $this->hands->choose($zone);
        $this->desk->see('.room [role=status]', "zone $zone");
        $this->hands->keys(Key::ESCAPE);
        $this->desk->see('.room [role=status]', 'Nothing is chosen.');
        $this->hands->tabTo('.bar [role=radio]')->press(Key::ARROW_RIGHT);
        $this->desk->see('.bar [role=radio][aria-checked=true]', 'zone');
        $this->desk->see('.room.drawing');
        $this->hands->press(Key::HOME);
        $this->desk->see('.bar [role=radio][aria-checked=true]', 'choose');
        self::assertSame(1, $this->desk->script('return document.querySelectorAll(".bar [aria-label=Tools] [tabindex=\"0\"]").length'));
    }

    public function testBookingsAreGoneThroughByKeysAndOtherDaysAreSeen(): void
    {
        $this->desk->go(Desk::url('/schedules/piers'))->see('.week .bar');
        $here = fn (): string => (string) $this->desk->script('return document.activeElement.dataset.key ?? ""');
        $this->hands->tabTo('.week .bar');
        self::assertSame(1, $this->desk->script('return document.querySelectorAll(".week .bar[tabindex=\"0\"]").length'));
        $first = $here();
        $day = fn (): string => (string) $this->desk->script('return document.activeElement.closest(".day")?.getAttribute("aria-label") ?? ""');
        $before = $day();
        $this->hands->press(Key::ARROW_DOWN);
        self::assertNotSame($first, $here());
        self::assertNotSame($before, $day());
        $saved = Desk::api($this->desk, 'schedules/piers')['revision'];
        $days = fn (): string => (string) $this->desk->see('.week .day')->getAttribute('aria-label');
        $was = $days();
        $this->hands->press(Key::PAGE_DOWN);
        $this->desk->until(fn (): bool => $days() !== $was, 'other days');
        self::assertSame($saved, Desk::api($this->desk, 'schedules/piers')['revision'], 'nothing was moved');
    }

    /** @return array{from: int, to: int, item: ?string, row: ?string, cells: int} what has the focus */
    private function here(): array
    {
        /** @var array{from: int, to: int, item: ?string, row: ?string, cells: int} */
        return $this->desk->script(self::HERE);
    }

    /** @return array{from: int, to: int, item: ?string, row: ?string, cells: int} */
    private function after(string $key): array
    {
        $before = $this->here();
        $this->hands->press($key);
        $this->desk->until(fn (): bool => $this->here()['row'] !== null && $this->here() !== $before, 'the focus to go on');

        return $this->here();
    }

    /** @return string id of a zone with two items or more of its own */
    private function ownList(): string
    {
        foreach (Desk::api($this->desk, "layouts/$this->layout")['document']['elements'] as $element) {
            if (count($element['playlist']['items'] ?? []) > 1 && !isset($element['follows'])) {
                return $element['id'];
            }
        }
        self::fail('No zone has a list of its own.');
    }

    /** @return array<string, mixed> */
    private function zone(string $id): array
    {
        return array_column(Desk::api($this->desk, "layouts/$this->layout")['document']['elements'], null, 'id')[$id];
    }

    private function called(string $zone): string
    {
        return $this->zone($zone)['name'] ?? $zone;
    }
}
