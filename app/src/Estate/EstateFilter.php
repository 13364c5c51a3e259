<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Symfony\Component\HttpFoundation\Request;

/** Which displays a question about the estate is for. */
final readonly class EstateFilter
{
    /** Whether it is for all of them. */
    public bool $all;

    /** @param ?array<string, true> $places ids; null for all */
    private function __construct(private string $search, private string $orientation, private string $kind, private ?array $places)
    {
        $this->all = $search . $orientation . $kind === '' && $places === null;
    }

    /** @param list<Place> $places */
    public static function of(Request $request, array $places): self
    {
        $asked = static fn (string $name): string => mb_strtolower(trim($request->query->getString($name)));
        $within = null;
        if (($id = $request->query->getString('place')) !== '') {
            $within = [];
            foreach ($places as $place) {
                for ($at = $place; $at !== null; $at = $at->parent) {
                    if ($at->id === $id) {
                        $within[$place->id] = true;
                    }
                }
            }
        }

        return new self($asked('search'), $asked('orientation'), $asked('kind'), $within);
    }

    /**
     * @param array<mixed> $summary
     * @param list<string> $way names of the places down to the display
     */
    public function fits(array $summary, string $place, array $way): bool
    {
        if ($this->places !== null && !isset($this->places[$place])) {
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
        $texts = array_filter([$summary['name'] ?? '', $summary['timezone'] ?? '', $raster, ...$way], is_string(...));

        return str_contains(mb_strtolower(implode(' ', $texts)), $this->search);
    }
}
