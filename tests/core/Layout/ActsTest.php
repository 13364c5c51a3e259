<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Arrange\Acts;
use UpperPane\Core\Layout\Arrange\Arranged;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Layout;
use UpperPane\Tests\Core\Make;

/**
 * What hands do to elements: begun, put in, taken out, stacked, in the layout and in its variants.
 *
 * @phpstan-import-type Doc from Make
 */
final class ActsTest extends TestCase
{
    public function testWhatIsBegunCanBeSeenAndGetsAnIdOfItsOwn(): void
    {
        $layout = Layout::fromArray(Make::layout([Make::zone('zone2', 0, 0, 10, 10)]));
        $rect = ['x' => 100, 'y' => 100, 'width' => 600, 'height' => 200];
        foreach (Kinds::names() as $kind) {
            $known = ['picture' => ['media' => ['name' => 'a.png', 'width' => 16, 'height' => 9]], 'board' => ['rows' => ['source' => 's']], 'chart' => ['rows' => ['source' => 's']]][$kind] ?? null;
            $fields = $known === null ? [] : ['fields' => $known];
            $done = self::done($layout, null, ['do' => 'begin', 'kind' => $kind, 'rect' => $rect] + $fields);
            $layout = $done->layout;
            self::assertSame(["{$kind}1"], $done->chosen);
            self::assertSame($rect, $layout->element("{$kind}1")?->toArray()['rect'] ?? null);
        }
        self::assertSame(['zone3'], self::done($layout, null, ['do' => 'begin', 'kind' => 'zone', 'rect' => $rect])->chosen, 'two are taken');
        $style = $layout->toArray()['elements'][2]['style'];
        self::assertSame(['Inter', 90, 600, '#ffffff'], [$style['family'], $style['size_px'], $style['weight'], $style['color']], 'a twelfth of the canvas at most');
        self::refuses(Reason::FieldMissing, $layout, ['do' => 'begin', 'kind' => 'picture', 'rect' => $rect]);
        self::refuses(Reason::ValueUnknown, $layout, ['do' => 'begin', 'kind' => 'lamp', 'rect' => $rect]);
    }

    /** A leader and its follower copied together lead and follow each other; a follower alone goes on following; in another layout it follows none. */
    public function testWhatIsPutInKeepsWhatBelongsTogether(): void
    {
        $lead = ['group' => 'pair'] + Make::zone('lead', 0, 0, 100, 50);
        $after = ['group' => 'pair'] + Make::zone('after', 100, 0, 100, 50, null, follows: 'lead');
        $layout = Layout::fromArray(Make::layout([$lead, $after]));
        $both = self::done($layout, null, ['do' => 'insert', 'elements' => [$lead, $after], 'dx' => 20, 'dy' => 30]);
        self::assertSame(['lead2', 'after2'], $both->chosen);
        $copies = array_column($both->layout->toArray()['elements'], null, 'id');
        self::assertSame(['lead2', 'pair2', 'pair2'], [$copies['after2']['follows'], $copies['after2']['group'], $copies['lead2']['group']]);
        self::assertSame([120, 30], [$copies['after2']['rect']['x'], $copies['lead2']['rect']['y']]);
        $one = self::done($layout, null, ['do' => 'insert', 'elements' => [$after], 'dx' => 0, 'dy' => 0])->layout->toArray()['elements'];
        self::assertSame('lead', $one[2]['follows']);
        $elsewhere = self::done(Layout::fromArray(Make::layout([])), null, ['do' => 'insert', 'elements' => [$after], 'dx' => 0, 'dy' => 0]);
        self::assertSame([['after'], false], [$elsewhere->chosen, isset($elsewhere->layout->toArray()['elements'][0]['follows'])]);
    }

    public function testWhatIsTakenOutIsMissedByNobodyAndWhatIsLockedStays(): void
    {
        $bar = ['id' => 'bar', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'fill' => '#000000', 'progress' => ['zone' => 'lead']];
        $fast = ['locked' => true] + Make::zone('fast', 0, 0, 9, 9);
        $layout = Layout::fromArray(Make::layout([Make::zone('lead', 0, 0, 9, 9), Make::zone('after', 9, 0, 9, 9, null, follows: 'lead'), $bar, $fast]));
        $done = self::done($layout, null, ['do' => 'remove', 'elements' => ['lead', 'fast', 'gone']]);
        self::assertSame([['after', 'bar', 'fast'], ['fast'], ['What is locked stays; unlock it first.']], [$done->layout->ids(), $done->chosen, $done->said]);
        $left = $done->layout->toArray()['elements'];
        self::assertSame([false, false], [isset($left[0]['follows']), isset($left[1]['progress'])]);
        self::assertSame([[], []], [self::done($layout, null, ['do' => 'remove', 'elements' => ['after']])->said, self::done($layout, null, ['do' => 'remove', 'elements' => ['after']])->chosen]);
    }

