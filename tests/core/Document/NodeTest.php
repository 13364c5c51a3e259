<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Tests\Core\Make;

/** @phpstan-import-type Doc from Make */
final class NodeTest extends TestCase
{
    public function testANameIsALine(): void
    {
        self::assertSame('Cais, Saltgate', Node::root('Cais, Saltgate')->name());
        foreach (["a\nb" => 'U+000A after 1', "Mole\x07" => 'U+0007 after 4', "é\x7F" => 'U+007F after 1'] as $name => $said) {
            try {
                Node::root(['name' => $name])->field('name')->name();
                self::fail('It was taken.');
            } catch (DocumentRefused $e) {
                self::assertSame('/name', $e->path);
                self::assertStringContainsString("has the control character $said characters", $e->getMessage());
            }
        }
        self::assertSame("a\nb", Node::root("a\nb")->text(), 'a text may have lines');
    }

    /** @param \Closure(Node): mixed $read */
    #[DataProvider('readings')]
    public function testSaysWhatIsWrongAndWhatWouldBeRight(mixed $value, \Closure $read, ?string $message): void
    {
        $node = Node::root(['field' => $value])->field('field');
        if ($message === null) {
            self::assertNotNull($read($node));

            return;
        }
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('/field' . ($message[0] === '/' ? '' : ' ') . $message);
        $read($node);
    }

    /** @return iterable<string, array{mixed, \Closure(Node): mixed, ?string}> */
    public static function readings(): iterable
    {
        $px = static fn (Node $n): int => $n->int(1, 100, 'px');
        yield 'a whole number' => [7, $px, null];
        yield 'a number with a fraction' => [7.5, $px, 'is 7.5; a whole number of px is right.'];
        yield 'a number in quotes' => ['7', $px, 'is "7"; a whole number of px is right.'];
        yield 'nothing' => [null, $px, 'is null; a whole number of px is right.'];
        yield 'too little' => [0, $px, 'is 0 px; it is at least 1 px.'];
        yield 'too much' => [101, $px, 'is 101 px; it is at most 100 px.'];
        yield 'beyond all reason' => [PHP_INT_MAX, static fn (Node $n): int => $n->int(), 'is 9223372036854775807; it is at most 1099511627776.'];
        yield 'a number for mm' => [0.5, static fn (Node $n): float => $n->positive('mm'), null];
        yield 'none for mm' => [0, static fn (Node $n): float => $n->positive('mm'), 'is 0 mm; it must be above 0.'];
        yield 'less than none for mm' => [-1, static fn (Node $n): float => $n->positive('mm'), 'is -1 mm; it is at least 0 mm.'];
        yield 'a text' => ['Quay', static fn (Node $n): string => $n->text(), null];
        yield 'an empty text' => ['', static fn (Node $n): string => $n->text(), 'has 0 characters; 1 to 200 are right.'];
        yield 'a list for a text' => [[1], static fn (Node $n): string => $n->text(), 'is a list; a text is right.'];
        yield 'accents count once' => [str_repeat('é', 200), static fn (Node $n): string => $n->text(), null];
        yield 'an id' => ['gate-totem_B.2', static fn (Node $n): string => $n->id(), null];
        yield 'an id with a blank' => ['gate b', static fn (Node $n): string => $n->id(), 'is "gate b"; an id has letters, figures, dots, dashes and underscores.'];
        yield 'an id that climbs' => ['../etc', static fn (Node $n): string => $n->id(), 'is "../etc"'];
        yield 'an id with a line end' => ["a\n", static fn (Node $n): string => $n->id(), 'is "a'];
        yield 'yes' => [true, static fn (Node $n): bool => $n->bool(), null];
        yield 'a word for yes' => ['yes', static fn (Node $n): bool => $n->bool(), 'is "yes"; true or false is right.'];
        yield 'one of several' => ['b', static fn (Node $n): string => $n->oneOf('a', 'b'), null];
        yield 'none of them' => ['c', static fn (Node $n): string => $n->oneOf('a', 'b'), 'is "c"; one of a, b is right.'];
        $act = static fn (Node $n): string => $n->act(['move' => ['by'], 'drop' => []]);
        yield 'an act' => [['do' => 'move', 'by' => 1], $act, null];
        yield 'an act nobody knows' => [['do' => 'hop'], $act, '/do is "hop"; one of move, drop is right.'];
        yield 'a field of another act' => [['do' => 'drop', 'by' => 1], $act, '/by is not a known field; known here are do.'];
        yield 'a list' => [[1, 2], static fn (Node $n): array => $n->items(2), null];
        yield 'a list too long' => [[1, 2, 3], static fn (Node $n): array => $n->items(2), 'has 3 entries; at most 2 are read.'];
        yield 'an object for a list' => [['a' => 1], static fn (Node $n): array => $n->items(), 'is an object; a list is right.'];
        yield 'a list for an object' => [[1], static fn (Node $n): Node => $n->object('a'), 'is a list; an object is right.'];
        yield 'a colour' => ['#14665B', static fn (Node $n): Colour => Colour::fromNode($n), null];
        yield 'a colour with its opacity' => ['#14665b80', static fn (Node $n): Colour => Colour::fromNode($n), null];
        yield 'half a colour' => ['#146', static fn (Node $n): Colour => Colour::fromNode($n), 'is "#146"; a colour is #rrggbb or #rrggbbaa.'];
    }

