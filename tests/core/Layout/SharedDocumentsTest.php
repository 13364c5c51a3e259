<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Arrange\Acts;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/**
 * What is shared: documents that several mention, and what the variants of a layout have in common.
 *
 * @phpstan-import-type Doc from Make
 */
final class SharedDocumentsTest extends TestCase
{
    /** Layouts and lists that are mentioned again and again play as if each stood where it is mentioned. */
    public function testWhatIsMentionedPlaysAsIfItStoodThere(): void
    {
        $random = Make::random(77);
        $surroundings = new Surroundings('Europe/Lisbon');
        $from = Instant::parse('2026-10-24T22:00:00Z')->ms;
        for ($i = 0; $i < Make::rounds(10); $i++) {
            $inner = ['id' => 'inner'] + Make::comingAndGoing($random);
            $outer = ['id' => 'outer'] + Make::layout([Make::zone('a', 0, 0, 400, 300, [['id' => 'n', 'layout' => ['ref' => 'inner'], 'duration_ms' => $random->getInt(500, 9000)]])], 400, 300);
            $items = [['id' => 'x', 'layout' => ['ref' => 'outer'], 'lasts' => 'leader'], ['id' => 'y', 'layout' => ['ref' => 'inner'], 'duration_ms' => 700], Make::picture('z', 16, 9, 900)];
            $list = ['format' => 'upper-pane/playlist@1', 'id' => 'list', 'name' => 'List', 'items' => $items];
            $documents = ['inner' => $inner, 'outer' => $outer, 'list' => $list];
            $mentioning = Make::layout([
                ['playlist' => ['ref' => 'list'], 'standby' => ['layout' => ['ref' => 'inner']]] + Make::zone('one', 0, 0, 960, 540),
                ['playlist' => ['items' => $items], 'follows' => 'one'] + Make::zone('two', 960, 0, 960, 540),
                ['playlist' => ['items' => [Make::picture('p')], 'interleave' => ['every' => 1, 'ref' => 'list']]] + Make::zone('three', 0, 540, 960, 540),
            ]);
            $whole = self::inlined($mentioning, $documents);
            self::assertSame(1, substr_count((string) json_encode($whole), '"ref"'), 'a standby is always mentioned');
            // Extras of another list are known by its id as well.
            $sheet = static fn (array $document, ?Library $library): array => (array) json_decode(strtr((string) json_encode(
                Make::runSheet(Make::composed($document, $library), 0, $surroundings, $from, $from + 86_400_000),
            ), ['"list\\/' => '"', ':list\\/' => ':']), true);
            self::assertEquals($sheet($whole, Library::of([$inner])), $sheet($mentioning, Library::of(array_values($documents))), "round $i");
        }
    }

    /** Whatever hands do in a variant: what it does not show stays as it is, what it shows is what they made, and all of it can be read. */
    public function testActsInVariantsTouchNothingElse(): void
    {
        $random = Make::random(78);
        $done = 0;
        for ($i = 0; $i < Make::rounds(40); $i++) {
            $layout = Layout::fromArray(['name' => "Round $i"] + Make::randomLayout($random));
            $layout = Acts::done($layout, null, Node::root(['do' => 'vary', 'raster' => ['width' => 720, 'height' => 1280]]))->layout;
            for ($n = 0; $n < 12; $n++) {
                $variant = $random->getInt(0, 2) === 0 ? null : 'portrait';
                $seen = $layout->seenAs($variant);
                try {
                    $arranged = Acts::done($layout, $variant, Node::root(self::act($seen, $random)));
                } catch (Refused) {
                    continue;
                }
                $done++;
                $next = $arranged->layout;
                self::assertEquals($next->toArray(), Layout::fromArray($next->toArray())->toArray());
                self::assertEquals($arranged->toArray()['seen'], $next->seenAs($variant)->toArray());
                $hidden = array_diff($layout->ids(), $seen->ids());
                foreach ($variant === null ? [] : $hidden as $id) {
                    if ($next->seenAs($variant)->element($id) === null) {
                        self::assertEquals($layout->element($id)?->toArray(), $next->element($id)?->toArray(), "round $i.$n: \"$id\" is not shown there");
                    }
                }
                foreach ($variant === null ? [] : $seen->ids() as $id) {
                    self::assertNotNull($next->element($id), "round $i.$n: \"$id\" stays in the layout");
                }
                $layout = $next;
            }
        }
        self::assertGreaterThan(200, $done);
    }

    /** @return Doc something that a hand may do to what it sees */
    private static function act(Layout $seen, Randomizer $random): array
    {
        $ids = $seen->ids();
        $one = $ids === [] ? 'none' : $ids[$random->getInt(0, count($ids) - 1)];
        $other = $ids === [] ? 'none' : $ids[$random->getInt(0, count($ids) - 1)];
        $rect = ['x' => $random->getInt(0, 300), 'y' => $random->getInt(0, 300), 'width' => $random->getInt(20, 400), 'height' => $random->getInt(20, 400)];
        $kinds = array_values(array_diff(Kinds::names(), ['picture']));

        return match ($random->getInt(0, 7)) {
            0 => ['do' => 'begin', 'kind' => $kinds[$random->getInt(0, count($kinds) - 1)], 'rect' => $rect],
            1 => ['do' => 'remove', 'elements' => [$one]],
            2 => ['do' => 'restack', 'elements' => [$one, $other], 'by' => $random->getInt(-3, 3)],
            3 => ['do' => 'insert', 'elements' => array_map(static fn (WrittenElement $element): array => $element->toArray(), array_slice($seen->elements, 0, 2)), 'dx' => 20, 'dy' => 20],
            4 => ['do' => 'split', 'zone' => $one, 'into' => 'columns', 'tracks' => '1fr 2fr'],
            5 => ['do' => 'swap', 'zones' => [$one, $other]],
            6 => ['do' => 'cure', 'fix' => ['label' => 'Move it', 'element' => $one, 'rect' => $rect]],
            default => ['do' => 'align', 'zones' => [$one, $other], 'edge' => 'left'],
        };
    }

    /**
     * @param Doc $document
     * @param array<string, Doc> $documents by id
     * @return Doc with each document in the place of its mention
     */
    private static function inlined(array $document, array $documents): array
    {
        $ref = count($document) === 1 ? $document['ref'] ?? null : null;
        if (is_string($ref)) {
            $named = $documents[$ref];

            return self::inlined(isset($named['items']) ? array_intersect_key($named, ['items' => 1]) : $named, $documents);
        }
        if (is_string($document['ref'] ?? null)) {
            // Extras of a list that stands elsewhere.
            return self::inlined(['every' => $document['every'], 'items' => $documents[$document['ref']]['items']], $documents);
        }

        $inlined = array_map(static fn (mixed $value): mixed => is_array($value) ? self::inlined($value, $documents) : $value, $document);

        return array_replace($inlined, array_intersect_key($document, ['standby' => 1]));
    }
}
