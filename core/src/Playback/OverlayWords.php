<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Shape\Shape;
use UpperPane\Core\Layout\Kind\Text\Text;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Overlay\InForce;
use UpperPane\Core\Overlay\Notice;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Overlay\Room;
use UpperPane\Core\Overlay\Strip;
use UpperPane\Core\Units\WallClock;

/**
 * What is wrong with the words of overlays: they are judged as words of a layout are, over what plays there.
 *
 * For that what plays and the words are put into one layout on the canvas of the display, as they lie when the overlay is next drawn.
 */
final readonly class OverlayWords
{
    private const CODES = ['text.small', 'text.overflow', 'text.contrast', 'seam.crossed', 'ticker.fast'];
    private const DAY_MS = 86_400_000;

    /** Of those that run up or down, the letters one below the other stand for what lies below them, and the line laid on its back for all else. */
    private const OF_STACKED = ['text.contrast'];

    /** @param Layout $plays as it is written, in the variant that suits the display */
    public function __construct(private Overlaid $overlaid, private Overlays $overlays, private Layout $plays, private Composer $composer, private Display $display, private WallClock $clock)
    {
    }

    /**
     * @param int $atMs Unix ms
     * @return list<Finding>
     * @throws Refused where an overlay cannot be worked out
     */
    public function findings(int $atMs): array
    {
        $found = [];
        foreach ($this->overlays->all as $overlay) {
            if ($overlay->lies instanceof Strip || $overlay->lies instanceof Notice) {
                array_push($found, ...$this->of($overlay, $overlay->lies, ...$this->next($overlay, $atMs)));
            }
        }

        return $found;
    }

    /**
     * When it is drawn next in 24 hours, with what else; else as if it were alone.
     *
     * @return array{int, list<InForce>} Unix ms, and all that is drawn then, lowest first
     */
    private function next(Overlay $overlay, int $atMs): array
    {
        foreach ($this->overlays->between($this->clock, $atMs, $atMs + self::DAY_MS) as [$from, , $standing]) {
            $drawn = Overlays::drawn($standing);
            foreach ($drawn as $one) {
                if ($one->overlay === $overlay) {
                    return [$from, $drawn];
                }
            }
        }

        return [$atMs, [new InForce($overlay, $atMs)]];
    }

    /**
     * @param list<InForce> $drawn lowest first
     * @return iterable<Finding>
     */
    private function of(Overlay $overlay, Strip|Notice $lies, int $ms, array $drawn): iterable
    {
        $laid = $this->overlaid->laid($overlay, $drawn, $ms);
        $room = $this->overlaid->room($drawn);
        $id = $this->plays->freeId('overlay');
        $rect = $laid->rect;
        if ($lies instanceof Strip) {
            $speed = $lies->pace($this->display->refreshHz)->speedPxS;
            $lying = $lies->isUpright() ? Rect::at(0, 0, $rect->height, $rect->width) : $rect;
            $found = $this->checked($overlay, $room, $id, $lies->element($id, $lying, $speed), $lies->ground, $lying, $lies->isUpright() ? array_diff(self::CODES, self::OF_STACKED) : self::CODES);
            if ($lies->isUpright()) {
                $stacked = $this->stacked($lies->element($id, $lying), $laid, $id);
                $found = [...$found, ...$this->checked($overlay, $room, $id, $stacked, $lies->ground, $rect, self::OF_STACKED)];
            }
            yield from $found;
            yield from $this->onSeam($overlay, $lies, $laid);

            return;
        }
        $padding = $lies->isMoving() ? 0 : $lies->paddingPx($room);
        // As high as its lines: what is rounded off, of it and of both paddings, is no lack of room.
        $inner = Rect::at($rect->x + $padding, $rect->y + $padding, max(1, $rect->width - 2 * $padding), max(1, $rect->height - 2 * $padding + 2));
        $element = $lies->isMoving() ? $lies->moving($id, $inner, $lies->pace($this->display->refreshHz)->speedPxS) : $lies->element($id, $inner);
        yield from $this->checked($overlay, $room, $id, $element, $lies->plate, $rect, self::CODES);
        if (!Rect::whole($room->canvas)->contains($rect)) {
            $says = sprintf('"%s" is %d x %d px and does not fit the canvas of %s px: fewer words, smaller type or more width.', $overlay->id, $rect->width, $rect->height, $room->canvas);
            yield new Finding('text.overflow', Level::Warning, [$overlay->id], $says, ['height_px' => $rect->height, 'room_px' => $room->rest->height], $rect);
        }
    }

    /**
     * @param array<string, mixed> $element that says its words
     * @param ?string $ground below them, in $on
     * @param array<string> $codes
     * @return list<Finding> of these codes, said of the overlay
     */
    private function checked(Overlay $overlay, Room $room, string $id, array $element, ?string $ground, Rect $on, array $codes): array
    {
        $below = $this->below($room);
        if ($ground !== null) {
            $below[] = Shape::written("$id.ground", $on, ['shape' => 'rectangle', 'fill' => $ground]);
        }
        $composed = $this->composer->layout(Layout::fromArray([
            'format' => Layout::FORMAT, 'id' => $overlay->id, 'name' => $overlay->name, 'canvas' => $room->canvas->toArray(), 'background' => ['color' => '#000000'],
            'elements' => [...$below, $element],
        ]));
        $subject = Subject::of($composed, $this->composer->surroundings, static fn (Element $one): bool => $one->id() === $id);
        $found = array_filter(Checks::of($subject)->all, static fn (Finding $one): bool => in_array($one->code, $codes, true) && $one->elements === [$id]);

        return array_map(static fn (Finding $one): Finding => new Finding(
            $one->code,
            $one->level,
            [$overlay->id],
            str_replace("\"$id\"", "\"$overlay->id\"", $one->message),
            $one->measure,
            $one->rect,
        ), array_values($found));
    }

    /**
     * What plays, as elements of the canvas of the display: fitted into what strips leave, on its own ground.
     *
     * @return list<array<string, mixed>>
     */
    private function below(Room $room): array
    {
        $fit = Fit::of($this->plays->canvas, $room->rest->size(), FitMode::Contain);
        $place = static function (Rect $rect) use ($fit, $room): Rect {
            $box = Box::ofRect($rect)->placed($fit->scaleX, $fit->scaleY, $fit->drawn->x + $room->rest->x, $fit->drawn->y + $room->rest->y);

            return Rect::at((int) round($box->x), (int) round($box->y), max(1, (int) round($box->width)), max(1, (int) round($box->height)));
        };
        $background = $this->plays->toArray()['background'] ?? null;
        $colour = is_array($background) && is_string($background['color'] ?? null) ? $background['color'] : '#000000';
        $elements = [Shape::written($this->plays->freeId('overlay.plays'), $place(Rect::whole($this->plays->canvas)), ['shape' => 'rectangle', 'fill' => $colour])];
        foreach ($this->plays->elements as $element) {
            $elements[] = $element->scaled($place($element->rect()), $fit->scaleX)->toArray();
        }

        return $elements;
    }

    /**
     * Words that run up or down, their letters one below the other, as many as there is room for.
     *
     * @param array<string, mixed> $element that says them on its back
     * @return array<string, mixed>
     */
    private function stacked(array $element, LaidOver $laid, string $id): array
    {
        /** @var array<string, mixed> $style */
        $style = $element['style'];
        $most = max(1, (int) floor($laid->rect->height / max(1.0, ($laid->style->sizePx ?? 1.0) * ($laid->style->lineHeight ?? 1.0))));
        $letters = array_slice(mb_str_split(preg_replace('/\s+/u', '', $laid->text) ?? ''), 0, $most);

        return Text::written($id, $laid->rect, ['text' => implode("\n", $letters), 'style' => ['align' => 'center', 'valign' => 'middle'] + $style]);
    }

    /**
     * Letters that run along a seam of a wall, and the thickness that clears it.
     *
     * @return iterable<Finding>
     */
    private function onSeam(Overlay $overlay, Strip $strip, LaidOver $laid): iterable
    {
        [$set, $rect] = [$laid->style, $laid->rect];
        if ($set === null) {
            return;
        }
        $room = Room::whole($this->display->raster());
        $line = $set->sizePx * $set->lineHeight;
        $seams = $this->seams($strip->isUpright());
        $hidden = self::hidden($seams, $strip->isUpright() ? $rect->x : $rect->y, $strip->isUpright() ? $rect->width : $rect->height, $line, $set->valign);
        if ($hidden <= 0.0) {
            return;
        }
        $thick = $strip->isUpright() ? $rect->width : $rect->height;
        $clear = null;
        for ($by = 1; $clear === null && $by < max($room->canvas->width, $room->canvas->height); $by++) {
            foreach ([$thick - $by, $thick + $by] as $px) {
                $lies = $px >= $line ? $strip->thick($room, $px) : null;
                if ($clear === null && $lies !== null && self::hidden($seams, $strip->isUpright() ? $lies->x : $lies->y, $px, $line, $set->valign) <= 0.0) {
                    $clear = $px;
                }
            }
        }
        yield new Finding('seam.crossed', Level::Warning, [$overlay->id], sprintf(
            'The letters of "%s" run along a seam, %s px of them behind bezels.%s',
            $overlay->id,
            Box::figure($hidden),
            $clear === null ? '' : sprintf(' %d px thick, a share of %s, it clears that.', $clear, round($strip->share($room, $clear), 4)),
        ), ['hidden_px' => round($hidden, 2), 'thickness' => $clear === null ? null : round($strip->share($room, $clear), 4)], $rect);
    }

    /**
     * Px of the canvas that no panel shows, across all of it.
     *
     * @param bool $across whether seams from top to bottom are asked for
     * @return list<array{int, int}> from and to
     */
    private function seams(bool $across): array
    {
        $shown = array_map(static fn ($panel): array => $across
            ? [$panel->source->x, $panel->source->right()]
            : [$panel->source->y, $panel->source->bottom()], $this->display->isWall() ? $this->display->wall->panels : []);
        sort($shown);
        [$seams, $to] = [[], null];
        foreach ($shown as [$from, $until]) {
            if ($to !== null && $from > $to) {
                $seams[] = [$to, $from];
            }
            $to = max($to ?? $until, $until);
        }

        return $seams;
    }

    /**
     * How much of a line of letters lies on seams, px.
     *
     * @param list<array{int, int}> $seams
     */
    private static function hidden(array $seams, int $from, int $thick, float $line, string $valign): float
    {
        $begin = $from + match ($valign) {
            'middle' => ($thick - $line) / 2,
            'bottom' => $thick - $line,
            default => 0.0,
        };
        $hidden = 0.0;
        foreach ($seams as [$seam, $end]) {
            $hidden += max(0.0, min($begin + $line, $end) - max($begin, $seam));
        }

        return $hidden;
    }
}
