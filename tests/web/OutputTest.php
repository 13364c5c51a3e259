<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** Which output of a display a page of its player is (web/src/player/output.ts). */
final class OutputTest extends TestCase
{
    public function testAPageKnowsWhichOutputItIs(): void
    {
        $output = static fn (?string $player, int $number): array => ['player' => $player, 'output' => $number, 'panels' => ["p$number"]];
        $outputs = [$output('a', 1), $output('a', 2), $output('b', 1)];
        $found = (new Module('player/output.ts'))->calls([
            ['thisOutput', [$outputs, 'a', 2]],
            ['thisOutput', [$outputs, 'b', null]],
            ['thisOutput', [$outputs, 'a', null]],
            ['thisOutput', [$outputs, 'b', 2]],
            ['thisOutput', [[$output(null, 1)], null, null]],
        ]);

        self::assertSame(['p2', 'p1', null, null, 'p1'], array_map(static fn (?array $one): ?string => $one['panels'][0] ?? null, $found));
    }
}
