<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Handover\NeverShown;
use UpperPane\Core\Playback\FirstShown;

final class NeverShownTest extends TestCase
{
    public function testTheReasonIsToldInAWordAndASentence(): void
    {
        $reasons = [
            ['unattached', 'It rules on no display.', NeverShown::schedule(null)],
            ['unhanded', 'It is not handed over: on Wide something else stands.', NeverShown::schedule('Wide')],
            ['expired', 'It is over.', NeverShown::standing(new FirstShown(null, 'expired', 'it is over'))],
            ['outranked', 'Others go before it.', NeverShown::bySchedule('Hall', 'Wide', new FirstShown(null, 'outranked', 'others go before it'))],
            [
                'unhanded',
                'Not handed over: by schedule "Hall" it would be seen on Wide from 2026-06-01 10:00 UTC.',
                NeverShown::bySchedule('Hall', 'Wide', new FirstShown(1_780_308_000_000, null, 'x')),
            ],
            ['unattached', 'It is handed over to no display, and no layout, playlist or schedule uses it.', NeverShown::usedIn([])],
            ['unhanded', 'It is in "A", which is handed over to no display.', NeverShown::usedIn(['A'])],
            ['unhanded', 'It is in "A", "B", "C" and 2 more, which are handed over to no display.', NeverShown::usedIn(['A', 'B', 'C', 'D', 'E'])],
        ];
        foreach ($reasons as [$never, $says, $told]) {
            self::assertSame(['never' => $never, 'says' => $says], $told->toArray());
        }
    }
}
