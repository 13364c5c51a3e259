<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Overlay;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Mark;
use UpperPane\Core\Overlay\Notice;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Overlay\Pace;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Overlay\Spell;
use UpperPane\Core\Overlay\Strip;
use UpperPane\Core\Overlay\Times;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;
use UpperPane\Tests\Core\Make;

/** Overlays as documents: what is refused, where each kind lies, when it is in force, and which is drawn above which (formats-overlays.md). */
final class OverlayTest extends TestCase
{
    /**
     * Worked out by hand from the contract.
     *
     * @param array<string, mixed> $fields
     * @param array{int, int} $canvas
     * @param list<int> $want x, y, width, height
     */
    #[DataProvider('places')]
    public function testItLiesWhereTheContractSays(array $fields, array $canvas, array $want, float $linesPx = 0.0, ?string $squeezedBy = null): void
    {
        $room = Room::whole(Size::px(...$canvas));
        if ($squeezedBy !== null) {
            $strip = self::overlay(OverlayDocuments::strip(edge: $squeezedBy, thickness: 0.1))->lies;
            self::assertInstanceOf(Strip::class, $strip);
            $room = $strip->squeezed($room, 'strip');
        }
        $lies = self::overlay($fields)->lies;
        $rect = match (true) {
            $lies instanceof Mark => $lies->rect($room, $lies->media->size),
            $lies instanceof Strip => $lies->rect($room),
            $lies instanceof Notice => $lies->rect($room, $linesPx),
            default => self::fail('It has no place of its own.'),
        };
        self::assertSame($want, array_values($rect->toArray()));
    }

    /** @return iterable<string, array{0: array<string, mixed>, 1: array{int, int}, 2: list<int>, 3?: float, 4?: string}> */
    public static function places(): iterable
    {
        $full = [1920, 1080];
        yield 'a mark of 400 x 120 above at the left' => [OverlayDocuments::mark(corner: 'top-left', size: 0.1, inset: 0.02), $full, [22, 22, 360, 108]];
        yield 'below at the right' => [OverlayDocuments::mark(corner: 'bottom-right', size: 0.1, inset: 0.02), $full, [1538, 950, 360, 108]];
        yield 'shares are of the shorter side' => [OverlayDocuments::mark(corner: 'bottom-left', size: 0.1, inset: 0.05), [1080, 1920], [54, 1758, 360, 108]];
        yield 'each length is rounded alone, half up' => [OverlayDocuments::mark(corner: 'top-right', size: 0.0125, inset: 0.0125), [400, 100], [395, 1, 4, 1]];
        yield 'width and height from exact figures' => [OverlayDocuments::mark(corner: 'top-left', size: 0.125, inset: 0.0), [300, 100], [0, 0, 42, 13]];
        yield 'it keeps off a strip that squeezes' => [OverlayDocuments::mark(corner: 'bottom-right', size: 0.1, inset: 0.0), $full, [1560, 864, 360, 108], 0.0, 'bottom'];
        yield 'at the left too' => [OverlayDocuments::mark(corner: 'top-left', size: 0.1, inset: 0.0), $full, [192, 0, 360, 108], 0.0, 'left'];
        yield 'a strip at the foot' => [OverlayDocuments::strip(thickness: 0.1), $full, [0, 972, 1920, 108]];
        yield 'at the right, of the width' => [OverlayDocuments::strip(edge: 'right', thickness: 0.05), $full, [1824, 0, 96, 1080]];
        yield 'a second one that squeezes lies on the first' => [OverlayDocuments::strip(thickness: 0.05), $full, [0, 918, 1920, 54], 0.0, 'bottom'];
        yield 'an upright one beside it is as long as what is left' => [OverlayDocuments::strip(edge: 'left', thickness: 0.1), $full, [0, 0, 192, 972], 0.0, 'bottom'];
        yield 'a notice above in the middle' => [OverlayDocuments::notice(place: 'top', width: 0.3, padding: 0.02), $full, [672, 54, 576, 101], 57.6];
        yield 'its odd px lies to the right' => [OverlayDocuments::notice(place: 'middle', width: 0.5), [101, 51], [25, 20, 51, 10], 10.0];
        yield 'below at the right, off the strip' => [OverlayDocuments::notice(place: 'bottom-right', width: 0.25), $full, [1386, 868, 480, 50], 50.0, 'bottom'];
        yield 'one that moves goes from edge to edge' => [OverlayDocuments::notice(place: 'bottom-right', width: 0.25, moves: 'to-left', speed_px_s: 60), $full, [0, 1030, 1920, 50], 50.0];
    }

