<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Data;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\NetworkCost;
use UpperPane\Core\Data\Outline;
use UpperPane\Core\Data\Path\JsonPath;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Data\SourceStatus;
use UpperPane\Core\Document\Node;

/** How a source stands, what it costs, and what it is made of. */
final class SourceStatusTest extends TestCase
{
    private const NOW = 1_780_000_000_000;

    public function testHowASourceStands(): void
    {
        $source = self::source(['from' => ['address' => 'https://quay.example/'], 'every_s' => 60, 'timeout_s' => 10, 'stale_after_s' => 600]);
        $ago = static fn (int $s): int => self::NOW - 1000 * $s;
        $status = static fn (?int $taken, ?int $failing = null): string => SourceStatus::of($source, $taken, $failing, self::NOW)->value;
        self::assertSame(['empty', 'failing'], [$status(null), $status(null, $ago(5))]);
        self::assertSame(['fresh', 'late', 'late', 'stale'], [$status($ago(130)), $status($ago(131)), $status($ago(600)), $status($ago(601))]);
        self::assertSame(['failing', 'stale'], [$status($ago(61), $ago(1)), $status($ago(601), $ago(540))]);
        $typed = self::source(['from' => ['table' => []]]);
        self::assertSame('fresh', SourceStatus::of($typed, $ago(9_999_999), null, self::NOW)->value, 'what is typed is never late');
        $finding = SourceStatus::Failing->finding($source, $ago(61), $ago(7_300), 'The server answers 500.', self::NOW);
        self::assertSame('"S" fails for 2 h: The server answers 500.', $finding?->message);
        self::assertNull(SourceStatus::Fresh->finding($source, $ago(1), null, null, self::NOW));
    }

    public function testWhatFetchingCosts(): void
    {
        $every = NetworkCost::of(60_000, 1_000.0);
        self::assertSame(['fetches_h' => 60.0, 'bytes_h' => 60_000, 'half' => 30_000], $every->toArray());
        self::assertSame(['fetches_h' => 62.0, 'bytes_h' => 60_100, 'half' => 30_050], NetworkCost::sum($every, NetworkCost::of(1_800_000, 50.0), NetworkCost::of(null, 5.0))->toArray());
        self::assertSame(0.0, NetworkCost::sum()->bytesH);
    }

    public function testPathsOfAnOutlineLeadToWhatItTells(): void
    {
        $tree = json_decode('{"a b": [{"x": 1, "it\'s": [1, "2"]}, {"x": "2026-06-01", "it\'s": null}], "deep": [[{"y": true}], []]}');
        $paths = [];
        $open = [Outline::of($tree)];
        while ($open !== []) {
            $level = array_shift($open);
            self::assertIsString($level['path']);
            $nodes = JsonPath::parse($level['path'])->nodes($tree);
            self::assertCount($level['count'], array_filter($nodes, static fn (mixed $node): bool => $node !== null), $level['path']);
            $paths[$level['path']] = $level['types'];
            array_push($open, ...$level['levels']);
        }
        self::assertSame(['number' => 1, 'figure' => 1], $paths["\$['a b'][*]['it\\'s'][*]"]);
        self::assertSame(['number' => 1, 'date' => 1], $paths["\$['a b'][*].x"]);
        self::assertSame(['boolean' => 1], $paths['$.deep[*][*].y']);
        self::assertSame(['list' => 2], $paths['$.deep[*]']);
    }

    /** @param array<string, mixed> $document */
    private static function source(array $document): Source
    {
        return Source::fromNode(Node::root(['format' => Source::FORMAT, 'id' => 's', 'name' => 'S'] + $document));
    }
}
