<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Layout\Design;
use UpperPane\App\Playback\Player;

/** The tree of places with all displays, as every station of the desk needs it. */
final readonly class EstateController
{
    public function __construct(private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    #[Route('/api/estate', methods: ['GET'])]
    public function show(): JsonResponse
    {
        $places = $this->entities->getRepository(Place::class)->findBy([], ['position' => 'ASC', 'id' => 'ASC']);
        $displays = $this->entities->getRepository(SurveyedDisplay::class)->findBy([], ['position' => 'ASC', 'id' => 'ASC']);
        $players = [];
        foreach ($this->entities->getRepository(Player::class)->findBy(['revokedAt' => null], ['boundAt' => 'ASC']) as $player) {
            $players[$player->display->id][] = $player->toArray();
        }
        /** @var list<array{id: string, revision: int}> $rows */
        $rows = $this->entities->createQuery('SELECT d.id, d.revision FROM ' . Design::class . ' d')->getArrayResult();
        $revisions = array_column($rows, 'revision', 'id');

        return new JsonResponse([
            'now' => $this->clock->now()->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'places' => array_map(static fn (Place $place): array => ['id' => $place->id, 'name' => $place->name, 'parent' => $place->parent?->id], $places),
            'displays' => array_map(static fn (SurveyedDisplay $display): array => self::display($display, $players[$display->id] ?? [], $revisions), $displays),
        ]);
    }

    /**
     * @param list<array<string, mixed>> $players
     * @param array<string, int> $revisions of the saved designs
     * @return array<string, mixed>
     */
    private static function display(SurveyedDisplay $surveyed, array $players, array $revisions): array
    {
        $display = $surveyed->display();
        $raster = $display->raster();
        $current = $surveyed->current;

        return [
            'id' => $display->id,
            'name' => $display->name,
            'place' => $surveyed->place->id,
            'way' => $surveyed->place->way(),
            'timezone' => $display->timezone,
            'raster' => $raster->toArray(),
            'orientation' => $raster->isSquare() ? 'square' : ($raster->isPortrait() ? 'portrait' : 'landscape'),
            'rotation' => $display->panel->rotation->value,
            'active_mm' => $display->active()->toArray(),
            'px_per_mm' => $display->pxPerMm(),
            'viewing' => ['nearest_mm' => $display->viewing->nearestMm, 'farthest_mm' => $display->viewing->farthestMm],
            'document' => $surveyed->document,
            'release' => $current?->toArray(),
            'saved_not_handed_over' => $current !== null && $current->sourceRevision !== null && ($revisions[$current->sourceId] ?? 0) > $current->sourceRevision,
            'players' => $players,
        ];
    }
}
