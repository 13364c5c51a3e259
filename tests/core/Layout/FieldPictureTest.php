<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\LayoutChanges;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Pictures that a field of a row means.
 *
 * @phpstan-import-type Doc from Make
 */
final class FieldPictureTest extends TestCase
{
    private const ROWS = [
        ['to' => 'Tolm', 'photo' => 'tolm.png', 'at' => '1970-01-01T00:00:10Z'],
        ['to' => 'Vennick', 'photo' => 'gone.png', 'at' => '1970-01-01T00:00:20Z'],
        ['to' => 'Pellan', 'photo' => null, 'at' => '1970-01-01T00:00:30Z'],
    ];
    private const LEAVING = ['source' => 's', 'where' => [['field' => 'at', 'is' => 'upcoming', 'to_min' => 60]]];

    /** Of the first of its rows: another one as soon as that is another row, its standby where that means none. */
    public function testItShowsWhatItsFirstRowMeans(): void
    {
        $shown = self::shown([self::picture(['rows' => self::LEAVING])]);
        self::assertSame(['Tolm', 'Tolm', 'none', 'none', 'none'], array_map($shown, [0, 9_999, 10_000, 20_000, 30_000]));
        // It is fitted by its own size.
        $layout = self::composed([self::picture(['rows' => self::LEAVING])]);
        $things = ShownAt::of(Programme::endless($layout), self::surroundings())->at(0)->toArray()['things'];
        self::assertSame([['x' => 0, 'y' => 50, 'width' => 200, 'height' => 100]], array_column($things, 'drawn'));
    }

    public function testInAPatternItIsThatOfTheRowAndInAnItemThatOfItsRow(): void
    {
        $pattern = ['size' => ['width' => 400, 'height' => 200], 'elements' => [self::picture(), Make::told('to', '{to}', 400, 100)]];
        $board = ['id' => 'b', 'kind' => 'board', 'rect' => ['x' => 0, 'y' => 0, 'width' => 400, 'height' => 600], 'rows' => ['source' => 's'], 'pattern' => $pattern];
        $things = ShownAt::of(Programme::endless(self::composed([$board])), self::surroundings())->at(0)->toArray()['things'];
        $pictures = array_values(array_filter($things, static fn (array $one): bool => $one['kind'] === 'picture'));
        self::assertSame([['b', 0, 'photo', 'Tolm'], ['b', 1, 'photo', 'none'], ['b', 2, 'photo', 'none']], array_map(
            static fn (array $one): array => [$one['element'], $one['row'], $one['part'], $one['media']['name']],
            $pictures,
        ));
        $item = ['id' => 'e', 'each' => ['source' => 's'], 'duration_ms' => 1000, 'layout' => Make::layout([self::picture()], id: 'offer')];
        $shown = self::shown([Make::zone('z', 0, 0, 400, 300, [$item])], 1);
        self::assertSame(['Tolm', 'none', 'none', 'Tolm'], array_map($shown, [0, 1000, 2000, 3000]));
    }

    public function testASheetTellsAllThatItShowsAndWhatIsMissingIsCounted(): void
    {
        $layout = self::composed([self::picture(['rows' => self::LEAVING])]);
        $media = RunSheet::mediaIn(RunSheet::of(Programme::endless($layout), self::surroundings(), 0, 60_000)['layers']);
        self::assertSame(['tolm' => 'Tolm', 'none' => 'none'], array_map(static fn (Media $one): string => $one->name, $media));
        self::assertSame(['Tolm', 'none'], array_map(static fn (Media $one): string => $one->name, $layout->media()));

        $found = array_values(array_filter(Checks::run($layout, self::surroundings(15_000))->all, static fn (Finding $one): bool => $one->code === 'data.missing'));
        self::assertSame([], $found, 'looked at when Tolm stands there');
        $later = Make::composed(Make::layout([self::picture(['rows' => self::LEAVING])]), null, self::surroundings(15_000));
        $found = array_values(array_filter(Checks::run($later, self::surroundings(15_000))->all, static fn (Finding $one): bool => $one->code === 'data.missing'));
        self::assertSame([['photo'], 1, 0], [$found[0]->measure['arguments'], $found[0]->measure['count'], $found[0]->measure['row']]);
        self::assertSame([], LayoutChanges::between($layout, $later), 'what data mean is no change of the design');
        $other = self::composed([['media' => ['field' => 'photo', 'standby' => self::media('other', 'other')]] + self::picture(['rows' => self::LEAVING])]);
        self::assertNotSame([], LayoutChanges::between($layout, $other));
    }

    /** @param Doc $picture */
    #[DataProvider('wrong')]
    public function testWhatCannotBeIsRefused(array $picture, string $path): void
    {
        try {
            self::composed([$picture]);
            self::fail('It was not refused.');
        } catch (Refused $e) {
            self::assertSame("/elements/0$path", $e->path);
        }
    }

    /** @return iterable<string, array{Doc, string}> */
    public static function wrong(): iterable
    {
        yield 'rows of a picture that is always the same' => [['media' => self::media('a', 'a')] + self::picture(['rows' => self::LEAVING]), '/rows'];
        yield 'no standby' => [['media' => ['field' => 'photo']] + self::picture(), '/media/standby'];
        yield 'no name' => [['media' => ['field' => '9', 'standby' => self::media('a', 'a')]] + self::picture(), '/media/field'];
        yield 'a film' => [['media' => ['field' => 'photo', 'standby' => ['length_ms' => 9] + self::media('a', 'a')]] + self::picture(), '/media/standby'];
        yield 'a crop' => [['crop' => ['x' => 0, 'y' => 0, 'width' => 1, 'height' => 1]] + self::picture(), '/crop'];
        yield 'another field' => [self::picture(['rows' => ['source' => 's', 'fields' => ['to' => '$.to']]]), '/media/field'];
    }

    /**
     * @param array<string, mixed> $more
     * @return Doc
     */
    private static function picture(array $more = []): array
    {
        $media = ['field' => 'photo', 'standby' => self::media('none', 'none')];

        return ['id' => 'photo', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 0, 'width' => 200, 'height' => 200]] + $more + ['media' => $media];
    }

    /** @return Doc */
    private static function media(string $id, string $name): array
    {
        return ['id' => $id, 'name' => $name, 'width' => 100, 'height' => 100];
    }

    private static function surroundings(int $atMs = 0): Surroundings
    {
        $pictures = ['tolm.png' => Media::of('Tolm', Size::px(400, 200), null, 'tolm'), 'gone.png' => Media::of('f', Size::px(1, 1), 5, 'film')];
        $feeds = Feeds::of(['s' => [new Snapshot(Make::tree(self::ROWS))]], pictures: $pictures);

        return (new Surroundings('UTC', new Typewriter(), atMs: $atMs))->fed($feeds);
    }

    /** @param list<Doc> $elements */
    private static function composed(array $elements): Composed
    {
        return Make::composed(Make::layout($elements), null, self::surroundings());
    }

    /**
     * @param list<Doc> $elements
     * @return \Closure(int): string name of the media of a thing, by instant
     */
    private static function shown(array $elements, int $place = 0): \Closure
    {
        $shown = ShownAt::of(Programme::endless(self::composed($elements)), self::surroundings());

        return static fn (int $ms): string => $shown->at($ms)->toArray()['things'][$place]['media']['name'] ?? '';
    }
}
