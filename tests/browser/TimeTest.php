<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;
use UpperPane\Tests\Core\Make;

/** Playlists and zones in time: what comes when, how often, and with what. */
final class TimeTest extends TestCase
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

    public function testABookingLiesAheadItsEndFollowsAndADayIsPressedInACalendar(): void
    {
        Desk::signIn($this->desk, '/schedules/piers');
        $this->desk->see('.week .bar');
        $document = Desk::api($this->desk, 'schedules/piers')['document'];
        $field = fn (string $name): string => (new Hands($this->desk))->field($name);
        $this->desk->press('.actions button', 'New booking')->see('.booking');
        $zone = new \DateTimeZone('Europe/Lisbon');
        $begins = new \DateTimeImmutable($field('Begins'), $zone);
        self::assertGreaterThan(new \DateTimeImmutable(), $begins);
        self::assertEquals($begins->modify('+1 hour'), new \DateTimeImmutable($field('Ends'), $zone));

        $this->desk->script('const field = document.querySelector(".booking .calendar"); field.value = "2027-03-01T10:30"; field.dispatchEvent(new Event("change"))');
        $this->desk->holds('[aria-label="Begins"]', '2027-03-01 10:30')->holds('[aria-label="Ends"]', '2027-03-01 11:30');
        $this->desk->press('.booking button', 'all day')->holds('[aria-label="Begins"]', '2027-03-01 00:00')->holds('[aria-label="Ends"]', '2027-03-02 00:00');
        foreach (range(1, 3) as $_) {
            $this->desk->press('.actions button', 'Undo');
        }
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'schedules/piers')['document'] == $document, 'all to be undone');
    }

    public function testAPlaylistSaysHowItGoesRoundWhateverIsDoneToIt(): void
    {
        Desk::signIn($this->desk, '/');
        $list = static fn (string ...$names): array => array_map(static fn (string $name): array => Make::picture($name, durationMs: 10_000), $names);
        Desk::post($this->desk, 'playlists', ['name' => 'Extras of mine', 'document' => ['items' => $list('X', 'Y')]]);
        $id = Desk::post($this->desk, 'playlists', ['name' => 'Round of mine', 'document' => ['items' => $list('A', 'B', 'C', 'D')]])['id'];
        $this->desk->go(Desk::url("/playlists/$id"));
        $this->desk->see('.between .round', '4 items in 40.0 s, then again');
        $this->desk->see('.items li:nth-child(1) .rate', '90/h, 25 %');

        // A B X C D Y, out of a list that is kept on its own.
        $this->desk->press('#between-from option', 'Extras of mine');
        $this->desk->see('.between .round', '6 items in 60.0 s, then again: 1 2 a 3 4 b');
        $this->desk->see('.items li:nth-child(1) .rate', '60/h, 16.7 %');
        $this->desk->type('[aria-label="After how many items one is put in"]', '1');
        $this->desk->see('.between .round', '8 items in 80.0 s, then again: 1 a 2 b 3 a 4 b');

        // One comes twice, spread; one stays behind it.
        $this->desk->press('.items li:nth-child(1) button', 'more');
        $this->desk->type('[aria-label="How many times A.png comes in a round"]', '2');
        $this->desk->see('.items li:nth-child(1) .marks', '2 times a round');
        $this->desk->see('.between .round', '20 items in 200.0 s, then again: 1 a 2 b 1 a 3 b 4 a 1 b 2 a 1 b 3 a 4 b');
        $this->desk->press('.items li:nth-child(2) button', 'more');
        $this->desk->press('.items li:nth-child(2) .tick', 'always right behind the one above');
        $this->desk->see('.items li:nth-child(2) .marks', 'tied to the one above');
        $this->desk->see('.between .round', '1 2 a 3 b 1 2 a 4 b');

        // Tied together they move together, with the keyboard.
        $this->desk->see('.items li:nth-child(1) .grip')->sendKeys("\u{E015}");
        $this->desk->until(fn (): bool => str_contains($this->desk->see('.items li:nth-child(1) .name')->getText(), 'C.png'), 'C to be the first');
        self::assertStringContainsString('B.png', $this->desk->see('.items li:nth-child(3) .name')->getText());

        // Only on some days and hours; nonsense is told where it was typed.
        $this->desk->press('.items li:nth-child(4) button', 'more');
        $this->desk->type('[aria-label="Hours of D.png"]', 'in the evening');
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelector("[aria-label=\'Hours of D.png\']").validationMessage') !== '', 'to be told');
        $this->desk->type('[aria-label="Hours of D.png"]', '17:00-19:00, 21:00-2:00');
        $this->desk->press('.items li:nth-child(4) .days label', 'Sun');
        $this->desk->type('[aria-label="D.png plays from"]', '2026-12-01 08:00');
        $this->desk->see('.items li:nth-child(4) .marks', 'from 2026-12-01 08:00; Mon, Tue, Wed, Thu, Fri, Sat; 17:00-19:00, 21:00-02:00');
        $this->desk->see('.between .round', 'while all are due');
        $this->desk->until(fn (): bool => (Desk::api($this->desk, "playlists/$id")['document']['items'][3]['valid']['hours'][1][1] ?? null) === '02:00', 'it to be saved');

        // A copy goes to the end of another list.
        $this->desk->press('.items li:nth-child(4) .times option', 'Extras of mine');
        $this->desk->see('.times [role=status]', 'Copied to the end of "Extras of mine".');
        $this->desk->see('.between .round', 'while all are due');

        $this->desk->go(Desk::url('/playlists?search=extras%20of%20mine'));
        $this->desk->see('.design', 'part of Round of mine');
    }

    public function testAWeekIsBookedMovedAndHandedOver(): void
    {
        Desk::signIn($this->desk, '/schedules');
        $this->desk->see('table', 'all displays of Island piers');
        $this->desk->press('[aria-label="New schedule for"] option', 'Shop wall');
        $this->desk->see('.leaf', 'Nothing is booked yet.');
        $this->desk->see('.week .play.dark', 'nothing');
        $this->desk->see('.shelf', 'and there is no standby: the display stays dark');
        $this->desk->press('.above option', 'Check-in, day sailings');
        $this->desk->see('.week .play.standby', 'Check-in, day sailings');
        $id = basename((string) parse_url((string) $this->desk->driver->getCurrentURL(), PHP_URL_PATH));

        // Pressed and dragged from 09:00 to 12:00 on the second day that is seen.
        $this->drag('.week section:nth-of-type(2) .bed', 9 / 24, 12 / 24);
        $this->desk->holds('[aria-label="Name of the booking"]', 'Booking 1');
        $this->desk->type('[aria-label="Name of the booking"]', 'Morning');
        $this->desk->press('.booking option', 'Shop window, round (playlist)');
        $this->desk->see('.week .play.dated', 'Shop window, round');
        self::assertMatchesRegularExpression('/^\d{4}-\d\d-\d\d 09:00$/', (new Hands($this->desk))->field('Begins'));

        // Every day from now on, and the rank follows; what the eyes see is what plays.
        $this->desk->press('.booking option', 'every day');
        $this->desk->see('.week section:nth-of-type(7) .play.everyday', 'Shop window, round');
        $this->desk->see('.booking option:checked', 'everyday');
        $bookings = fn (): array => Desk::api($this->desk, "schedules/$id")['document']['bookings'];
        $this->desk->until(static fn (): bool => ($bookings()[0]['rrule'] ?? '') === 'FREQ=DAILY', 'it to be saved');

        // One of them an hour and five minutes later, with the keyboard; the others stay.
        $this->desk->press('.which button', 'this one');
        $bar = '.week section:nth-of-type(4) .bar';
        $this->desk->script('document.querySelector(arguments[0]).focus()', $bar);
        (new Hands($this->desk))->press("\u{E009}\u{E008}\u{E014}");
        $this->desk->until(static fn (): bool => count($bookings()) === 2 && str_ends_with($bookings()[1]['start'], 'T10:00:00'), 'one to stand apart');
        self::assertStringEndsWith('T13:00:00', $bookings()[1]['end']);
        self::assertCount(1, $bookings()[0]['exdates']);
        $this->desk->see('.week section:nth-of-type(5) .bar.everyday', 'Morning, every day');

        // Undone and done again; two that claim the same time are told, and which of them plays.
        $this->desk->press('.actions button', 'Undo');
        $this->desk->until(static fn (): bool => count($bookings()) === 1, 'it to be undone');
        $this->drag('.week section:nth-of-type(3) .bed', 11 / 24, 14 / 24);
        $this->desk->press('.booking option', 'everyday');
        $this->desk->see('.shelf', '"Morning" and "Booking 2", both of rank everyday, are due together for 1 h');

        $this->desk->press('.actions a', 'Hand over');
        $this->desk->see('main', 'The schedule "Shop wall" takes over, with 2 bookings.');
        $this->desk->press('.actions button', 'Hand over to 1 display');
        $this->desk->see('.done', 'handed over to Shop wall');
        $this->desk->go(Desk::url('/schedules'));
        $this->desk->see('tr', 'Shop wall');
    }

    public function testOnTheLongNightNothingIsMissingAndNothingIsDouble(): void
    {
        Desk::signIn($this->desk);
        foreach (['pier-great-pellan' => ['Europe/Lisbon', '01:00 to 02:00 comes twice'], 'pier-vennick' => ['Atlantic/Azores', '00:00 to 01:00 comes twice']] as $display => [$zone, $words]) {
            $this->desk->go(Desk::url("/schedules/piers?span=day&from=2026-10-25&display=$display"));
            $this->desk->see('.week .date', $words);
            $this->desk->see('.facts', "times of $zone");
            // The midnight that is meant is that of the display, which is known with the first answer.
            $this->desk->until(fn (): bool => $this->desk->script('return document.querySelectorAll(".week section").length') === 1, 'one day');
            $edges = $this->desk->script('return [...document.querySelectorAll(".play")].flatMap((p) => [parseFloat(p.style.left), parseFloat(p.style.left) + parseFloat(p.style.width)])');
            self::assertIsArray($edges);
            self::assertEqualsWithDelta(0, $edges[0], 0.001);
            self::assertEqualsWithDelta(100, $edges[count($edges) - 1], 0.001);
            for ($i = 1; $i + 1 < count($edges); $i += 2) {
                self::assertEqualsWithDelta($edges[$i], $edges[$i + 1], 0.001, $zone);
            }
            // Five o'clock is six hours after midnight there that day.
            self::assertEqualsWithDelta(100 * 6 / 25, $edges[1], 0.01);
        }
    }

    /** From one share of an element's width to another, at its middle. */
    private function drag(string $selector, float $from, float $to): void
    {
        $bed = $this->desk->see($selector);
        $width = $bed->getSize()->getWidth();
        $x = static fn (float $share): int => (int) round(($share - 0.5) * $width);
        $hand = (new WebDriverActions($this->desk->driver))->moveToElement($bed, $x($from), -8)->clickAndHold();
        $hand->moveToElement($bed, $x(($from + $to) / 2), -8)->moveToElement($bed, $x($to), -8)->release()->perform();
    }

    public function testAFollowerChangesWithItsLeaderAndDriftIsToldWhereLoopsMeet(): void
    {
        Desk::signIn($this->desk, '/');
        $films = [Make::film('one', 15_000), Make::film('two', 20_000), Make::film('three', 10_000)];
        $pictures = static fn (int ...$ms): array => array_map(static fn (int $ms, int $n): array => Make::picture("p$n", durationMs: $ms), array_values($ms), array_keys(array_values($ms)));
        $document = Make::layout([Make::zone('main', 0, 0, 1344, 1080, $films), Make::zone('side', 1344, 0, 576, 1080, $pictures(10_000, 20_000, 10_000))]);
        $id = Desk::post($this->desk, 'layouts', ['name' => 'Together', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])])['id'];
        $this->desk->go(Desk::url("/layouts/$id"));

        // Loops of 45 s and 40 s meet every 360 s, and the strip says so.
        $this->desk->see('main', 'loops meet every 6.0 min');
        $this->desk->press('.shelf .all', 'all findings');
        $this->desk->see('.shelf .say', '"main" and "side" have 3 items each, in loops of 45 s and 40 s: they drift apart and meet every 360 s.');
        $this->desk->press('.shelf .fix', 'Let "side" change with "main"');
        $this->desk->until(fn (): bool => !str_contains($this->desk->see('main')->getText(), 'loops meet every 6.0 min'), 'loops to go together');

        // It changes at 0, 15 and 35 s of the leader's loop.
        $sheet = Desk::post($this->desk, 'analysis', ['document' => ['elements' => [
            $document['elements'][0], ['follows' => 'main'] + $document['elements'][1],
        ]] + $document])['run_sheet'];
        foreach ($sheet['layers'] as $zone) {
            self::assertSame([[0, 15_000, 35_000], 45_000], [array_column($zone['segments'], 'start_ms'), $zone['period_ms']]);
        }

        $this->desk->press('.shelf .all');
        // One more picture, and the counts no longer agree: told, and cured by one press.
        $hands = new Hands($this->desk);
        $hands->fill('side', ['quay-cafe']);
        $this->desk->press('.shelf .all');
        $this->desk->see('.shelf .say', '"side" has 4 items and changes with "main", which has 3 items');
        $this->desk->press('.shelf .fix', 'Switch off the last one of "side"');
        $this->desk->until(fn (): bool => !str_contains($this->desk->see('body')->getText(), 'has 4 items and changes'), 'the finding to go');
        $this->desk->see('.details .items li.off', 'quay-cafe');
        $this->desk->see('.details .zone-times select option:checked', 'with main');
    }

    public function testWhereNothingIsDueAStandbyIsChosenAndPlays(): void
    {
        Desk::signIn($this->desk, '/');
        $over = Make::picture('over', valid: ['until' => '2026-01-01T00:00:00']);
        $document = Make::layout([Make::zone('main', 0, 0, 1920, 1080, [$over])]);
        $id = Desk::post($this->desk, 'layouts', ['name' => 'Over', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])])['id'];
        $this->desk->go(Desk::url("/layouts/$id"));
        $this->desk->press('.ledger th button', 'main');
        $this->desk->press('.shelf .all');
        $this->desk->see('.shelf', 'and it has no standby: it stays blank.');

        $this->desk->script('const field = [...document.querySelectorAll(".zone-times label")].find((one) => one.textContent.includes("Standby")).querySelector("select");'
            . 'field.value = [...field.options].find((one) => one.text === "Pier board, Lights of Tolm").value; field.dispatchEvent(new Event("change"));');
        $this->desk->see('.tide .slot', 'standby: Pier board, Lights of Tolm');
        $this->desk->until(fn (): bool => !str_contains($this->desk->see('.shelf')->getText(), 'it stays blank'), 'the finding to go');
        $this->desk->until(fn (): bool => str_contains($this->desk->see('.head')->getText(), 'revision 2'), 'it to be saved');
        self::assertSame(['layout' => 'pier-lights'], Desk::api($this->desk, "layouts/$id")['document']['elements'][0]['standby']);
    }
}
