<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback\Report;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Playback\Report\Batch;
use UpperPane\Core\Playback\Report\Heard;
use UpperPane\Core\Playback\Report\Machine;
use UpperPane\Core\Playback\Report\Report;
use UpperPane\Core\Playback\Report\Seen;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** What players say of themselves, `upper-pane/report@1`. */
final class ReportTest extends TestCase
{
    private const SEEN = [
        'id' => 'main:i3', 'element' => 'main', 'item' => 'i3', 'media' => 'quay.mp4', 'quarter' => '2026-06-01T10:00:00Z',
        'first' => '2026-06-01T10:03:00Z', 'last' => '2026-06-01T10:14:59.500Z', 'times' => 12, 'ms' => 118_000, 'missed' => 1, 'missed_ms' => 10_500,
    ];
    private const REPORT = [
        'format' => Report::FORMAT, 'release' => 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa', 'since' => '2026-06-01T10:00:00Z',
        'trouble' => '"quay.mp4" cannot be decoded (main, i3)',
        'troubles' => [['of' => 'part main:i3', 'says' => '"quay.mp4" cannot be decoded', 'element' => 'main', 'item' => 'i3'], ['of' => 'sound', 'says' => 'Held back.']],
        'output' => 2, 'build' => 'b1', 'every_s' => 300,
        'clock_ms' => -2300, 'heap_bytes' => 12_000_000, 'films' => 2, 'kept_bytes' => 512_000, 'room_bytes' => 20_000_000_000, 'persists' => false,
        'answers' => [['map' => 'post', 'state' => 'greeting', 'why' => 'far', 'since' => '2026-06-01T10:03:00.250Z']],
        'took' => ['01k2', '01k1'],
        'heard' => [['said' => ['sensor' => 'b1', 'button' => '7'], 'last' => '2026-06-01T10:03:00Z', 'times' => 3, 'known' => false]],
        'batch' => ['id' => '7', 'lost' => 0, 'seen' => [self::SEEN]],
    ];

    public function testWhatIsReadIsWrittenAndFitsTheSchema(): void
    {
        self::assertSame(self::REPORT, Report::read(Node::root(self::REPORT))->toArray());
        self::assertTrue(self::fits(self::REPORT));
    }

    public function testPagesBuiltBeforeItHadANameAreUnderstood(): void
    {
        $before = ['release' => null, 'since' => null, 'trouble' => null, 'output' => null, 'build' => 'b0', 'every_s' => 10];
        $report = Report::read(Node::root($before));
        self::assertSame([null, [], null, 'b0', []], [$report->release, $report->troubles, $report->batch, $report->build, $report->machine->says()]);
        self::assertTrue(self::fits($before));
    }

    public function testWhatWasHeardIsRememberedOnceForEachThing(): void
    {
        $heard = static fn (array $said, int $s): Heard => Heard::read(Node::root(['said' => $said, 'last' => sprintf('2026-06-01T10:00:%02dZ', $s), 'times' => $s, 'known' => false]));
        $together = Heard::together(
            [$heard(['sensor' => 's1', 'mm' => 500], 1), $heard(['sensor' => 'b1', 'button' => '7'], 2), $heard(['sensor' => 'b1', 'button' => '8'], 9)],
            [$heard(['sensor' => 's1', 'mm' => null], 5), $heard(['button' => '7', 'sensor' => 'b1'], 4)],
        );
        self::assertSame([['8', 9], [null, 5], ['7', 4]], array_map(static fn (Heard $one): array => [$one->said['button'] ?? null, $one->times], $together));
        $many = array_map(static fn (int $n): Heard => $heard(['key' => "K$n"], $n), range(1, 59));
        self::assertSame(['K59', Heard::MOST], [Heard::together($many, [])[0]->said['key'], count(Heard::together($many, []))]);
    }

