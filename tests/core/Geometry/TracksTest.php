<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Geometry;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Tests\Core\Make;

final class TracksTest extends TestCase
{
    /** @param list<int> $sizes */
    #[TestWith(['7fr 3fr', 1920, 0, [1344, 576]], 'the trade\'s main and side')]
    #[TestWith(['7fr 3fr', 1366, 0, [956, 410]], 'whole px by largest remainder')]
    #[TestWith(['repeat(3, 1fr)', 1000, 0, [334, 333, 333]], 'ties go to the earlier track')]
    #[TestWith(['repeat(3,1fr)', 1001, 0, [334, 334, 333]])]
    #[TestWith(['1fr 1fr', 101, 8, [47, 46]], 'a gap is taken off first')]
    #[TestWith(['50% 50%', 100, 10, null], 'percentages are of the length without the gap taken off')]
    #[TestWith(['25% 1fr', 1000, 10, [250, 740]])]
    #[TestWith(['.25fr .25fr', 100, 0, [25, 25]], 'shares that add up to less than 1 leave the rest')]
    #[TestWith(['216px 1fr', 1080, 0, [216, 864]])]
    #[TestWith(['minmax(100px, 300px) 1fr', 500, 0, [300, 200]], 'what may grow does so before shares are given')]
    #[TestWith(['minmax(100px, 300px) 1fr', 200, 0, [200, 0]])]
    #[TestWith(['minmax(400px, 1fr) 1fr', 600, 0, [400, 200]], 'a share under its least keeps its least')]
    #[TestWith(['minmax(300px, 100px)', 300, 0, [300]], 'the least wins')]
    #[TestWith(['0 1FR 10PX', 100, 0, [0, 90, 10]], 'capitals and a bare 0')]
    #[TestWith(['1e2px +1fr', 150, 0, [100, 50]], 'figures as CSS writes them')]
    #[TestWith(['2000px', 1920, 0, null], 'more than there is')]
    public function testALengthIsDividedAsCssDoesIt(string $text, int $length, int $gap, ?array $sizes): void
    {
        if ($sizes === null) {
            $this->expectException(Refused::class);
            $this->expectExceptionMessage('px too many');
        }
        self::assertSame($sizes, array_column(Tracks::parse($text)->solve($length, $gap), 'size'));
    }

    /** What cannot be read is refused with the place of the fault. */
    #[TestWith(['', 'has no track'])]
    #[TestWith(['1fr auto', '"auto" at character 5 cannot be read'])]
    #[TestWith(['1fr [main] 2fr', '"[main] 2fr" at character 5'])]
    #[TestWith(['calc(1px)', 'cannot be read'])]
    #[TestWith(['1fr 5', 'has no unit'])]
    #[TestWith(['1fr 5em', 'at character 5 cannot be read'])]
    #[TestWith(['-1fr', 'is negative'])]
    #[TestWith(['1.fr', 'cannot be read'])]
    #[TestWith(['minmax(1fr, 2fr)', '"1fr, 2fr)" at character 8 has fr as the least'])]
    #[TestWith(['minmax(1px 2px)', 'wants a "," here'])]
    #[TestWith(['minmax(auto, 2px)', 'at character 8 cannot be read'])]
    #[TestWith(['repeat(2, repeat(2, 1fr))', 'at character 11 has a repeat within a repeat'])]
    #[TestWith(['repeat(auto-fill, 1fr)', 'wants a whole number of repetitions'])]
    #[TestWith(['repeat(0, 1fr)', 'wants a whole number of repetitions'])]
    #[TestWith(['repeat(2, )', 'repeats no track'])]
    #[TestWith(['repeat(2, 1fr', 'at its end, wants a ")"'])]
    #[TestWith(['repeat(600, 1fr 1fr)', 'comes to 1200 tracks'])]
    #[TestWith(['1fr1fr', 'cannot be read'])]
    #[TestWith(['1fr)', 'at character 4 wants a space'])]
    #[TestWith(['99999999fr', 'is more than 1000000'])]
    public function testWhatIsNoDivisionIsRefusedAtItsPlace(string $text, string $said): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage($said);
        Tracks::parse($text);
    }

    /** Property: whatever is divided, the parts add up and none is further than 1 px from its fraction. */
    public function testWholePxAddUp(): void
    {
        $random = Make::random(41);
        for ($i = 0; $i < 300; $i++) {
            $count = $random->getInt(1, 12);
            $parts = array_map(static fn (): int => $random->getInt(1, 99), range(1, $count));
            [$length, $gap] = [$random->getInt(400, 6000), $random->getInt(0, 20)];
            $solved = Tracks::parse(implode(' ', array_map(static fn (int $fr): string => "{$fr}fr", $parts)))->solve($length, $gap);
            $room = $length - $gap * ($count - 1);
            self::assertSame($room, array_sum(array_column($solved, 'size')));
            $at = 0;
            foreach ($solved as $index => $track) {
                self::assertSame($at, $track['start']);
                self::assertLessThan(1.0, abs($track['size'] - $room * $parts[$index] / array_sum($parts)));
                $at += $track['size'] + $gap;
            }
        }
    }
}