    public function testStripsThatLeaveNothingAreRefused(): void
    {
        $strip = self::overlay(OverlayDocuments::strip(thickness: 0.5))->lies;
        self::assertInstanceOf(Strip::class, $strip);
        $half = $strip->squeezed(Room::whole(Size::px(1920, 1080)), 'one');
        $this->expectExceptionObject(DocumentRefused::because(Reason::ValueRange, 'The strip "two" leaves nothing of 1920 x 540 px for what plays.', '/thickness'));
        $strip->squeezed($half, 'two');
    }

    /** @param array<string, mixed> $fields */
    #[DataProvider('wrong')]
    public function testWhatIsWrongIsRefusedWhereItStands(array $fields, string $path, string $reason): void
    {
        try {
            self::overlay($fields);
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame([$path, $reason], [$e->path, $e->reason->value], $e->getMessage());
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> */
    public static function wrong(): iterable
    {
        $mark = OverlayDocuments::mark();
        $from = static fn (string $start, string $end): array => ['bookings' => [['start' => $start, 'end' => $end]]];
        yield 'no kind' => [array_diff_key($mark, ['kind' => 1]), '/kind', 'field.missing'];
        yield 'a kind that is none' => [['kind' => 'banner'] + $mark, '/kind', 'value.unknown'];
        yield 'a field of another kind' => [['edge' => 'top'] + $mark, '/edge', 'field.unknown'];
        yield 'no time at which it was made' => [array_diff_key($mark, ['created' => 1]), '/created', 'field.missing'];
        yield 'a mark that is a film' => [['media' => ['name' => 'a.mp4', 'width' => 2, 'height' => 2, 'length_ms' => 9]] + $mark, '/media', 'value.unknown'];
        yield 'a mark of no size' => [['size' => 0] + $mark, '/size', 'value.range'];
        yield 'a strip that runs across its edge' => [['direction' => 'up'] + OverlayDocuments::strip(), '/direction', 'value.unknown'];
        yield 'an upright one that runs to the left' => [['direction' => 'to-left'] + OverlayDocuments::strip(edge: 'left'), '/direction', 'value.unknown'];
        yield 'a message that is none' => [['text' => '{to', 'message' => true] + OverlayDocuments::strip(), '/text', 'message.syntax'];
        yield 'rows without a message' => [['rows' => ['source' => 's']] + OverlayDocuments::strip(), '/rows', 'field.unknown'];
        yield 'no text in any language' => [['text' => new \stdClass()] + OverlayDocuments::strip(), '/text', 'value.range'];
        yield 'a language that is none' => [['text' => ['english, please' => 'x']] + OverlayDocuments::notice(), '/text/english, please', 'value.range'];
        yield 'type without a size' => [['style' => ['color' => '#ffffff']] + OverlayDocuments::notice(), '/style/size_px', 'field.missing'];
        yield 'one that moves without a speed' => [['moves' => 'to-left'] + OverlayDocuments::notice(), '/speed_px_s', 'field.missing'];
        yield 'a place that is none' => [['place' => 'top-middle'] + OverlayDocuments::notice(), '/place', 'value.unknown'];
        yield 'a window of a list' => [['plays' => ['playlist' => 'a']] + OverlayDocuments::window(), '/plays/playlist', 'value.unknown'];
        yield 'a window that is too loud' => [['volume' => 101] + OverlayDocuments::window(), '/volume', 'value.range'];
        yield 'a takeover without a reason' => [array_diff_key(OverlayDocuments::takeover(), ['reason' => 1]), '/reason', 'field.missing'];
        yield 'a takeover of two things' => [['plays' => ['layout' => 'a', 'media' => 'b']] + OverlayDocuments::takeover(), '/plays', 'value.range'];
        yield 'a time that is none' => [['when' => 'now'] + $mark, '/when', 'value.unknown'];
        yield 'no time' => [['when' => new \stdClass()] + $mark, '/when', 'field.missing'];
        yield 'an end alone' => [['when' => ['until' => '2026-06-01T10:00:00']] + $mark, '/when', 'field.missing'];
        yield 'no bookings' => [['when' => ['bookings' => []]] + $mark, '/when/bookings', 'value.range'];
        yield 'an end before the start' => [['when' => $from('2026-06-01T10:00:00', '2026-06-01T09:00:00')] + $mark, '/when/bookings/0/end', 'value.range'];
        yield 'the same of instants' => [['when' => $from('2026-06-01T10:00:00Z', '2026-06-01T10:00:00Z')] + $mark, '/when/bookings/0/end', 'value.range'];
        $often = $from('2026-06-01T10:00:00', '2026-06-01T11:00:00')['bookings'][0] + ['rrule' => 'FREQ=OFTEN'];
        yield 'a rule that is none' => [['when' => ['bookings' => [$often]]] + $mark, '/when/bookings/0/rrule', 'rrule.wrong'];
        yield 'a mark after items' => [['when' => ['after' => ['every' => 3], 'lasts_ms' => 5000]] + $mark, '/when/after', 'field.unknown'];
        yield 'after items for how long?' => [['when' => ['after' => ['every' => 3]]] + OverlayDocuments::takeover(), '/when/lasts_ms', 'field.missing'];
        yield 'after no items' => [['when' => ['after' => ['every' => 0], 'lasts_ms' => 5000]] + OverlayDocuments::takeover(), '/when/after/every', 'value.range'];
        yield 'how long what?' => [['when' => ['lasts_ms' => 5000] + $from('2026-06-01T10:00:00', '2026-06-01T11:00:00')] + OverlayDocuments::takeover(), '/when/lasts_ms', 'field.unknown'];
    }

    public function testNoTwoHaveOneId(): void
    {
        $this->expectException(DocumentRefused::class);
        Overlays::of(self::overlay(OverlayDocuments::mark()), self::overlay(['kind' => 'mark', 'level' => 2] + OverlayDocuments::mark()));
    }

    /** Within a kind by level, then by when they were made, then by id; a takeover hides all below it. */
    public function testTheyLieOverOneAnotherInOneOrder(): void
    {
        $ids = static fn (array ...$documents): array => array_map(
            static fn (InForce $one): string => $one->overlay->id,
            Overlays::drawn(Overlays::of(...array_map(self::overlay(...), array_values($documents)))->between(WallClock::in('UTC'), 0, 1)[0][2]),
        );
        $mark = static fn (string $id, int $level = 0, string $created = '2026-01-01T00:00:00Z'): array => ['id' => $id, 'level' => $level, 'created' => $created] + OverlayDocuments::mark();
        self::assertSame(['strip', 'notice', 'z', 'b', 'a', 'c'], $ids(
            $mark('c', 1),
            $mark('a', 0, '2026-02-01T00:00:00Z'),
            OverlayDocuments::notice(),
            $mark('b'),
            $mark('z', -1, '2026-03-01T00:00:00Z'),
            OverlayDocuments::strip(),
        ));
        $takeover = static fn (string $id, int $level): array => ['id' => $id, 'level' => $level] + OverlayDocuments::takeover();
        self::assertSame(['high'], $ids($takeover('high', 2), $mark('m'), $takeover('low', 1)));
    }

    /** Speeds go to the nearest half px a refresh, and of two to the faster. */
    public function testALineRunsThroughItsBoxFromJustOutside(): void
    {
        foreach ([[110, null, 120.0], [105, null, 120.0], [104.9, null, 90.0], [3, null, 30.0], [100, 50.0, 100.0], [112.5, 50.0, 125.0], [60, 59.94, 59.94]] as [$wanted, $hz, $want]) {
            self::assertEqualsWithDelta($want, Pace::of($wanted, $hz, false)->speedPxS, 1e-9, "$wanted at $hz");
        }
        $left = Pace::of(120, 60.0, false);
        self::assertSame([18_469, 1920.0, 1860.0], [$left->passMs(1920, 296.24), $left->fromPx(1920, 296.24, 0), $left->fromPx(1920, 296.24, 500)]);
        self::assertSame([1920.0, 1919.88], [$left->fromPx(1920, 296.24, 18_469), $left->fromPx(1920, 296.24, 1 - 18_469)], 'it begins anew, and did so before its anchor');
        $right = Pace::of(120, 60.0, true);
        self::assertSame([-296.24, -236.24], [$right->fromPx(1920, 296.24, 0), round($right->fromPx(1920, 296.24, 500), 6)]);
    }

    public function testAMomentIsLocalOrTheSameEverywhere(): void
    {
        $lisbon = WallClock::in('Europe/Lisbon');
        $spells = static fn (array $when, WallClock $clock): array => array_map(
            static fn (Spell $one): string => Instant::ofMs($one->fromMs) . ' ' . Instant::ofMs($one->toMs),
            self::times($when)->spells($clock, Instant::parse('2026-10-20T00:00:00Z')->ms, Instant::parse('2026-11-01T00:00:00Z')->ms),
        );
        $night = ['bookings' => [['start' => '2026-10-24T22:00:00', 'end' => '2026-10-25T06:00:00']]];
        self::assertSame(['2026-10-24T21:00:00Z 2026-10-25T06:00:00Z'], $spells($night, $lisbon), 'nine hours on the long night');
        self::assertSame(['2026-10-24T22:00:00Z 2026-10-25T07:00:00Z'], $spells($night, WallClock::in('Atlantic/Azores')));
        $now = ['bookings' => [['start' => '2026-10-25T00:30:15.250Z', 'end' => '2026-10-25T01:30:00Z']]];
        self::assertSame($spells($now, $lisbon), $spells($now, WallClock::in('Atlantic/Azores')));
        self::assertSame(['2026-10-25T00:30:15.250Z 2026-10-25T01:30:00Z'], $spells($now, $lisbon), 'also in the hour that comes twice');
        $daily = ['bookings' => [['start' => '2026-10-01T20:00:00', 'end' => '2026-10-01T21:00:00', 'rrule' => 'FREQ=DAILY', 'exdates' => ['2026-10-22']]], 'until' => '2026-10-23T20:30:00'];
        self::assertSame(['2026-10-20T19:00:00Z 2026-10-20T20:00:00Z', '2026-10-21T19:00:00Z 2026-10-21T20:00:00Z', '2026-10-23T19:00:00Z 2026-10-23T19:30:00Z'], $spells($daily, $lisbon));
        self::assertSame(['2026-10-20T00:00:00Z 2026-11-01T00:00:00Z'], $spells(['always'], $lisbon));
        $mixed = ['bookings' => [['start' => '2026-10-24T21:00:00Z', 'end' => '2026-10-25T06:00:00', 'rrule' => 'FREQ=DAILY;COUNT=2']]];
        self::assertSame(['2026-10-24T21:00:00Z 2026-10-25T06:00:00Z', '2026-10-25T22:00:00Z 2026-10-26T06:00:00Z'], $spells($mixed, $lisbon));
    }

    /** Of occurrences that overlap the latest counts: held against looking at each of them at random instants. */
    public function testRandomTimesAnswerAsEachOccurrenceDoes(): void
    {
        $random = Make::random(16);
        $clock = WallClock::in('Europe/Lisbon');
        $day = Instant::parse('2026-06-01T00:00:00Z')->ms;
        for ($n = 0; $n < Make::rounds(60); $n++) {
            [$bookings, $known] = [[], []];
            for ($b = $random->getInt(1, 5); $b > 0; $b--) {
                $start = $day + 60_000 * $random->getInt(0, 2880);
                $end = $start + 60_000 * $random->getInt(1, 900);
                $bookings[] = ['start' => (string) Instant::ofMs($start), 'end' => (string) Instant::ofMs($end)];
                $known[] = [$start, $end];
            }
            $times = self::times(['bookings' => $bookings]);
            [$from, $to] = [$day - 3_600_000, $day + 3 * 86_400_000];
            $spells = $times->spells($clock, $from, $to);
            for ($i = 0; $i < 40; $i++) {
                $at = $from + $random->getInt(0, $to - $from - 1);
                $covering = array_filter($known, static fn (array $one): bool => $one[0] <= $at && $at < $one[1]);
                $want = $covering === [] ? null : max(array_column($covering, 0));
                $mine = array_values(array_filter($spells, static fn (Spell $one): bool => $one->fromMs <= $at && $at < $one->toMs));
                self::assertLessThanOrEqual(1, count($mine), 'spells do not overlap');
                self::assertSame([$want, $want], [$times->at($clock, $at), $mine[0]->anchorMs ?? null]);
            }
        }
    }

    /** @param array<string, mixed> $fields */
    private static function overlay(array $fields): Overlay
    {
        return Overlay::fromArray((array) json_decode((string) json_encode($fields), true));
    }

    /** @param array<mixed> $when */
    private static function times(array $when): Times
    {
        return Times::fromNode(Node::root($when === ['always'] ? 'always' : $when), true);
    }
}
