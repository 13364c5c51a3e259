<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Board\Page;
use UpperPane\Core\Layout\Kind\Board\PlayingBoard;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Shape\Shape;
use UpperPane\Core\Layout\Kind\WrittenElement;
use UpperPane\Core\Layout\Told\TellsRows;
use UpperPane\Core\Playback\GrownScenes;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\Scene;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Playback\ZonePlan;
use UpperPane\Core\Time\CoveredTurns;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\SteadyTurns;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\Turns;

/** The pages of a board, one after the other; what of its header is always the same below them. */
final readonly class BoardDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof PlayingBoard);
        $inside = $placing->in(Box::ofRect($element->rect()));
        $isSame = static fn (WrittenElement $one): bool => !$one instanceof TellsRows || !$one->tells();
        [$same, $told] = [array_filter($element->board->header, $isSame), array_values(array_filter($element->board->header, static fn (WrittenElement $one): bool => !$isSame($one)))];
        $of = $placing->rect(Box::ofRect($element->rect()));
        $draw = fn (WrittenElement $one, ?int $row, Placing $where): array => self::owned(
            Drawings::of($one)->layers($one, $layout, $where, $drawer, null),
            $placing->element($element->id()),
            $one->id(),
            $row,
            $of,
        );
        $scenes = new GrownScenes(
            fn (int $number): Scene => $number < 0
                ? Scene::later("stale $number", static fn (): array => array_merge(...array_map(
                    static fn (WrittenElement $one): array => $draw($one, null, $inside),
                    $element->toldStale(-1 - $number),
                ), ...[[]]))
                : Scene::later(
                    'page ' . substr(hash('sha256', $element->page($number)->key()), 0, 12),
                    fn (): array => $this->page($element, $element->page($number), $told, $inside, $draw),
                ),
            // A page alone does not take over from itself.
            static fn (int $number): Transition => $number < 0 || $element->page($number)->pages === 1 ? Transition::cut() : $element->board->transition,
        );
        $loop = $element->loop($drawer->surroundings->atMs);
        $pages = $drawer->zone($element->id(), $loop, $scenes, $element->rect(), $placing, $turns ?? $element->dataTurns(), walks: true);

        return [
            ...array_merge(...array_map(static fn (WrittenElement $one): array => $draw($one, null, $inside), array_values($same)), ...[[]]),
            $pages,
            ...$this->mark($element, $placing, $inside, $drawer),
        ];
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): null
    {
        return null;
    }

    /**
     * @param list<WrittenElement> $header what of it is told for each page
     * @param \Closure(WrittenElement, ?int, Placing): list<Part|ZonePlan> $draw
     * @return list<Part|ZonePlan>
     */
    private function page(PlayingBoard $board, Page $page, array $header, Placing $inside, \Closure $draw): array
    {
        $layers = [];
        foreach ($board->toldFor($page, $header) as $one) {
            array_push($layers, ...$draw($one, null, $inside));
        }
        foreach ($page->rows as $place => $row) {
            $number = $page->first + $place;
            $rect = $board->board->grid->place($place);
            if ($place % 2 === 1 && $board->board->stripe !== null) {
                $layers[] = self::over($board, $rect, $board->board->stripe->hex, 'stripe', $number, $inside);
            }
            if ($page->highlights[$place] !== null) {
                $layers[] = self::over($board, $rect, $page->highlights[$place], 'highlight', $number, $inside);
            }
            $own = $inside->in(Box::ofRect($rect));
            foreach ($board->told($row) as $one) {
                array_push($layers, ...$draw($one, $number, $own));
            }
        }
        foreach ($page->rows === [] ? $board->toldFor($page, $board->board->empty) : [] as $one) {
            array_push($layers, ...$draw($one, null, $inside));
        }
        $continued = $board->board->continued;
        foreach ($page->pages > 1 && $continued !== null ? $board->toldFor($page, [$continued]) : [] as $one) {
            array_push($layers, ...$draw($one, null, $inside));
        }

        return $layers;
    }

    /** A colour over a place. */
    private static function over(PlayingBoard $board, Rect $rect, string $fill, string $part, int $row, Placing $inside): Part
    {
        $box = Box::ofRect($rect);
        $look = ['shape' => 'rectangle', 'fill' => $fill, 'radius_px' => 0];

        return (new Part('', Shape::KIND, null, null, $inside->rect($box), $inside->box($box), $look))->ownedBy($inside->element($board->id()), $part, $row, self::whole($board, $inside));
    }

    /** The whole of a board, as far as it is seen. */
    private static function whole(PlayingBoard $board, Placing $inside): Box
    {
        return $inside->rect(Box::ofRect(Rect::whole($board->rect()->size())));
    }

    /**
     * Where only their age is told: from when on data are too old.
     *
     * @return list<ZonePlan>
     */
    private function mark(PlayingBoard $board, Placing $placing, Placing $inside, Drawer $drawer): array
    {
        $inTime = $board->reads()->inTime;
        $spans = $board->board->stale === 'mark' ? $board->staleSpans() : [];
        if ($inTime === null || $spans === []) {
            return [];
        }
        $own = $placing->element($board->id());
        // Each of these times has an age of its own.
        $scenes = new GrownScenes(static function (int $number) use ($board, $inTime, $spans, $inside, $drawer, $own): Scene {
            $text = $board->mark($inTime->snapshot($spans[$number][0])->agesFromMs() ?? 0);

            return Scene::of("age $number", TextDrawing::part($text, $text, $inside, $drawer)->ownedBy($own, 'age', null, self::whole($board, $inside)));
        }, Transition::cut());
        $turns = new SteadyTurns(Loop::of([]));
        foreach ($spans as $number => $span) {
            $turns = new CoveredTurns($turns, [$span], $number);
        }

        return [$drawer->zone($board->id(), Loop::of([]), $scenes, $board->rect(), $placing, $turns, walks: true)];
    }

    /**
     * @param list<Part|ZonePlan> $layers
     * @return list<Part|ZonePlan>
     */
    private static function owned(array $layers, string $element, string $part, ?int $row, Box $of): array
    {
        return array_map(static fn (Part|ZonePlan $layer): Part|ZonePlan => $layer instanceof Part ? $layer->ownedBy($element, $part, $row, $of) : $layer, $layers);
    }
}
