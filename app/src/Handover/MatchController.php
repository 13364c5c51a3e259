<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Matching;

/** How each layout sits on each display: matched once for each canvas and raster, since many share them. */
final readonly class MatchController
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    #[Route('/api/matches', methods: ['GET'])]
    public function all(): JsonResponse
    {
        $connection = $this->entities->getConnection();
        $layouts = $connection->fetchAllAssociative("SELECT id, name, JSON_EXTRACT(document, '$.canvas') AS size FROM design WHERE kind = 'layout' ORDER BY name, id");
        $displays = $connection->fetchAllAssociative(
            "SELECT s.id, JSON_VALUE(s.summary, '$.name') AS name, s.place_id AS place, JSON_EXTRACT(s.summary, '$.raster') AS size FROM surveyed_display s ORDER BY s.position, s.id",
        );
        [$canvases, $rasters] = [self::sizes($layouts), self::sizes($displays)];

        return new JsonResponse([
            'layouts' => self::told($layouts, $canvases),
            'displays' => self::told($displays, $rasters),
            'canvases' => array_map(static fn (Size $size): array => $size->toArray(), array_values($canvases)),
            'rasters' => array_map(static fn (Size $size): array => $size->toArray(), array_values($rasters)),
            'matches' => array_map(
                static fn (Size $canvas): array => array_map(static function (Size $raster) use ($canvas): array {
                    $match = Matching::of($canvas, $raster);

                    return [$match->verdict->value, round($match->scale, 4), round($match->used(), 4), $match->swapped];
                }, array_values($rasters)),
                array_values($canvases),
            ),
        ]);
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @return array<string, Size> each once, by what it is called
     */
    private static function sizes(array $rows): array
    {
        $sizes = [];
        foreach ($rows as $row) {
            $text = is_string($row['size']) ? $row['size'] : '';
            if (!isset($sizes[$text])) {
                $sizes[$text] = Size::fromNode(Node::fromJson($text));
            }
        }

        return $sizes;
    }

    /**
     * @param list<array<string, mixed>> $rows
     * @param array<string, Size> $sizes
     * @return list<array<string, mixed>> with `size`, the place of its size in the list of sizes
     */
    private static function told(array $rows, array $sizes): array
    {
        $numbers = array_flip(array_keys($sizes));

        return array_map(static fn (array $row): array => ['size' => $numbers[is_string($row['size']) ? $row['size'] : ''] ?? 0] + $row, $rows);
    }
}
