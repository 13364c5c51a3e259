<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/**
 * A layout and its variants under the hands of the composer: what is shared, what each keeps for itself (web/src/Layout/composer/variants.ts).
 * Putting in, taking out and making variants is the core's (ActsTest, VariantsTest).
 */
final class VariantHandsTest extends TestCase
{
    public function testEachIsSeenAsALayoutOfItsOwn(): void
    {
        self::assertSame([[['main', 5, 0], ['head', 6, 40]], 1080, [null, null], [['main', 0, 0], ['head', 10, 72], ['foot', 20, 0]], false], Scene::of('variants.ts', 'seenAsLayouts'));
    }

    public function testPlacesAndSizesStayApartAndContentIsShared(): void
    {
        self::assertSame([[['main', 0, 0], ['head', 10, 72], ['foot', 20, 0]], [['main', 5, 0], ['head', 300, 44]], 'Hello', 700, 72], Scene::of('variants.ts', 'shared'));
    }

    public function testACanvasAndItsLinesAreItsOwnAndANameIsShared(): void
    {
        self::assertSame([[40, 12, 'New'], [null, null, 'New'], [null, 12, 'New']], Scene::of('variants.ts', 'ownLines'));
    }

    /** A leader that the variant does not show leads on in the layout, whatever is changed of its follower. */
    public function testWhatFollowsALeaderThatIsNotSeenGoesOnFollowingIt(): void
    {
        self::assertSame(['main', 'Side', null], Scene::of('variants.ts', 'unseenLeader'));
    }
}