    /** @param array<string, mixed> $wrong */
    #[DataProvider('wrong')]
    public function testRefuses(array $wrong, string $path): void
    {
        $report = array_replace_recursive(self::REPORT, $wrong);
        self::assertFalse(self::fits($report), 'the schema refuses it as well');
        try {
            Report::read(Node::root($report));
            self::fail('It was read.');
        } catch (DocumentRefused $e) {
            self::assertSame($path, $e->path);
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        yield 'another format' => [['format' => 'upper-pane/report@2'], '/format'];
        yield 'no hash' => [['release' => 'x'], '/release'];
        yield 'an unknown field' => [['mood' => 'good'], '/mood'];
        yield 'a state that has no name' => [['answers' => [['state' => '']]], '/answers/0/state'];
        yield 'something never heard' => [['heard' => [['times' => 0]]], '/heard/0/times'];
        yield 'an output that cannot be' => [['output' => 0], '/output'];
        yield 'fewer than none' => [['batch' => ['seen' => [['times' => -1]]]], '/batch/seen/0/times'];
        yield 'no sentence' => [['troubles' => [['says' => '']]], '/troubles/0/says'];
    }

    /** More than a quarter of an hour in one, or an instant that is none: the schema, which knows only figures and text, lets it be. */
    public function testRefusesWhatNoQuarterOfAnHourHolds(): void
    {
        foreach (['ms' => 5_000_000, 'first' => 'yesterday'] as $field => $wrong) {
            try {
                Seen::read(Node::root([$field => $wrong] + self::SEEN));
                self::fail($field);
            } catch (DocumentRefused $e) {
                self::assertSame("/$field", $e->path);
            }
        }
        $this->expectException(DocumentRefused::class);
        Batch::read(Node::root(['id' => '1', 'seen' => array_fill(0, 201, self::SEEN)]));
    }

    /** Lisbon is an hour ahead of UTC in June, Kathmandu five hours and three quarters. */
    public function testADayIsThatOfThePlaceWhereItHangs(): void
    {
        $at = static fn (string $first): Seen => Seen::read(Node::root(['first' => $first] + self::SEEN));
        $days = static fn (string $timezone, string ...$firsts): array => array_map(static fn (string $first): string => $at($first)->day(WallClock::in($timezone)), $firsts);
        self::assertSame(['2026-06-01', '2026-06-02'], $days('Europe/Lisbon', '2026-06-01T22:45:00Z', '2026-06-01T23:00:00Z'));
        self::assertSame(['2026-06-01', '2026-06-02'], $days('Asia/Kathmandu', '2026-06-01T18:00:00Z', '2026-06-01T18:15:00Z'));
    }

    public function testWhatWasSeenIsAddedUp(): void
    {
        $one = Seen::read(Node::root(self::SEEN));
        $later = Seen::read(Node::root(['first' => '2026-06-01T10:15:00Z', 'last' => '2026-06-01T10:16:00Z', 'media' => null, 'times' => 1, 'ms' => 500] + self::SEEN));
        $both = $later->and($one);
        self::assertSame([13, 118_500, 2, 21_000, 'quay.mp4'], [$both->times, $both->ms, $both->missed, $both->missedMs, $both->media]);
        self::assertSame(['2026-06-01T10:03:00Z', '2026-06-01T10:16:00Z'], [(string) Instant::ofMs($both->firstMs), (string) Instant::ofMs($both->lastMs)]);
    }

    public function testAMachineIsToldInSentences(): void
    {
        self::assertSame([
            'Its clock is 2.3 s slow.',
            'It keeps 512 kB of the 20.0 GB that its browser lets it keep.',
            'Its browser may throw away what is kept when the disk gets full: let it keep data for good.',
            'Its page holds 12.0 MB of memory, 2 films loaded.',
        ], Report::read(Node::root(self::REPORT))->machine->says());
        self::assertSame(['Its clock is right to the second.'], (new Machine(clockMs: 900))->says());
        // 1 June 2026, and a clock that says 1 January 1970.
        $empty = Report::read(Node::root(['release' => null, 'clock_ms' => -1_780_272_000_000]))->machine;
        self::assertSame(['Its clock is 20605.0 days slow.'], $empty->says());
    }

    public function testALongSentenceIsCut(): void
    {
        $report = Report::read(Node::root(['trouble' => str_repeat('x', 900)] + self::REPORT));
        self::assertSame(300, mb_strlen((string) $report->trouble));
    }

    /** @param array<string, mixed> $report */
    private static function fits(array $report): bool
    {
        $validator = new Validator();
        $schema = json_decode((string) file_get_contents(dirname(__DIR__, 4) . '/docs/formats/report.schema.json'));

        return $validator->validate(json_decode((string) json_encode($report)), $schema)->isValid();
    }
}
