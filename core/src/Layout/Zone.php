<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Time\CycleFigures;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Lasts;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Playlist;

/** A rectangle of a layout that plays a playlist. */
final readonly class Zone implements Element
{
    use ElementHead;

    public const KIND = 'zone';

    /**
     * @param ?string $follows id of the zone that sets the moments of this one
     * @param array<string, Layout> $layouts the layouts that items play, by item id
     * @param ?Colour $ground what is seen beside content that leaves bars
     */
    private function __construct(
        private Head $head,
        public Playlist $playlist,
        public ?string $follows,
        public array $layouts,
        public ?Colour $ground = null,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node, Library $library): self
    {
        $head = Head::fromNode($node, 'playlist', 'follows', 'ground');

        return self::of($head, $node->field('playlist'), $library, $node->optional('follows')?->id(), ($ground = $node->optional('ground')) ? Colour::fromNode($ground) : null);
    }

    /**
     * A zone that plays a playlist of its own.
     *
     * @throws DocumentRefused
     */
    public static function ofPlaylist(string $id, Rect $rect, Node $list, Library $library): self
    {
        return self::of(Head::of($id, $rect), $list, $library, null, null);
    }

    /** @throws DocumentRefused */
    private static function of(Head $head, Node $list, Library $library, ?string $follows, ?Colour $ground): self
    {
        $playlist = $library->playlist($list);
        $layouts = [];
        foreach ($playlist->all() as $index => $item) {
            $path = match (true) {
                $list->has('ref') => $list->path,
                $index < count($playlist->items) => "$list->path/items/$index",
                $playlist->interleaved !== null => "$list->path/interleave/ref",
                default => sprintf('%s/interleave/items/%d', $list->path, $index - count($playlist->items)),
            };
            if ($item->layout !== null) {
                $layouts[$item->id] = $library->layout($item->layout)->for($head->rect->size());
                if ($item->durationMs === null && $item->lasts !== Lasts::Endless && !$layouts[$item->id]->hasLoop() && $follows === null) {
                    throw DocumentRefused::because('field.missing', "$path/duration_ms is missing: the layout has no loop of its own.", "$path/duration_ms");
                }
            } elseif ($item->lasts === Lasts::Leader && $item->durationMs === null && $follows === null) {
                throw DocumentRefused::because('value.unknown', "$path/lasts is \"leader\", but the zone follows no other.", "$path/lasts");
            }
        }

        return new self($head, $playlist, $follows, $layouts, $ground);
    }

    /** A zone over the whole canvas. */
    public static function whole(string $id, Rect $rect, Playlist $playlist): self
    {
        return new self(Head::of($id, $rect), $playlist, null, []);
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function covers(): bool
    {
        return true;
    }

    /** The zone's loop, of the enabled items; $leader is the loop of the zone it follows. */
    public function loop(?Loop $leader): Loop
    {
        $cycle = $this->playlist->cycle();

        return $leader === null
            ? Loop::ofCycle($cycle, array_map($this->lengthMs(...), $this->playlist->enabled()))
            : $leader->followedBy($cycle);
    }

    /**
     * How it goes round a loop: lengths, plays an hour and shares, and the names of what it plays in the order of its scenes.
     *
     * @return array<string, mixed>
     */
    public function playing(Loop $loop): array
    {
        $enabled = $this->playlist->enabled();

        return CycleFigures::of($loop, $this->playlist->all(), $enabled) + ['scenes' => array_map(
            fn (Item $item): array => ['id' => $item->id, 'name' => $item->media->name ?? $this->layouts[$item->id]->name],
            $enabled,
        )];
    }

    /** What an item lasts by itself, in ms; null without end. */
    public function lengthMs(Item $item): ?int
    {
        return match (true) {
            $item->durationMs !== null => $item->durationMs,
            $item->lasts === Lasts::Endless => null,
            default => $this->ownLengthMs($item),
        };
    }

    /** Length of the film, or of the nested layout's loop, in ms; null for a picture or an endless layout. */
    public function ownLengthMs(Item $item): ?int
    {
        return $item->media !== null ? $item->media->lengthMs : $this->layouts[$item->id]->loopMs();
    }
}
