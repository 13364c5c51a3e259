<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Playback\Course;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\SearchTarget;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/** A track above what plays: everything that is asked of a programme knows it, without a branch of its own. */
final class TrackTest extends TestCase
{
    private const TZ = 'Europe/Lisbon';

    public function testWhatIsDrawnByNightLiesAboveWhateverPlays(): void
    {
        $bare = ShownAt::of($this->programme());
        $under = ShownAt::of($this->programme()->under($this->sign()));
        foreach (['2026-06-01T20:59:59Z' => 0, '2026-06-01T21:00:00Z' => 1, '2026-06-02T04:59:59Z' => 1, '2026-06-02T05:00:00Z' => 0] as $at => $more) {
            $ms = Instant::parse($at)->ms;
            $things = $under->at($ms)->toArray()['things'];
            self::assertCount(count($bare->at($ms)->things) + $more, $things, $at);
            self::assertSame($bare->at($ms)->toArray()['things'], array_slice($things, 0, count($things) - $more), 'what is below is as it was');
            self::assertSame($more === 1 ? 'ferry.png' : null, $more === 1 ? end($things)['media']['name'] : null);
        }
    }

    public function testTheRunSheetAgreesAtEveryInstant(): void
    {
        $random = Make::random(91);
        $programme = $this->programme()->under($this->sign());
        $from = Instant::parse('2026-10-24T00:00:00Z')->ms;
        $sheet = json_decode((string) json_encode(RunSheet::of($programme, null, $from, $from + 3 * 86_400_000)), true);
        $shown = ShownAt::of($programme);
        for ($n = 0; $n < 300; $n++) {
            $at = $from + $random->getInt(0, 3 * 86_400_000 - 1);
            ShownAtTest::assertSameThings($shown->at($at)->toArray()['things'], SheetReader::things($sheet, $at), (string) Instant::ofMs($at));
        }
    }

    public function testItIsHandedOverToldFoundAndCompared(): void
    {
        $programme = $this->programme()->under($this->sign());
        self::assertSame(['day.png', 'ferry.png'], array_map(static fn ($media): string => $media->name, $programme->media()));
        $files = array_fill_keys(['day', 'day.png', 'ferry', 'ferry.png'], ['url' => '/x', 'sha256' => str_repeat('0', 64), 'bytes' => 1, 'type' => 'image/png']);
        $release = Make::release(Display::fromArray(Make::display()), $programme, $files, [])->toArray();
        self::assertStringContainsString('"ferry.png"', (string) json_encode($release));

        $from = Instant::parse('2026-06-01T12:00:00Z')->ms;
        $night = array_values(array_filter(Course::of($programme, $from, $from + 86_400_000)->stretches, static fn ($one): bool => $one->zone === 'night'));
        self::assertSame([['2026-06-01T21:00:00Z', '2026-06-02T05:00:00Z']], array_map(static fn ($one): array => [$one->toArray()['from'], $one->toArray()['to']], $night));
        self::assertSame('2026-06-01T21:00:00Z', FirstShown::of($programme, SearchTarget::media('ferry'), $from)?->toArray()['at']);
        self::assertNull(FirstShown::of($this->programme(), SearchTarget::media('ferry'), $from));

        self::assertSame(['"Sign" lies above.'], $programme->changesFrom($this->programme()));
        self::assertSame(['"Sign" no longer lies above.'], $this->programme()->changesFrom($programme));
        self::assertSame([], $programme->changesFrom($this->programme()->under($this->sign())));
        self::assertNotSame([], $programme->changesFrom($this->programme()->under($this->sign('23:00'))));
    }

    private function programme(): Programme
    {
        return Programme::endless(Make::composed(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [self::picture('day')])])), self::TZ);
    }

    private function sign(string $from = '22:00'): NightSign
    {
        $sign = ['name' => 'Sign'] + Make::layout([Make::zone('s', 1600, 900, 320, 180, [self::picture('ferry', valid: ['hours' => [[$from, '06:00']]])])], id: 'sign');

        return new NightSign('night', Make::composed($sign), self::TZ);
    }

    /** @return array<string, mixed> */
    private static function picture(string $id, mixed ...$more): array
    {
        $picture = Make::picture($id, 320, 180, 10_000, ...$more);
        $picture['media']['id'] = $id;

        return $picture;
    }
}
