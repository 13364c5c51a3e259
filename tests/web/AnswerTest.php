<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** What the core is asked of something that is being typed (scenes/answer.ts). */
final class AnswerTest extends TestCase
{
    public function testItIsAskedOnceTheHandRests(): void
    {
        self::assertSame(['a!', 'a!', 'abcd!', ['a', 'abcd']], Scene::of('answer.ts', 'rests'));
    }

    public function testTheNewestQuestionHoldsAndTheOneBeforeIsBrokenOff(): void
    {
        self::assertSame(['b!', [true, false], 'b!', [true, false, true]], Scene::of('answer.ts', 'newest'));
    }

    public function testWhatMayPassIsAskedAgainAndWhatIsRefusedIsTold(): void
    {
        self::assertSame([
            [], '', 'The server does not answer. What you changed is kept in this window.', null,
            '', 'a!', ['a', 'a'],
            'Name is empty.', 'a!', ['a', 'a', 'b'],
        ], Scene::of('answer.ts', 'troubles'));
    }
}