    public function testAColourKnowsWhetherOneSeesThroughIt(): void
    {
        $colour = static fn (string $hex): Colour => Colour::fromNode(Node::root($hex));

        self::assertTrue($colour('#14665b')->isOpaque());
        self::assertTrue($colour('#14665bFF')->isOpaque());
        self::assertFalse($colour('#14665bfe')->isOpaque());
    }

    /** @param Doc $element */
    #[DataProvider('elements')]
    public function testElementsCoverWhatLiesBelowOrDoNot(array $element, bool $covers): void
    {
        $rect = ['x' => 0, 'y' => 0, 'width' => 10, 'height' => 10];
        $layout = Make::composed(Make::layout([$element + ['id' => 'e', 'rect' => $rect]]));

        self::assertSame($covers, $layout->elements[0]->covers());
        self::assertSame($element['kind'], $layout->elements[0]->kind());
    }

    /** @return iterable<string, array{Doc, bool}> */
    public static function elements(): iterable
    {
        yield 'a zone' => [['kind' => 'zone', 'playlist' => ['items' => []]], true];
        yield 'a picture' => [['kind' => 'picture', 'media' => ['name' => 'x', 'width' => 1, 'height' => 1]], true];
        yield 'words' => [['kind' => 'text', 'text' => 'x', 'style' => ['size_px' => 9]], false];
        yield 'an opaque rectangle' => [['kind' => 'shape', 'fill' => '#000000'], true];
        yield 'a rectangle one sees through' => [['kind' => 'shape', 'fill' => '#00000080'], false];
        yield 'a rounded rectangle' => [['kind' => 'shape', 'fill' => '#000000', 'radius_px' => 4], false];
        yield 'an ellipse' => [['kind' => 'shape', 'shape' => 'ellipse', 'fill' => '#000000'], false];
    }

    /** @param Doc $element */
    #[DataProvider('wrongElements')]
    public function testElementsAreRefusedWithTheirPlace(array $element, string $path): void
    {
        $rect = ['x' => 0, 'y' => 0, 'width' => 10, 'height' => 10];
        try {
            Make::composed(Make::layout([$element + ['id' => 'e', 'rect' => $rect]]));
            self::fail('It was read.');
        } catch (Refused $e) {
            self::assertSame("/elements/0$path", $e->path, $e->getMessage());
        }
    }

    /** @return iterable<string, array{Doc, string}> */
    public static function wrongElements(): iterable
    {
        $text = static fn (mixed ...$style): array => ['kind' => 'text', 'text' => 'x', 'style' => $style];
        yield 'words without a size' => [$text(family: 'Inter'), '/style/size_px'];
        yield 'words of no size' => [$text(size_px: 0), '/style/size_px'];
        yield 'a weight that no face has' => [$text(size_px: 9, weight: 1000), '/style/weight'];
        yield 'an alignment that is none' => [$text(size_px: 9, align: 'left'), '/style/align'];
        yield 'lines on top of each other' => [$text(size_px: 9, line_height: 0.1), '/style/line_height'];
        yield 'no words' => [['kind' => 'text', 'style' => ['size_px' => 9]], '/text'];
        yield 'a film as a picture' => [['kind' => 'picture', 'media' => ['name' => 'x', 'width' => 1, 'height' => 1, 'length_ms' => 9]], '/media'];
        yield 'a media of no width' => [['kind' => 'picture', 'media' => ['name' => 'x', 'width' => 0, 'height' => 1]], '/media/width'];
        yield 'a shape without colour' => [['kind' => 'shape'], '/fill'];
        yield 'a shape of another kind' => [['kind' => 'shape', 'fill' => '#000000', 'shape' => 'star'], '/shape'];
        yield 'a zone without a list' => [['kind' => 'zone'], '/playlist'];
        yield 'no kind' => [[], '/kind'];
        yield 'no place' => [['kind' => 'shape', 'fill' => '#000000', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1]], '/rect/height'];
        foreach (['stream', 'live', 'web'] as $later) {
            yield "a $later, which is not drawn yet" => [['kind' => $later], '/kind'];
        }
    }

    public function testARecipeIsCarriedAndItsShapeIsLookedAt(): void
    {
        $recipe = ['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'gap' => 0, 'margin' => 0, 'areas' => ['main side', 'foot foot']];
        self::assertSame('test', Make::composed(['recipe' => $recipe] + Make::harbour())->id);
        foreach ([['columns' => 7], ['gap' => -1], ['areas' => 'main'], ['tracks' => '1fr']] as $wrong) {
            try {
                Make::composed(['recipe' => $wrong] + Make::harbour());
                self::fail('It was read.');
            } catch (Refused $e) {
                self::assertStringStartsWith('/recipe/', $e->path);
            }
        }
    }
}
