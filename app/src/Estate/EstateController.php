<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\HandedReleaseRepository;
use UpperPane\App\Playback\Player;
use UpperPane\Core\Playback\Standing;

/** The tree of places with all displays, as every station of the desk needs it. */
final readonly class EstateController
{
    public function __construct(private EntityManagerInterface $entities, private HandedReleaseRepository $releases, private ClockInterface $clock)
    {
    }

    #[Route('/api/estate', methods: ['GET'])]
    public function show(): JsonResponse
    {
        $places = $this->entities->getRepository(Place::class)->findBy([], ['position' => 'ASC', 'id' => 'ASC']);
        $displays = $this->entities->getRepository(SurveyedDisplay::class)->findBy([], ['position' => 'ASC', 'id' => 'ASC']);
        $players = [];
        foreach ($this->entities->getRepository(Player::class)->findBy(['revokedAt' => null], ['boundAt' => 'ASC']) as $player) {
            $players[$player->display->id][] = $player;
        }
        $older = array_column(array_merge(...array_values($this->releases->currentBySource())), 'older', 'display');
        $now = $this->clock->now();

        return new JsonResponse([
            'now' => $now->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
            'places' => array_map(static fn (Place $place): array => ['id' => $place->id, 'name' => $place->name, 'parent' => $place->parent?->id], $places),
            'displays' => array_map(
                static fn (SurveyedDisplay $d): array => self::display($d, $players[$d->id] ?? [], $older[$d->id] ?? false, (int) $now->format('Uv')),
                $displays,
            ),
        ]);
    }

    /**
     * @param list<Player> $players
     * @param bool $older whether its release is not what is saved by now
     * @return array<string, mixed>
     */
    private static function display(SurveyedDisplay $surveyed, array $players, bool $older, int $now): array
    {
        $display = $surveyed->display();
        $raster = $display->raster();
        $current = $surveyed->current;
        $standings = array_map(static fn (Player $player): Standing => Standing::of($player->call(), $current?->sha256, $now), $players);
        $together = Standing::together($standings);

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
            'release' => $current?->toArray(),
            'saved_not_handed_over' => $older,
            'standing' => self::standing($together, $current?->number, null),
            'players' => array_map(
                static fn (Player $player, Standing $standing): array => $player->toArray() + ['standing' => self::standing($standing, $current?->number, $player->trouble)],
                $players,
                $standings,
            ),
        ];
    }

    /** @return array{state: string, level: ?string, says: string} */
    private static function standing(Standing $standing, ?int $release, ?string $trouble): array
    {
        return ['state' => $standing->value, 'level' => $standing->level()?->value, 'says' => $standing->sentence($release, $trouble)];
    }
}
