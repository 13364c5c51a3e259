<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Units;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Units\TypedTime;

/** Times as people type them. */
final class TypedTimeTest extends TestCase
{
    #[TestWith(['8', 8000])]
    #[TestWith([' 8.5 ', 8500])]
    #[TestWith(['12,5 s', 12_500], 'a decimal comma')]
    #[TestWith(['.5', 500])]
    #[TestWith(['2m', 120_000])]
    #[TestWith(['2 MIN', 120_000])]
    #[TestWith(['1 h 5 min', 3_900_000])]
    #[TestWith(['1h5m30s', 3_930_000])]
    #[TestWith(['250 ms', 250])]
    #[TestWith(['0.0005', 1], 'halves of a ms go up')]
    #[TestWith(['0:08', 8000])]
    #[TestWith(['1:30', 90_000])]
    #[TestWith(['90:00', 5_400_000])]
    #[TestWith(['1:02:03.5', 3_723_500])]
    #[TestWith(['86400', 86_400_000])]
    public function testWhatIsTypedIsUnderstood(string $text, int $ms): void
    {
        self::assertSame($ms, TypedTime::ms($text));
    }

    #[TestWith(['', 'Nothing is typed'])]
    #[TestWith(['soon', '"soon": that is no time'])]
    #[TestWith(['0', 'nothing lasts so short'])]
    #[TestWith(['0:00', 'nothing lasts so short'])]
    #[TestWith(['-3', 'that is no time'])]
    #[TestWith(['0:8', 'that is no time'])]
    #[TestWith(['1:75', 'that is no time'])]
    #[TestWith(['1:5:00', 'that is no time'])]
    #[TestWith(['5m 1h', 'that is no time'], 'the larger unit goes first')]
    #[TestWith(['3 weeks', 'that is no time'])]
    #[TestWith(['1 2', 'that is no time'])]
    #[TestWith(['٣', 'that is no time'])]
    #[TestWith(['99999999 d', 'longer than anything lasts'])]
    public function testWhatIsNoneIsRefusedInWords(string $text, string $why): void
    {
        try {
            TypedTime::ms($text);
            self::fail($text);
        } catch (DocumentRefused $e) {
            self::assertStringContainsString($why, $e->getMessage());
            self::assertStringContainsString('0:08 are right', $e->getMessage());
        }
    }
}
