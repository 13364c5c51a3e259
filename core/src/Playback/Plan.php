<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Clock;
use UpperPane\Core\Layout\Code;
use UpperPane\Core\Layout\Element;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Mark;
use UpperPane\Core\Layout\Picture;
use UpperPane\Core\Layout\Shape;
use UpperPane\Core\Layout\Text;
use UpperPane\Core\Layout\TextStyle;
use UpperPane\Core\Layout\Ticker;
use UpperPane\Core\Layout\Zone;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Rota;
use UpperPane\Core\Time\Transition;

/** A layout with everything worked out that does not depend on the instant: its layers, the first lowest. */
final readonly class Plan
{
    /** Name of the zone that a schedule plays in. */
    private const PROGRAMME = 'schedule';

    /** @param list<Part|ZonePlan> $layers */
    private function __construct(public array $layers)
    {
    }

    /** @param int $anchorMs UTC ms at which all loops begin */
    public static function of(Layout $layout, Means $means, int $anchorMs = 0): self
    {
        return self::placed($layout, Placing::outermost(), $means, $anchorMs);
    }

    /** What a display plays by its schedule, as one zone over its raster. */
    public static function ofProgramme(Programme $programme, Means $means): self
    {
        $raster = Rect::whole($programme->raster);
        [$scenes, $booked] = [[], []];
        foreach ($programme->whole as $key => $layout) {
            $booked[$key] = count($scenes);
            $scenes[] = self::booked($layout, self::PROGRAMME, $raster, Placing::outermost(), $means, true, $programme);
        }
        $box = Box::ofRect($raster);
        $cuts = array_fill(0, count($scenes), Transition::cut());
        $standby = $programme->schedule->standby === null ? null : $booked[$programme->schedule->standby->key()];

        return new self([new ZonePlan(self::PROGRAMME, Loop::of([]), $scenes, $cuts, $box, null, 0, Begins::Anchor, $programme->timetable(), $booked, $standby)]);
    }

    /**
     * A layout that is booked, fitted into a rectangle.
     *
     * @param bool $whole whether it plays on the whole display, so that its zones can be booked as well
     * @return list<Part|ZonePlan>
     */
    private static function booked(Layout $layout, string $id, Rect $rect, Placing $placing, Means $means, bool $whole, ?Programme $programme): array
    {
        $box = Box::ofRect($rect);
        $fit = Fit::of($layout->canvas, $rect->size(), FitMode::Contain, 50.0, 50.0);
        $drawn = $placing->box($fit->drawn->placed(1, 1, $box->x, $box->y));
        $ground = new Part($placing->element($id), 'background', null, null, $drawn->clippedTo($placing->rect($box)), $drawn, ['fill' => $layout->background->hex]);
        $inside = $whole ? $placing->onto($box, $fit) : $placing->inside($id, $box, $fit);

        return [$ground, ...self::placed($layout, $inside, $means, 0, Begins::Booking, $whole ? $programme : null)->layers];
    }

    /**
     * @param int $anchorMs where it begins at an anchor
     * @param ?Programme $programme where its zones can be booked
     */
    private static function placed(Layout $layout, Placing $placing, Means $means, int $anchorMs, Begins $begins = Begins::Anchor, ?Programme $programme = null): self
    {
        $layers = [];
        $rotas = $layout->rotas($means->timezone, $anchorMs);
        foreach ($layout->visible()->elements as $element) {
            match (true) {
                $element instanceof Zone => array_push(
                    $layers,
                    ...self::ground($element, $element->ground, $placing),
                    ...[self::zone($element, $layout, $placing, $means, $rotas[$element->id()] ?? null, $begins, $programme)],
                ),
                $element instanceof Picture => array_push($layers, ...self::ground($element, $element->ground, $placing), ...[self::picture($element, $placing)]),
                $element instanceof Text => $layers[] = self::text($element, $means->faces === null ? $element : $element->resolved($means->faces), $placing),
                $element instanceof Clock => $layers[] = self::clock($element, $placing, $means),
                $element instanceof Ticker => $layers[] = self::ticker($element, $placing, $means),
                $element instanceof Code => array_push($layers, ...self::code($element, $placing, $means)),
                $element instanceof Shape => $layers[] = self::shape($element, $placing),
                default => throw new \LogicException('No plan for an element of kind ' . $element->kind() . '.'),
            };
        }

        return new self($layers);
    }

    /**
     * @param array<string, mixed> $look
     */
    private static function plain(Element $element, Placing $placing, array $look, ?Changing $changing = null): Part
    {
        $box = Box::ofRect($element->rect());

        return new Part($placing->element($element->id()), $element->kind(), null, null, $placing->rect($box), $placing->box($box), $look, changing: $changing);
    }

    private static function text(Element $element, Text $text, Placing $placing): Part
    {
        $box = Box::ofRect($text->rect());
        $scale = $placing->typeScale();

        $look = self::words($text->text, $text->style, $scale);
        if ($text->marks !== []) {
            $look['marks'] = array_map(static fn (Mark $mark): array => $mark->drawn($text->style->sizePx * $scale), $text->marks);
        }

        return new Part(
            $placing->element($element->id()),
            Text::KIND,
            null,
            null,
            $placing->rect($box),
            $placing->box($box),
            $look,
            of: $text->ownBox ? null : $placing->rect(Box::ofRect($element->rect())),
        );
    }

    /** @return array<string, mixed> */
    private static function words(string $text, TextStyle $style, float $scale): array
    {
        return ['text' => $text, 'style' => $style->toArray($scale)];
    }

    private static function clock(Clock $clock, Placing $placing, Means $means): Part
    {
        return self::plain($clock, $placing, $clock->style === null
            ? ['dial' => $clock->dial?->toArray()]
            : self::words('', $clock->style, $placing->typeScale()), new ToldTime($clock, $means->timezone));
    }

    private static function ticker(Ticker $ticker, Placing $placing, Means $means): Part
    {
        $length = $means->faces === null ? null : $ticker->lengthPx($means->faces);

        return self::plain(
            $ticker,
            $placing,
            self::words($ticker->text, $ticker->style, $placing->typeScale()),
            $length === null ? null : new RunningText($ticker, $length, $placing->box(Box::ofRect($ticker->rect())), $placing->typeScale()),
        );
    }

    /** @return list<Part> the code, and its caption */
    private static function code(Code $code, Placing $placing, Means $means): array
    {
        $own = $placing->rect(Box::ofRect($code->rect()));
        $symbol = $code->symbol();
        $parts = [new Part($placing->element($code->id()), Code::KIND, null, null, $placing->rect($symbol), $placing->box($symbol), [
            'fill' => $code->ground->hex,
            'code' => ['modules' => $means->codes?->modules($code->text, $code->level) ?? [], 'quiet' => $code->quiet, 'color' => $code->color->hex],
        ], of: $own)];
        $rect = $code->captionRect();
        if ($rect !== null && $code->captionStyle !== null) {
            $parts[] = self::text($code, Text::within($code, $rect, $code->caption, $code->captionStyle), $placing);
        }

        return $parts;
    }

    private static function shape(Shape $shape, Placing $placing): Part
    {
        return self::plain($shape, $placing, [
            'shape' => $shape->shape,
            'fill' => $shape->fill->hex,
            'radius_px' => Box::figure($shape->radiusPx * $placing->typeScale()),
        ], $shape->progress === null ? null : new Filling($shape->progress, $placing->element($shape->progress->zone)));
    }

    /** @return list<Part> the colour of a box, below what is in it */
    private static function ground(Element $element, ?Colour $ground, Placing $placing): array
    {
        $box = Box::ofRect($element->rect());

        return $ground === null ? [] : [new Part($placing->element($element->id()), 'background', null, null, $placing->rect($box), $placing->box($box), ['fill' => $ground->hex])];
    }

    private static function picture(Picture $picture, Placing $placing): Part
    {
        $painted = $picture->painted();
        $own = Box::ofRect($picture->rect());

        return new Part(
            $placing->element($picture->id()),
            Picture::KIND,
            null,
            $picture->media,
            $placing->rect($painted),
            $placing->box($picture->whole()),
            ($picture->radiusPx > 0.0 ? ['radius_px' => Box::figure($picture->radiusPx * $placing->typeScale())] : [])
                + ($picture->flip->isAcross() || $picture->flip->isDown() ? ['flip' => $picture->flip->value] : []),
            $picture->opacity,
            $painted == $own ? null : $placing->rect($own),
        );
    }

    /** @param ?array{Rota, int} $rota and which of its zones this is */
    private static function zone(Zone $zone, Layout $layout, Placing $placing, Means $means, ?array $rota, Begins $begins, ?Programme $programme): ZonePlan
    {
        $scenes = [];
        $transitions = [];
        foreach ($zone->playlist->enabled() as $item) {
            $scenes[] = self::scene($zone, $item, $placing, $means);
            $transitions[] = $item->transition;
        }
        $booked = [];
        foreach ($programme->zones[$zone->id()] ?? [] as $key => $other) {
            $booked[$key] = count($scenes);
            $scenes[] = self::booked($other, $zone->id(), $zone->rect(), $placing, $means, false, $programme);
            $transitions[] = Transition::cut();
        }

        return new ZonePlan(
            $placing->element($zone->id()),
            $layout->loops[$zone->id()],
            $scenes,
            $transitions,
            $placing->rect(Box::ofRect($zone->rect())),
            $rota[0] ?? null,
            $rota[1] ?? 0,
            $begins,
            $booked === [] ? null : $programme?->timetable($zone->id()),
            $booked,
        );
    }

    /** @return list<Part|ZonePlan> what one item puts into its zone */
    private static function scene(Zone $zone, Item $item, Placing $placing, Means $means): array
    {
        $box = Box::ofRect($zone->rect());
        $nested = $item->layout === null ? null : $zone->layouts[$item->id];
        $size = $nested->canvas ?? $item->media->size ?? throw new \LogicException('An item plays a media or a layout.');
        $fit = Fit::of($size, $zone->rect()->size(), $item->fit, $item->focusX, $item->focusY);
        $drawn = $placing->box($fit->drawn->placed(1, 1, $box->x, $box->y));
        $id = $placing->element($zone->id());
        if ($nested === null) {
            $sound = $item->media->isFilm() && $item->sound->isHeard() ? $item->sound : null;

            return [new Part(
                $id,
                Zone::KIND,
                $item->id,
                $item->media,
                $placing->rect($box),
                $drawn,
                $sound === null || $sound->hours !== [] ? [] : ['volume' => $sound->volume],
                changing: $sound === null || $sound->hours === [] ? null : new Loudness($sound, $means->timezone),
            )];
        }
        $inside = $placing->inside($zone->id(), $box, $fit);
        $ground = new Part($id, 'background', $item->id, null, $drawn->clippedTo($placing->rect($box)), $drawn, ['fill' => $nested->background->hex]);

        return [$ground, ...self::placed($nested, $inside, $means, 0, Begins::Item)->layers];
    }
}
