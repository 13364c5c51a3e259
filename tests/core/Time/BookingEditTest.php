<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Time;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\Schedule\BookingEdit;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\WallClock;

/** One occurrence, this and later ones, or all: what is seen afterwards. */
final class BookingEditTest extends TestCase
{
    private const WEEKLY = ['rrule' => 'FREQ=WEEKLY;BYDAY=MO,WE;COUNT=6', 'start' => '2026-06-01T17:00:00', 'end' => '2026-06-01T19:00:00'];

    public function testOneIsMovedAndTheOthersStay(): void
    {
        self::assertSame(
            ['06-01 17:00-19:00', '06-04 18:00-20:30', '06-08 17:00-19:00', '06-10 17:00-19:00', '06-15 17:00-19:00', '06-17 17:00-19:00'],
            self::moved(self::WEEKLY, '2026-06-03T17:00:00', '2026-06-04T18:00:00', '2026-06-04T20:30:00', 'one'),
        );
    }

    public function testThisAndTheLaterOnesAreMovedAndAsManyComeInAll(): void
    {
        self::assertSame(
            ['06-01 17:00-19:00', '06-03 17:00-19:00', '06-09 18:00-19:00', '06-11 18:00-19:00', '06-16 18:00-19:00', '06-18 18:00-19:00'],
            self::moved(self::WEEKLY, '2026-06-08T17:00:00', '2026-06-09T18:00:00', '2026-06-09T19:00:00', 'later'),
        );
    }

    public function testAllAreMovedWithTheirExceptionsAndDates(): void
    {
        $booking = ['exdates' => ['2026-06-03T17:00:00', '2026-06-10'], 'rdates' => ['2026-06-20T08:00:00']] + self::WEEKLY;
        self::assertSame(
            ['06-02 16:00-18:00', '06-09 16:00-18:00', '06-16 16:00-18:00', '06-18 16:00-18:00', '06-21 07:00-09:00'],
            self::moved($booking, '2026-06-08T17:00:00', '2026-06-09T16:00:00', '2026-06-09T18:00:00', 'all'),
        );
        self::assertSame(
            ['06-01 17:00-18:00', '06-03 17:00-18:00', '06-08 17:00-18:00', '06-10 17:00-18:00', '06-15 17:00-18:00', '06-17 17:00-18:00'],
            self::moved(self::WEEKLY, '2026-06-17T17:00:00', '2026-06-17T17:00:00', '2026-06-17T18:00:00', 'all'),
            'stretched',
        );
    }

    public function testWhatHappensOnceIsMovedItself(): void
    {
        foreach (['one', 'later', 'all'] as $which) {
            self::assertSame(
                ['06-02 09:00-10:00'],
                self::moved(['rrule' => null] + self::WEEKLY, '2026-06-01T17:00:00', '2026-06-02T09:00:00', '2026-06-02T10:00:00', $which),
            );
        }
    }

    public function testARuleThatSaysTheDayIsNotMovedToAnother(): void
    {
        $monthly = ['rrule' => 'FREQ=MONTHLY;BYMONTHDAY=1'] + self::WEEKLY;
        self::assertCount(7, self::moved($monthly, '2026-07-01T17:00:00', '2026-07-01T08:00:00', '2026-07-01T09:00:00', 'all'));
        $this->expectExceptionMessage('Its rule, FREQ=MONTHLY;BYMONTHDAY=1, says the day. Move this one alone, or change the rule.');
        self::moved($monthly, '2026-07-01T17:00:00', '2026-07-02T17:00:00', '2026-07-02T19:00:00', 'all');
    }

    public function testTakingOut(): void
    {
        self::assertSame(['06-01 17:00-19:00', '06-03 17:00-19:00', '06-10 17:00-19:00', '06-15 17:00-19:00', '06-17 17:00-19:00'], self::removed('one'));
        self::assertSame(['06-01 17:00-19:00', '06-03 17:00-19:00'], self::removed('later'));
        self::assertSame([], self::removed('all'));
    }

    public function testAnOccurrenceThatIsNoneAndABookingThatIsNoneAreRefused(): void
    {
        foreach ([['b', '2026-06-02T17:00:00', '/occurrence'], ['c', '2026-06-01T17:00:00', '/booking']] as [$booking, $at, $path]) {
            try {
                BookingEdit::of(self::document(self::WEEKLY), $booking, LocalTime::parse($at), 'one');
                self::fail('It was taken.');
            } catch (Refused $e) {
                self::assertSame($path, $e->path);
            }
        }
    }

    /**
     * @param 'one'|'later'|'all' $which
     * @return list<string>
     */
    private static function removed(string $which): array
    {
        return self::told(BookingEdit::of(self::document(self::WEEKLY), 'b', LocalTime::parse('2026-06-08T17:00:00'), $which)->removed());
    }

    /**
     * @param array<string, mixed> $booking
     * @param 'one'|'later'|'all' $which
     * @return list<string>
     */
    private static function moved(array $booking, string $occurrence, string $start, string $end, string $which): array
    {
        $edit = BookingEdit::of(self::document($booking), 'b', LocalTime::parse($occurrence), $which);

        return self::told($edit->moved(LocalTime::parse($start), LocalTime::parse($end), 'new', Instant::parse('2026-06-01T12:00:00Z')->ms));
    }

    /**
     * @param array<string, mixed> $booking
     * @return array<string, mixed>
     */
    private static function document(array $booking): array
    {
        $booking = array_filter(['id' => 'b', 'plays' => ['layout' => 'x'], 'rank' => 'weekly'] + $booking, static fn (mixed $value): bool => $value !== null);

        return ['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'Europe/Lisbon', 'bookings' => [$booking]];
    }

    /**
     * @param array<string, mixed> $document
     * @return list<string>
     */
    private static function told(array $document): array
    {
        $clock = WallClock::in('Europe/Lisbon');
        $told = [];
        foreach (Schedule::fromArray($document)->bookings as $booking) {
            foreach ($booking->occurrences($clock, LocalTime::parse('2026-06-01T00:00')->seconds, LocalTime::parse('2027-01-01T00:00')->seconds) as [$from, $to]) {
                $told[] = gmdate('m-d H:i', $clock->local($from)) . gmdate('-H:i', $clock->local($to));
            }
        }
        sort($told);

        return $told;
    }
}
