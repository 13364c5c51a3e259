<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Text;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Text\TimePattern;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Tests\Core\Make;

/** Times in words. Outside reference: ICU itself (IntlDateFormatter, with its own copy of the tz database). */
final class TimePatternTest extends TestCase
{
    private const PATTERNS = ['HH:mm', 'H:mm:ss', 'h:mm a', 'EEEE, d MMMM y', "EEE d. MMM yy, HH 'h' mm", 'dd/MM/yyyy', "K:mm a ''k''", 'LLLL yyyy', 'cccc', "d 'de' MMMM 'de' y", 'MMMMM E'];
    private const LOCALES = ['en', 'en-GB', 'pt-PT', 'el', 'ru', 'de', 'ar-EG', 'ja', 'fa'];
    private const ZONES = ['Europe/Lisbon', 'Atlantic/Azores', 'America/New_York', 'Australia/Lord_Howe', 'Pacific/Chatham', 'Asia/Kolkata', 'UTC'];

    public function testAClockSaysWhatIcuSays(): void
    {
        $random = Make::random(2411);
        foreach (self::LOCALES as $locale) {
            foreach (self::PATTERNS as $text) {
                $pattern = TimePattern::ofClock(Node::root($text), $locale);
                $zone = self::ZONES[$random->getInt(0, count(self::ZONES) - 1)];
                $offsets = UtcOffsets::of($zone);
                $icu = new \IntlDateFormatter($locale, \IntlDateFormatter::NONE, \IntlDateFormatter::NONE, $zone, \IntlDateFormatter::GREGORIAN, $text);
                for ($i = 0; $i < 12; $i++) {
                    $at = $random->getInt(1_700_000_000, 2_200_000_000);
                    self::assertSame($icu->format($at), $pattern->at($at * 1000 + $offsets->at($at * 1000)), "$text in $locale, $zone at $at");
                }
            }
        }
    }

    /** From `zdump -v -c 2026,2027`: Lisbon goes from UTC+1 to UTC on 25 October 2026 at 01:00 UTC, Lord Howe from +10:30 to +11 on 3 October at 15:30 UTC. */
    #[TestWith(['Europe/Lisbon', '2026-10-25T00:59:59', 3600])]
    #[TestWith(['Europe/Lisbon', '2026-10-25T01:00:00', 0])]
    #[TestWith(['Australia/Lord_Howe', '2026-10-03T15:29:59', 37_800])]
    #[TestWith(['Australia/Lord_Howe', '2026-10-03T15:30:00', 39_600])]
    #[TestWith(['Asia/Kolkata', '1999-01-01T00:00:00', 19_800])]
    public function testOffsetsChangeWhenTheZoneDoes(string $zone, string $utc, int $seconds): void
    {
        self::assertSame($seconds * 1000, UtcOffsets::of($zone)->at((int) strtotime("$utc UTC") * 1000));
    }

    #[TestWith(["d 'days' HH:mm:ss", 90_061_000, '1 days 01:01:01'])]
    #[TestWith(['mm:ss', 7_261_000, '121:01', 'the largest that stands there takes all'])]
    #[TestWith(['s', 1, '1', 'a second that has begun counts'])]
    #[TestWith(['H', 3_599_999, '1', 'an hour that has begun counts'])]
    #[TestWith(['HH:mm:ss', -5, '00:00:00'])]
    #[TestWith(['d H', 0, '0 0'])]
    public function testTheTimeThatIsLeft(string $pattern, int $ms, string $says): void
    {
        self::assertSame($says, TimePattern::ofTimeLeft(Node::root($pattern), 'en')->left($ms));
    }

    #[TestWith(['HH:mm Q', false, 'character 7'])]
    #[TestWith(["HH 'o", false, 'quote at character 4'])]
    #[TestWith(['yyy', false, '"yyy"'])]
    #[TestWith(['y', true, 'd, H, m and s'])]
    #[TestWith(['', false, '0 characters'])]
    public function testWhatNoClockTellsIsRefusedWithItsPlace(string $pattern, bool $left, string $says): void
    {
        $this->expectException(Refused::class);
        $this->expectExceptionMessage($says);
        $left ? TimePattern::ofTimeLeft(Node::root($pattern), 'en') : TimePattern::ofClock(Node::root($pattern), 'en');
    }

    public function testTheLongestHasTheWidestNamesAndFigures(): void
    {
        $letters = static fn (string $word): float => mb_strlen($word);
        $longest = static fn (string $pattern): string => TimePattern::ofClock(Node::root($pattern), 'en')->longest($letters);
        self::assertSame('Wednesday, 00 September 0000', $longest('EEEE, d MMMM y'));
        self::assertSame('00:00 AM', $longest('h:mm a'));
        self::assertSame('000 00', TimePattern::ofTimeLeft(Node::root('d H'), 'en')->longest($letters));
        $wide8 = static fn (string $word): float => substr_count($word, '8') + 1.0;
        self::assertSame('88', TimePattern::ofClock(Node::root('HH'), 'en')->longest($wide8));
    }
}
