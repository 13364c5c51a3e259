<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** A pointer that drags and may give up, and arrows that go through a grid (scenes/hands.ts). */
final class HandsTest extends TestCase
{
    public function testASlipIsAPress(): void
    {
        self::assertSame([[['end', 12, false]], true, false], Scene::of('hands.ts', 'slips'));
    }

    public function testOnePointerIsFollowedToItsEnd(): void
    {
        self::assertSame([14, 10, ['end', 11, true]], Scene::of('hands.ts', 'drags'));
    }

    public function testEscapeAPointerTakenAwayAndAPageThatGoesGiveUpWhatWasDragged(): void
    {
        self::assertSame([[11, 'reverted'], true, ['reverted'], ['reverted']], Scene::of('hands.ts', 'isGivenUp'));
    }

    public function testALineIsCutWhereItHasNoRoom(): void
    {
        self::assertSame(['Tolm', 'Tolm Ma…', 'Tolm…', '⛴⛴…', '', ''], Scene::of('hands.ts', 'cutLines'));
    }

    public function testArrowsGoFromCellToCell(): void
    {
        self::assertSame([
            [[0, 1], null, null, [2, 1], [2, 0]],
            [[2, 1], [2, 1], [0, 2], null, null],
            [[0, 0], [0, 2], [0, 0], [2, 2], null],
            20,
        ], Scene::of('hands.ts', 'arrows'));
    }
}
