<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Elements and items that are there only while rows of data are chosen.
 *
 * @phpstan-import-type Doc from Make
 */
final class WhenTest extends TestCase
{
    private const ROWS = [['to' => 'Tolm', 'from' => '1970-01-01T00:00:05Z'], ['to' => 'Vennick', 'from' => '1970-01-01T00:00:20Z']];

    /** Chosen are those that leave within 5 s: Tolm from 0 to 5 s, Vennick from 15 to 20 s. */
    private const SOON = ['source' => 's', 'where' => [['field' => 'from', 'is' => 'upcoming', 'to_min' => 5 / 60]]];

    public function testAnElementIsDrawnOnlyWhileRowsAreChosen(): void
    {
        $text = Make::told('t', 'Hurry', message: false, when: ['rows' => self::SOON]);
        $else = Make::told('e', 'No hurry', message: false, when: ['rows' => self::SOON, 'at_most' => 0]);
        $told = static fn (int $at): array => array_column(self::shown([$text, $else], $at), 'text');
        self::assertSame([['Hurry'], ['Hurry'], ['No hurry'], ['Hurry'], ['No hurry']], array_map($told, [0, 4999, 5000, 15_000, 20_000]));
        // The limit does not count: how many are chosen before it does.
        $many = ['when' => ['rows' => ['source' => 's', 'limit' => 1], 'at_least' => 2]] + Make::told('m', 'Both', message: false);
        self::assertSame(['Both'], array_column(self::shown([$many], 0), 'text'));
    }

    /** An item comes and goes like one with hours: the one that runs ends, then what is due follows. */
    public function testAnItemIsDueOnlyWhileRowsAreChosen(): void
    {
        $zone = Make::zone('z', 0, 0, 100, 100, [Make::picture('a', durationMs: 4000), Make::picture('b', durationMs: 3000, when: ['rows' => self::SOON])]);
        $surroundings = self::surroundings(Make::fed(self::ROWS));
        $layout = Make::composed(Make::layout([$zone]), null, $surroundings);
        $slots = array_map(static fn (array $slot): string => substr($slot['from'], 17, -1) . ' ' . $slot['item'], Timeline::of($layout, 0, 26_000)['zones'][0]['segments']);
        self::assertSame(['00 a', '04 b', '07 a', '11 a', '15 b', '18 a', '22 a'], $slots);
        self::assertTrue($layout->isTurning());
    }

    public function testASourceThatIsNotThereIsFoundOrRefused(): void
    {
        $text = Make::told('t', 'Hurry', message: false, when: ['rows' => ['source' => 'other']]);
        $surroundings = self::surroundings(Make::fed([]));
        $found = Checks::run(Make::composed(Make::layout([$text]), null, $surroundings), $surroundings)->all;
        self::assertContains('data.unknown', array_map(static fn (Finding $one): string => $one->code, $found));
        self::refused([$text], '/elements/0/when/rows/source', true);
        self::refused([Make::zone('z', 0, 0, 9, 9, [Make::picture('a', when: ['rows' => ['source' => 'other']])])], '/elements/0/playlist/items/0/when/rows/source', true);
    }

    /** @param array<string, mixed> $when */
    #[DataProvider('wrong')]
    public function testWhatCannotBeReadIsRefused(array $when, string $path): void
    {
        self::refused([Make::told('t', 'x', message: false, when: $when)], "/elements/0/when$path");
    }

    /** @return iterable<array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        yield [[], '/rows'];
        yield [['rows' => ['source' => 's'], 'at_least' => 3, 'at_most' => 2], '/at_most'];
        yield [['rows' => ['source' => 's'], 'at_least' => -1], '/at_least'];
        yield [['rows' => ['source' => 's'], 'never' => true], '/never'];
    }

    /** @param list<Doc> $elements */
    private static function refused(array $elements, string $path, bool $isStrict = false): void
    {
        try {
            Make::composed(Make::layout($elements), null, self::surroundings(Make::fed([], isStrict: $isStrict)));
            self::fail('refused');
        } catch (Refused $e) {
            self::assertSame($path, $e->path);
        }
    }

    /**
     * @param list<Doc> $elements
     * @return list<array<string, mixed>>
     */
    private static function shown(array $elements, int $at): array
    {
        $surroundings = self::surroundings(Make::fed(self::ROWS));

        return Make::shownAt(Make::composed(Make::layout($elements), null, $surroundings), 0, $surroundings)->at($at)->toArray()['things'];
    }

    private static function surroundings(Feeds $feeds): Surroundings
    {
        return (new Surroundings('UTC', new Typewriter()))->fed($feeds);
    }
}
