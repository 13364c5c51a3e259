<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Symfony\Component\HttpFoundation\Request;
use UpperPane\App\Display\Place;

/** Which displays a question about the estate is for. */
final readonly class EstateFilter
{
    /** Whether it is for all of them. */
    public bool $all;

    /** @param array<string, Place> $places of the estate, by id */
    private function __construct(private string $search, private string $orientation, private string $kind, private string $place, private array $places = [])
    {
        $this->all = $search . $orientation . $kind . $place === '';
    }

    public static function of(Request $request): self
    {
        $asked = static fn (string $name): string => mb_strtolower(trim($request->query->getString($name)));

        return new self($asked('search'), $asked('orientation'), $asked('kind'), $request->query->getString('place'));
    }

    /** @param list<Place> $places those of the estate */
    public function in(array $places): self
    {
        return new self($this->search, $this->orientation, $this->kind, $this->place, array_combine(array_map(static fn (Place $place): string => $place->id, $places), $places));
    }

    /**
     * @param array<mixed> $summary
     * @param string $place id of the place that it hangs in
     */
    public function fits(array $summary, string $place): bool
    {
        if ($this->place !== '' && !in_array($this->place, ($this->places[$place] ?? null)?->outwards() ?? [], true)) {
            return false;
        }
        if ($this->orientation !== '' && $this->orientation !== ($summary['orientation'] ?? '')) {
            return false;
        }
        if ($this->kind !== '' && ($this->kind === 'wall') !== (($summary['panels'] ?? 1) > 1)) {
            return false;
        }
        if ($this->search === '') {
            return true;
        }
        $raster = is_array($summary['raster'] ?? null) ? implode('x', array_map(static fn (mixed $px): string => is_int($px) ? (string) $px : '', $summary['raster'])) : '';
        $texts = array_filter([$summary['name'] ?? '', $summary['timezone'] ?? '', $raster, ...($this->places[$place] ?? null)?->way() ?? []], is_string(...));

        return str_contains(mb_strtolower(implode(' ', $texts)), $this->search);
    }
}
