<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Display;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Migrations\Version20261127020000;
use UpperPane\Tests\Core\Make;

/** Walls of LED cabinets that were surveyed before such a wall was one output are fed as they were. */
final class LedOutputsTest extends TestCase
{
    public static function setUpBeforeClass(): void
    {
        require_once __DIR__ . '/../../../app/migrations/Version20261127020000.php';
    }

    public function testAStoredLedWallKeepsTheOutputsOfItsPanels(): void
    {
        $stored = Make::wall(2, 1, technology: 'led', players: [['id' => 'a']]);
        self::assertCount(1, Feed::of(Display::fromArray($stored)), 'surveyed now it would be one output');
        $said = Version20261127020000::withOutputs($stored);
        self::assertNotNull($said);
        $feeds = static fn (array $wall): array => array_map(static fn (Feed $feed): array => [$feed->player, $feed->output, $feed->panels], Feed::of(Display::fromArray($wall)));
        self::assertSame([['a', 1, ['A1']], ['a', 2, ['A2']]], $feeds($said));
        self::assertSame($feeds(['technology' => 'lcd'] + $stored), $feeds($said));
        self::assertNull(Version20261127020000::withOutputs($said), 'once');
        self::assertNull(Version20261127020000::withOutputs(['technology' => 'lcd'] + $stored));
        self::assertNull(Version20261127020000::withOutputs(['processor' => ['output' => 1]] + $stored));
        self::assertNull(Version20261127020000::withOutputs(['technology' => 'led'] + Make::display()));
    }
}
