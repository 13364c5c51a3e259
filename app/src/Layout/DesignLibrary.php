<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Psr\Clock\ClockInterface;
use UpperPane\App\Media\MediaAssets;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\Documents;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Playlist;

/** Reads documents into core values, with the saved designs behind their refs. */
final readonly class DesignLibrary
{
    /** @param array<int> $revisions by design id: what is read as it was then; all else as it is saved by now */
    public function __construct(
        private Designs $anyDesigns,
        private MediaAssets $media,
        private Surroundings $surroundings,
        private Feeding $feeding,
        private ClockInterface $clock,
        private HouseStyles $styles,
        private array $revisions = [],
    ) {
    }

    /**
     * The same as it was when these revisions were the newest.
     *
     * @param array<int> $revisions by design id
     */
    public function at(array $revisions): self
    {
        return new self($this->anyDesigns, $this->media, $this->surroundings, $this->feeding, $this->clock, $this->styles, $revisions);
    }

    /** The same for what is looked at elsewhere: on a display, at an instant, with other data. */
    public function seen(Surroundings $surroundings): self
    {
        return new self($this->anyDesigns, $this->media, $surroundings, $this->feeding, $this->clock, $this->styles, $this->revisions);
    }

    /** @return ?array<string, mixed> the document of a design of one of these kinds; null where there is none */
    public function document(string $id, DesignKind ...$kinds): ?array
    {
        return $this->documents([$id], ...$kinds)[$id] ?? null;
    }

    /**
     * @param array<string, mixed> $document
     * @throws Refused
     */
    public function layout(array $document): Composed
    {
        $composer = $this->composer($document);

        return $composer->layout($this->written($document, $composer));
    }

    /**
     * A layout as it is written, or as it was filled in.
     *
     * @param array<string, mixed> $document
     * @param ?Composer $composer of all that is in it, where there is one already
     * @throws Refused
     */
    public function written(array $document, ?Composer $composer = null): Layout
    {
        if (($document['format'] ?? null) !== Filled::FORMAT) {
            return Layout::fromArray($document);
        }
        $composer ??= $this->composer($document);

        return $composer->filling(Filled::fromArray($document))->layout($composer->surroundings->speaking);
    }

    /**
     * A playlist over a whole raster.
     *
     * @param array<string, mixed> $document
     * @throws Refused
     */
    public function fullScreen(array $document, Size $raster): Composed
    {
        return $this->composer($document)->playlist(self::playlist($document), $raster);
    }

    /**
     * Composes with all that these documents name, however deep, so that what several of them mention is read once.
     *
     * @param array<string, mixed> ...$documents
     */
    public function composer(array ...$documents): Composer
    {
        [$found, $media, $templates] = [[], [], []];
        $open = array_values($documents);
        while ($open !== []) {
            [$wanted, $next] = [[], []];
            foreach ($open as $document) {
                $named = Documents::named($document);
                $media += array_fill_keys($named['media'], true);
                $pinned = Filled::pinned($document);
                if ($pinned === null) {
                    $wanted += array_fill_keys($named['designs'], true);
                    continue;
                }
                [$id, $revision] = $pinned;
                $wanted += array_fill_keys(array_diff($named['designs'], [$id]), true);
                $then = $templates[$id][$revision] ?? $this->anyDesigns->numbered($id, $revision)?->document;
                if ($then !== null && !isset($templates[$id][$revision])) {
                    $next[] = $templates[$id][$revision] = $then;
                }
            }
            $wanted = array_map(strval(...), array_keys(array_diff_key($wanted, $found)));
            $open = $next;
            foreach ($this->documents($wanted, DesignKind::Layout, DesignKind::Filled, DesignKind::Playlist) as $id => $document) {
                $open[] = $found[$id] = $document;
            }
        }

        return Composer::over(Library::of($found, $this->media(array_map(strval(...), array_keys($media))), $templates), $this->surroundings());
    }

    /** With what the sources tell by now, where nobody has said what they tell; in the house style, where nobody has said in which. */
    private function surroundings(): Surroundings
    {
        $around = $this->surroundings;
        if ($around->feeds === null) {
            $now = (int) $this->clock->now()->format('Uv');
            $around = $around->at($around->atMs === 0 ? $now : $around->atMs)->fed($this->feeding->now($now));
        }

        return $around->display === null && $around->styles->rules() === null ? $this->styles->elsewhere($around) : $around;
    }

    /**
     * @param list<string> $ids
     * @return array<array<string, mixed>> by id
     */
    private function documents(array $ids, DesignKind ...$kinds): array
    {
        $documents = [];
        foreach ($this->anyDesigns->those($ids) as $design) {
            if (!in_array($design->kind, $kinds, true)) {
                continue;
            }
            $documents[$design->id] = $design->document;
            if ($design->revision === ($this->revisions[$design->id] ?? $design->revision)) {
                $ids = array_values(array_diff($ids, [$design->id]));
            }
        }
        // As they were then; also of what is not there any more.
        foreach (array_intersect($ids, array_map(strval(...), array_keys($this->revisions))) as $id) {
            $kept = $this->anyDesigns->numbered($id, $this->revisions[$id]);
            if ($kept !== null && in_array($kept->document['format'] ?? null, array_map(static fn (DesignKind $kind): string => $kind->format(), $kinds), true)) {
                $documents[$id] = $kept->document;
            }
        }

        return $documents;
    }

    /**
     * @param array<string, mixed> $document
     * @throws DocumentRefused
     */
    private static function playlist(array $document): Playlist
    {
        $node = Node::root($document);
        $node->format(Playlist::FORMAT);

        return Playlist::fromNode($node);
    }

    /**
     * @param list<string> $ids
     * @return array<string, Media>
     */
    private function media(array $ids): array
    {
        $media = [];
        foreach ($this->media->those($ids) as $asset) {
            $one = $asset->media();
            if ($one !== null) {
                $media[$asset->id] = $one;
            }
        }

        return $media;
    }
}
