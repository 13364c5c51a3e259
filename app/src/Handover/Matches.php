<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Connection;
use UpperPane\App\Account\Reach;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\MeantFor;
use UpperPane\Core\Layout\Matching;

/** How each layout sits on each display: matched once for each canvas and raster, since many share them. */
final readonly class Matches
{
    public function __construct(private Connection $connection, private Reach $reach)
    {
    }

    /** @return array<string, mixed> */
    public function all(): array
    {
        // The canvas of each layout, and those of its variants.
        $layouts = $this->connection->fetchAllAssociative(
            "SELECT id, name, CONCAT('[', JSON_EXTRACT(document, '$.canvas'), ',', COALESCE(JSON_EXTRACT(document, '$.variants[*].canvas'), '[]'), ']') AS size
             FROM design WHERE kind = 'layout' AND {$this->reach->condition('design', 'id')} ORDER BY name, id",
        );
        $displays = $this->connection->fetchAllAssociative(
            "SELECT s.id, JSON_VALUE(s.summary, '$.name') AS name, s.place_id AS place, JSON_EXTRACT(s.summary, '$.raster') AS size
             FROM surveyed_display s WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
        );
        [$canvases, $rasters] = [self::sizes($layouts), self::sizes($displays)];

        return [
            'layouts' => self::told($layouts, $canvases),
            'displays' => self::told($displays, $rasters),
            'canvases' => array_map(static fn (array $sizes): array => $sizes[0]->toArray(), array_values($canvases)),
            'rasters' => array_map(static fn (array $sizes): array => $sizes[0]->toArray(), array_values($rasters)),
            'matches' => array_map(
                static fn (array $variants): array => array_map(static function (array $raster) use ($variants): array {
                    $match = Matching::of($variants[Matching::bestOf($variants, $raster[0])], $raster[0]);

                    return [$match->verdict->value, round($match->scale, 4), round($match->used(), 4), $match->swapped];
                }, array_values($rasters)),
                array_values($canvases),
            ),
        ];
    }

    /**
     * @param string $variant id, '' for the layout itself
     * @param ?string $seen id of the display that it is looked at on
     * @return list<string> ids of the displays that somebody means who hands over the variant that he is working on
     */
    public function meantFor(string $id, string $variant, ?string $seen): array
    {
        $layout = $this->connection->fetchAssociative(
            "SELECT JSON_EXTRACT(document, '$.canvas') AS canvas, COALESCE(JSON_EXTRACT(document, '$.variants'), '[]') AS variants FROM design
             WHERE kind = 'layout' AND id = ? AND {$this->reach->condition('design', 'id')}",
            [$id],
        );
        if ($layout === false) {
            throw Problem::notFound('This layout');
        }
        $variants = Node::fromJson(is_string($layout['variants']) ? $layout['variants'] : '[]')->items();
        $own = Size::fromNode(Node::fromJson(is_string($layout['canvas']) ? $layout['canvas'] : '{}'));
        $canvases = [$own, ...array_map(static fn (Node $one): Size => Size::fromNode($one->field('canvas')), $variants)];
        $place = array_search($variant, array_map(static fn (Node $one): string => $one->field('id')->text(), $variants), true);
        $rows = $this->connection->fetchAllAssociative(
            "SELECT s.id, JSON_EXTRACT(s.summary, '$.raster') AS raster, COALESCE(r.source_id = ?, 0) AS stands
             FROM surveyed_display s LEFT JOIN handed_release r ON r.id = s.current_id
             WHERE {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
            [$id],
        );

        return MeantFor::displays($canvases, $place === false ? 0 : 1 + (int) $place, array_map(static fn (array $row): array => [
            'id' => is_string($row['id']) ? $row['id'] : '',
            'raster' => Size::fromNode(Node::fromJson(is_string($row['raster']) ? $row['raster'] : '{}')),
            'stands' => $row['stands'] === 1,
        ], $rows), $seen);
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @return array<string, non-empty-list<Size>> each once, by what it is called; of a layout its canvas, then those of its variants
     */
    private static function sizes(array $rows): array
    {
        $sizes = [];
        foreach ($rows as $row) {
            $text = is_string($row['size']) ? $row['size'] : '';
            if (!isset($sizes[$text])) {
                $node = Node::fromJson($text);
                [$first, $more] = is_array($node->value) && array_is_list($node->value) ? [$node->items()[0], $node->items()[1]->items()] : [$node, []];
                $sizes[$text] = [Size::fromNode($first), ...array_map(Size::fromNode(...), $more)];
            }
        }

        return $sizes;
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @param array<string, non-empty-list<Size>> $sizes
     * @return list<array<string, mixed>> with `size`, the place of its size in the list of sizes
     */
    private static function told(array $rows, array $sizes): array
    {
        $numbers = array_flip(array_keys($sizes));

        return array_map(static fn (array $row): array => ['size' => $numbers[is_string($row['size']) ? $row['size'] : ''] ?? 0] + $row, $rows);
    }
}
