<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

/** What one thing that takes its turn in a zone draws; worked out when it is first looked at. */
final class Scene
{
    /** @var ?list<Part|ZonePlan> lowest first */
    private ?array $layers;

    /** Its only part, where it is no more than that and looks the same at every instant; known without working it out. */
    public readonly ?Part $part;

    /**
     * @param string $name by which it is known among the scenes of its zone, however many stand before it: id of the item, or what is booked
     * @param ?list<Part|ZonePlan> $layers
     * @param ?\Closure(): list<Part|ZonePlan> $work
     */
    private function __construct(public readonly string $name, ?array $layers, private ?\Closure $work)
    {
        $this->layers = $layers;
        $only = $layers !== null && count($layers) === 1 ? $layers[0] : null;
        $this->part = $only instanceof Part && $only->changing === null ? $only : null;
    }

    public static function of(string $name, Part ...$parts): self
    {
        return new self($name, array_values($parts), null);
    }

    /** @param \Closure(): list<Part|ZonePlan> $work */
    public static function later(string $name, \Closure $work): self
    {
        return new self($name, null, $work);
    }

    /** @return list<Part|ZonePlan> lowest first */
    public function layers(): array
    {
        if ($this->layers === null) {
            $this->layers = $this->work === null ? [] : ($this->work)();
            $this->work = null;
        }

        return $this->layers;
    }
}
