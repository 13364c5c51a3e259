<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Time\Transition;

/** The places that one thing has as overlays come and go, each a scene; known as they are met. */
final class Places
{
    /** @var array<string, int> numbers of the scenes, by place */
    private array $numbers;

    /** @var list<\Closure(): list<Part|ZonePlan>> what each draws */
    private array $drawn;

    /**
     * @param \Closure(list<InForce>): string $place where it lies while these are in force; '' for where it lies while none is
     * @param \Closure(list<InForce>): list<Part|ZonePlan> $layers what it draws then
     */
    public function __construct(private readonly \Closure $place, private readonly \Closure $layers)
    {
        $this->numbers = ['' => 0];
        $this->drawn = [static fn (): array => $layers([])];
    }

    /** @param list<InForce> $standing lowest first */
    public function number(array $standing): int
    {
        $place = ($this->place)($standing);
        if (!isset($this->numbers[$place])) {
            $this->numbers[$place] = count($this->drawn);
            $this->drawn[] = fn (): array => ($this->layers)($standing);
        }

        return $this->numbers[$place];
    }

    public function scenes(): Scenes
    {
        return new GrownScenes(fn (int $number): Scene => Scene::later("place $number", $this->drawn[$number]), Transition::cut());
    }
}
