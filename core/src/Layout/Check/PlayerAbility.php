<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Check;

use UpperPane\Core\Display\PlacedPanel;
use UpperPane\Core\Display\Player;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\HasMedia;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Media\Media;

/** `player.kind`, `player.films`, `player.film-size`: what a layout asks for and a player of the display cannot do. */
final readonly class PlayerAbility implements Check
{
    public static function explained(): array
    {
        return [
            new Explanation('player.kind', 'warning', 'an element of a kind that the player of its panels does not draw', 'it stays blank', 'the survey'),
            new Explanation('player.films', 'warning', 'more zones with films than the player plays at once', 'films stutter or stay blank where they meet', 'the survey'),
            new Explanation('player.film-size', 'warning', 'a film of more px than the largest that the player plays', 'it stutters or stays blank', 'the survey'),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->display->players ?? [] as $player) {
            $drawn = array_values(array_filter(
                $subject->layout->elements,
                fn (Element $element): bool => $this->isDrawnBy($subject, $player, $element),
            ));
            yield from $this->kinds($player, $drawn);
            yield from $this->films($player, $drawn);
        }
    }

    /** Whether a panel that the player feeds shows a part of it. */
    private function isDrawnBy(Subject $subject, Player $player, Element $element): bool
    {
        $display = $subject->display;
        if ($display?->processor !== null) {
            return $display->processor->player === $player->id;
        }
        $rect = $subject->onRaster($element->rect());

        return array_filter(
            $display->wall->panels ?? [],
            static fn (PlacedPanel $panel): bool => $panel->player === $player->id && $panel->source->intersection($rect) !== null,
        ) !== [];
    }

    /**
     * @param list<Element> $drawn
     * @return iterable<Finding>
     */
    private function kinds(Player $player, array $drawn): iterable
    {
        foreach ($player->kinds === null ? [] : $drawn as $element) {
            if (in_array($element->kind(), Kinds::known(), true) && !in_array($element->kind(), $player->kinds ?? [], true)) {
                yield new Finding('player.kind', Level::Warning, [$element->id()], sprintf(
                    'Player "%s" draws no %s such as "%s"; it draws %s.',
                    $player->id,
                    $element->kind(),
                    $element->id(),
                    implode(', ', $player->kinds ?? []),
                ), ['player' => $player->id], $element->rect());
            }
        }
    }

    /**
     * @param list<Element> $drawn
     * @return iterable<Finding>
     */
    private function films(Player $player, array $drawn): iterable
    {
        $zones = [];
        foreach ($drawn as $element) {
            $films = $element instanceof HasMedia ? array_filter($element->media(), static fn (Media $media): bool => $media->isFilm()) : [];
            if ($films === []) {
                continue;
            }
            $zones[] = $element->id();
            $most = $player->largestFilm['raster'] ?? null;
            foreach ($films as $film) {
                if ($most !== null && ($film->size->width > $most->width || $film->size->height > $most->height)) {
                    yield new Finding('player.film-size', Level::Warning, [$element->id()], sprintf(
                        '"%s" has %s px; the largest film of player "%s" has %s px.',
                        $film->name,
                        $film->size,
                        $player->id,
                        $most,
                    ), ['player' => $player->id], $element->rect());
                }
            }
        }
        if ($player->filmsAtOnce !== null && count($zones) > $player->filmsAtOnce) {
            yield new Finding('player.films', Level::Warning, $zones, sprintf(
                '%d zones play films, which may meet; player "%s" plays %d at once.',
                count($zones),
                $player->id,
                $player->filmsAtOnce,
            ), ['player' => $player->id, 'zones' => count($zones), 'films_at_once' => $player->filmsAtOnce]);
        }
    }
}
