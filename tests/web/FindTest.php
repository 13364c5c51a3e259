<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** What Ctrl + K finds (web/src/ui/find.ts), and lists that grow (web/src/ui/growing.ts). */
final class FindTest extends TestCase
{
    private const ALL = [
        ['kind' => 'display', 'name' => 'Check-in 1', 'more' => '1920 × 1080 px, Saltgate Quay, Departure hall'],
        ['kind' => 'display', 'name' => 'Deck strip', 'more' => '1920 × 540 px, Vessels, Tolm Maid'],
        ['kind' => 'layout', 'name' => 'Deck strip, Tolm Maid', 'more' => '1920 × 540'],
        ['kind' => 'layout', 'name' => 'Gate totem', 'more' => '1080 × 1920'],
        ['kind' => 'picture', 'name' => 'pão-de-ló.png', 'more' => 'picture, 640 × 480'],
        ['kind' => 'action', 'name' => 'Draw a zone', 'more' => 'Z'],
    ];

    /** @param list<string> $names */
    #[TestWith(['deck', ['Deck strip', 'Deck strip, Tolm Maid']])]
    #[TestWith(['DECK maid', ['Deck strip, Tolm Maid', 'Deck strip']])]
    #[TestWith(['maid deck', ['Deck strip, Tolm Maid', 'Deck strip']])]
    #[TestWith(['deck strip', ['Deck strip', 'Deck strip, Tolm Maid']])]
    #[TestWith(['layout', ['Deck strip, Tolm Maid', 'Gate totem']])]
    #[TestWith(['1920', ['Check-in 1', 'Deck strip', 'Deck strip, Tolm Maid', 'Gate totem']])]
    #[TestWith(['in 1', ['Check-in 1']])]
    #[TestWith(['PAO', ['pão-de-ló.png']])]
    #[TestWith(['zone', ['Draw a zone']])]
    #[TestWith(['totem check', []])]
    #[TestWith(['[.*', []])]
    public function testFindsByTheBeginningsOfWords(string $typed, array $names): void
    {
        self::assertSame($names, array_column((array) (new Module('ui/find.ts'))->call('find', self::ALL, $typed), 'name'));
    }

    public function testNothingTypedFindsTheFirst(): void
    {
        [$two, $all] = (new Module('ui/find.ts'))->calls([['find', [self::ALL, ' ', 2]], ['find', [self::ALL, '']]]);

        self::assertSame(['Check-in 1', 'Deck strip'], array_column((array) $two, 'name'));
        self::assertCount(6, (array) $all);
    }

    public function testWhatIsOpenOffersItsActionsAsLongAsItStands(): void
    {
        self::assertSame([['Undo', 'Draw'], ['Undo', 'Redo', 'Draw'], []], Scene::of('lists.ts', 'actions'));
    }

    public function testAListShowsItsFirstAndSaysHowManyAreLeft(): void
    {
        self::assertSame([[[1, 2, 3], 2], [[7], 0], [['a', 'b'], 2, [['hall', ['a', 'b'], 4]]]], Scene::of('lists.ts', 'grown'));
    }
}
