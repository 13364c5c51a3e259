<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Time\Transition;

/** Layers of which each part is drawn otherwise, wherever in them it stands. */
final readonly class Layering
{
    /**
     * @param list<Part|ZonePlan> $layers
     * @param \Closure(Part): list<Part|ZonePlan> $drawn in the place of a part
     * @return list<Part|ZonePlan>
     */
    public static function each(array $layers, \Closure $drawn): array
    {
        $all = [];
        foreach ($layers as $layer) {
            array_push($all, ...($layer instanceof Part ? $drawn($layer) : [$layer->showing(self::scenes($layer->scenes, $drawn))]));
        }

        return $all;
    }

    /** @param \Closure(Part): list<Part|ZonePlan> $drawn */
    private static function scenes(Scenes $scenes, \Closure $drawn): Scenes
    {
        return new class ($scenes, $drawn) implements Scenes {
            /** @var array<int, Scene> */
            private array $known = [];

            /** @param \Closure(Part): list<Part|ZonePlan> $drawn */
            public function __construct(private readonly Scenes $scenes, private readonly \Closure $drawn)
            {
            }

            public function scene(int $number): Scene
            {
                return $this->known[$number] ??= Scene::later($this->scenes->scene($number)->name, fn (): array => Layering::each($this->scenes->scene($number)->layers(), $this->drawn));
            }

            public function transition(int $number): Transition
            {
                return $this->scenes->transition($number);
            }

            public function among(array $loops): array
            {
                return $this->scenes->among($loops);
            }
        };
    }
}
