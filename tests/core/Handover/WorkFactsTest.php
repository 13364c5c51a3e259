<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Handover\WorkFacts;
use UpperPane\Core\Units\Instant;

final class WorkFactsTest extends TestCase
{
    private const NOW = '2026-06-01T10:00:00Z';

    /**
     * @param array<string, ?string> $heard
     * @param list<string> $expected
     * @param array<string> $troubles
     */
    #[DataProvider('works')]
    public function testSaysWhatWaitsForSomebodyWhoIsNotThere(array $heard, array $expected, ?string $oldest = null, int $failed = 0, array $troubles = []): void
    {
        $ms = static fn (?string $at): ?int => $at === null ? null : Instant::parse("2026-06-01T{$at}Z")->ms;
        $facts = new WorkFacts(array_map($ms, $heard), $ms($oldest), $failed, $troubles);
        self::assertSame($expected, array_map(static fn (Finding $one): string => $one->message, $facts->findings(Instant::parse(self::NOW)->ms)));
    }

    /** @return iterable<string, list<mixed>> */
    public static function works(): iterable
    {
        yield 'all is well' => [['probe' => '09:59:10', 'release' => '10:00:00'], []];
        yield 'one was killed' => [['release' => '09:58:59'], ['The worker "release" was heard last at 09:58 UTC: what it works on waits. Start it with bin/start.']];
        yield 'one never came' => [['probe' => null], ['The worker "probe" was never heard: what it works on waits. Start it with bin/start.']];
        yield 'a clock was set back' => [['probe' => '11:00:00'], ['The worker "probe" was heard last at 11:00 UTC: what it works on waits. Start it with bin/start.']];
        yield 'a job waits' => [[], ['A job has waited for 7 min.'], '09:53:00'];
        yield 'a job waits its turn' => [[], [], '09:58:01'];
        yield 'jobs failed' => [[], ['2 jobs failed.'], null, 2];
        yield 'what is done daily failed' => [[], ['What is done daily failed: plans: no room.'], null, 0, ['plans' => 'no room.']];
    }
}
