<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Drawing\Drawings;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * Every kind of element is whole: it is read, written, scaled, copied, drawn, has a schema and stands in the docs; and nobody else asks for a kind by its name.
 *
 * @phpstan-import-type Doc from Make
 */
final class KindsTest extends TestCase
{
    private const ROOT = __DIR__ . '/../../..';

    public function testEveryKindIsReadWrittenDrawnAndDescribed(): void
    {
        $examples = self::examples();
        self::assertSame(Kinds::names(), array_keys($examples), 'a new kind has an example here');
        self::assertSame(Kinds::names(), Drawings::kinds());
        $schemas = array_map(static fn (array $schema): mixed => $schema['properties']['kind']['const'] ?? null, Kinds::schemas());
        self::assertSame(Kinds::names(), $schemas);
        $desk = (string) file_get_contents(self::ROOT . '/web/src/Layout/kinds/kinds.ts');
        preg_match('/KINDS: ElementKind\[\] = \[([a-z, ]+)\]/', $desk, $table);
        self::assertEqualsCanonicalizing(Kinds::names(), explode(', ', $table[1] ?? ''), 'each has its fields and its tool in the composer');
        $docs = (string) file_get_contents(self::ROOT . '/docs/development.md') . file_get_contents(self::ROOT . '/docs/formats/layout.schema.json');
        foreach ($examples as $kind => $document) {
            $element = Kinds::read(Node::root($document));
            self::assertSame([$kind, $document['id']], [$element->kind(), $element->id()]);
            self::assertEquals($document, json_decode((string) json_encode($element->toArray()), true), $kind);
            $scaled = $element->scaled(Rect::at(0, 0, 200, 100), 2.0);
            self::assertSame([200, 100], [$scaled->rect()->width, $scaled->rect()->height], $kind);
            self::assertSame('copy', $element->renamed([$element->id() => 'copy'], [])->id(), $kind);
            self::assertTrue($element->changed(['hidden' => true])->isHidden(), $kind);
            self::assertStringContainsString("\"const\": \"$kind\"", $docs, $kind);

            $things = Make::shownAt(Make::composed(Make::layout([$document])), 0, new Surroundings('UTC', new Typewriter()))->at(0)->things;
            self::assertNotSame([], $things, "$kind is drawn");
            self::assertSame($document['id'], $things[0]->part->element);
        }
    }

    /** Kinds know what they are; who needs to know asks through an interface, so that a new kind is a folder and two entries. */
    public function testNobodyAsksForAKindByItsName(): void
    {
        $names = implode('|', Kinds::names());
        $classes = implode('|', array_map(ucfirst(...), Kinds::names()));
        $patterns = [
            "/kind(?:\\(\\)|'\\])?\\s*[!=]==?\\s*['\"](?:$names)['\"]/",
            "/['\"](?:$names)['\"]\\s*[!=]==?\\s*[^;]*\\bkind\\b/",
            "/instanceof\\s+(?:$classes|PlayingZone)\\b/",
            "/\\b(?:$classes)::KIND\\b/",
            "/\\bkind(?:\\.value)?\\s*[!=]==?\\s*'(?:$names)'/",
            "/\\bcase\\s+'(?:$names)'/",
        ];
        $found = [];
        foreach (['core/src', 'app/src', 'web/src'] as $folder) {
            $files = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(self::ROOT . "/$folder", \FilesystemIterator::SKIP_DOTS));
            foreach ($files as $file) {
                assert($file instanceof \SplFileInfo);
                $path = substr($file->getPathname(), strlen(self::ROOT) + 1);
                // The rooms of the kinds: what they are, how they are drawn, their fields in the composer. Media have kinds of their own.
                if (!in_array($file->getExtension(), ['php', 'ts', 'vue'], true) || preg_match('~^(core/src/(Layout/Kind|Playback/Drawing)|web/src/(Layout/kinds|Media))/~', $path) === 1) {
                    continue;
                }
                $code = (string) preg_replace('~^\s*(?:\*|//|/\*).*$|assert\(.*?\);~m', '', (string) file_get_contents($file->getPathname()));
                foreach ($patterns as $pattern) {
                    if (preg_match($pattern, $code, $m) === 1) {
                        $found[] = "$path: $m[0]";
                    }
                }
            }
        }
        self::assertSame([], $found);
    }

    /** @return array<string, Doc> */
    private static function examples(): array
    {
        $rect = ['x' => 0, 'y' => 0, 'width' => 100, 'height' => 50];
        $style = ['size_px' => 12];

        return [
            'zone' => Make::zone('z', 0, 0, 100, 50, [Make::picture('a')]),
            'text' => ['id' => 't', 'kind' => 'text', 'rect' => $rect, 'text' => 'Saltgate', 'style' => $style],
            'picture' => ['id' => 'p', 'kind' => 'picture', 'rect' => $rect, 'media' => ['name' => 'a.png', 'width' => 20, 'height' => 10]],
            'shape' => ['id' => 's', 'kind' => 'shape', 'rect' => $rect, 'shape' => 'rectangle', 'fill' => '#ffffff'],
            'clock' => ['id' => 'c', 'kind' => 'clock', 'rect' => $rect, 'pattern' => 'HH:mm', 'style' => $style],
            'code' => ['id' => 'k', 'kind' => 'code', 'rect' => $rect, 'text' => 'QUAY 2'],
            'ticker' => ['id' => 'l', 'kind' => 'ticker', 'rect' => $rect, 'text' => 'Boats back at 22:10', 'speed_px_s' => 60, 'style' => $style],
            'board' => ['id' => 'b'] + Make::board('{to}', 50, 20, 100, header: ['height' => 10, 'elements' => [['id' => 'h', 'kind' => 'text', 'rect' => $rect, 'text' => 'To', 'style' => $style]]]),
            'chart' => ['id' => 'v', 'kind' => 'chart', 'rect' => $rect, 'rows' => ['source' => 's'], 'type' => 'columns', 'value' => 'waves', 'style' => $style],
            'programme' => ['id' => 'o', 'kind' => 'programme', 'rect' => $rect],
        ];
    }
}