    /** @param list<string> $ids */
    #[TestWith([['a'], 1, 'bacd'])]
    #[TestWith([['a', 'b'], 1, 'cabd'])]
    #[TestWith([['a', 'b'], 9, 'cdab'])]
    #[TestWith([['c', 'd'], -9, 'cdab'])]
    #[TestWith([['b', 'd'], -1, 'bdac'])]
    #[TestWith([['a'], -1, 'abcd'])]
    #[TestWith([['gone'], 1, 'abcd'])]
    public function testTheStackIsChangedForAllThatIsChosen(array $ids, int $by, string $stack): void
    {
        $layout = Layout::fromArray(Make::layout(array_map(static fn (string $id): array => Make::zone($id, 0, 0, 9, 9), ['a', 'b', 'c', 'd'])));
        self::assertSame($stack, implode('', self::done($layout, null, ['do' => 'restack', 'elements' => $ids, 'by' => $by])->layout->ids()));
    }

    public function testAVariantIsMadeOnceAndGoesAgain(): void
    {
        $layout = Layout::fromArray(Make::harbour() + ['recipe' => ['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'areas' => ['main side', 'foot foot']]]);
        $turn = ['do' => 'vary', 'raster' => ['width' => 1080, 'height' => 1920]];
        $made = self::done($layout, null, $turn);
        self::assertSame(['portrait', [], 1536], [$made->variant, $made->said, $made->layout->variants['portrait']->places['main']['rect']->height]);
        $again = self::done($made->layout, null, $turn);
        self::assertSame(['portrait', ['"Layout test" has 1080 x 1920 px already.'], 1], [$again->variant, $again->said, count($again->layout->variants)]);
        self::assertSame([null, 1], [self::done($made->layout, 'portrait', ['do' => 'vary', 'raster' => ['width' => 1920, 'height' => 1080]])->variant, count($made->layout->variants)]);
        $small = self::done($made->layout, null, ['do' => 'vary', 'raster' => ['width' => 540, 'height' => 960], 'name' => 'gate']);
        self::assertSame(['gate', ['portrait', 'gate']], [$small->variant, array_keys($small->layout->variants)]);
        $gone = self::done($made->layout, 'portrait', ['do' => 'drop', 'variant' => 'portrait']);
        self::assertSame([null, false], [$gone->variant, isset($gone->layout->toArray()['variants'])]);
        self::refuses(Reason::RefUnknown, $layout, ['do' => 'remove', 'elements' => []], 'square');
    }

    /** What a variant does not show is neither overwritten by what is new in it, nor moved by its stack. */
    public function testWhatAVariantDoesNotShowStaysAsItIs(): void
    {
        $zones = array_map(static fn (string $id): array => Make::zone($id, 0, 0, 9, 9), ['a', 'zone1', 'b', 'c']);
        $made = self::done(Layout::fromArray(Make::layout($zones)), null, ['do' => 'vary', 'raster' => ['width' => 1080, 'height' => 1920]])->layout;
        $less = self::done($made, 'portrait', ['do' => 'remove', 'elements' => ['zone1']])->layout;
        self::assertSame([['a', 'zone1', 'b', 'c'], ['a', 'b', 'c']], [$less->ids(), $less->seenAs('portrait')->ids()]);
        $more = self::done($less, 'portrait', ['do' => 'begin', 'kind' => 'zone', 'rect' => ['x' => 1, 'y' => 1, 'width' => 5, 'height' => 5]]);
        self::assertSame(['zone2'], $more->chosen);
        self::assertSame(['i1'], array_column($more->layout->toArray()['elements'][1]['playlist']['items'], 'id'), 'what plays in it plays on');
        $stacked = self::done($less, 'portrait', ['do' => 'restack', 'elements' => ['a'], 'by' => 9])->layout;
        self::assertSame([['b', 'zone1', 'c', 'a'], ['b', 'c', 'a']], [$stacked->ids(), $stacked->seenAs('portrait')->ids()]);
        $shown = self::done($less, 'portrait', ['do' => 'start', 'recipe' => ['columns' => '1fr 1fr 1fr 1fr', 'rows' => '1fr', 'areas' => ['a b c zone1']]])->layout;
        self::assertSame(['i1'], array_column($shown->element('zone1')?->toArray()['playlist']['items'] ?? [], 'id'), 'shown again, it plays what it plays');
    }

    public function testWhatIsNoActIsRefusedWithWhatWouldBeRight(): void
    {
        $layout = Layout::fromArray(Make::harbour());
        self::refuses(Reason::ValueUnknown, $layout, ['do' => 'fold']);
        self::refuses(Reason::FieldUnknown, $layout, ['do' => 'retell', 'zones' => []]);
        self::refuses(Reason::FieldMissing, $layout, ['do' => 'cure']);
        self::refuses(Reason::ValueRange, $layout, ['do' => 'restack', 'elements' => [], 'by' => 10_001]);
    }

    /** @param array<string, mixed> $act */
    private static function done(Layout $layout, ?string $variant, array $act): Arranged
    {
        return Acts::done($layout, $variant, Node::root($act));
    }

    /** @param array<string, mixed> $act */
    private static function refuses(Reason $reason, Layout $layout, array $act, ?string $variant = null): void
    {
        try {
            self::done($layout, $variant, $act);
            self::fail('It was done.');
        } catch (Refused $e) {
            self::assertSame($reason, $e->reason);
        }
    }
}
