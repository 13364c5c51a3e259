<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Drawing;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Element;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Kind\Zone\Zone;
use UpperPane\Core\Playback\ListedScenes;
use UpperPane\Core\Playback\Loudness;
use UpperPane\Core\Playback\Part;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\Scene;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\SteadyTurns;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\Turns;

/** A zone and what takes turns in it. */
final readonly class ZoneDrawing implements Drawing
{
    public function layers(Element $element, Composed $layout, Placing $placing, Drawer $drawer, ?Turns $turns): array
    {
        assert($element instanceof PlayingZone);
        [$scenes, $transitions] = [[], []];
        $ofRows = [];
        foreach ($element->playlist->enabled() as $place => $item) {
            $ofRows += $item->row === null ? [] : [$place => true];
            $scenes[] = $this->scene($element, $item, $placing, $drawer);
            $transitions[] = $item->transition;
        }
        $anchored = [];
        foreach ([...($element->standby === null ? [] : [$drawer->standby($element->standby, $element, $placing)]), ...$drawer->bookedIn($element, $placing)] as $scene) {
            $anchored[] = count($scenes);
            $scenes[] = $scene;
            $transitions[] = Transition::cut();
        }
        $turns ??= new SteadyTurns($layout->loops[$element->id()]);

        return [
            ...$drawer->ground($element, $element->ground, $placing),
            $drawer->zone($element->id(), $layout->loops[$element->id()], new ListedScenes($scenes, $transitions, $ofRows), $element->rect(), $placing, $turns, $anchored),
        ];
    }

    public function smil(Element $element, Composed $layout, Placing $placing, SmilText $smil, string $in): array
    {
        assert($element instanceof PlayingZone);
        return $smil->zone($element, $layout->loops[$element->id()], $placing, $in);
    }

    /** What one item puts into its zone. */
    private function scene(PlayingZone $zone, Item $item, Placing $placing, Drawer $drawer): Scene
    {
        $box = Box::ofRect($zone->rect());
        $fit = $zone->fit($item);
        $drawn = $placing->box($fit->drawn->placed(1, 1, $box->x, $box->y));
        $id = $placing->element($zone->id());
        if ($item->media !== null) {
            $sound = $item->media->isFilm() && $item->sound->isHeard() ? $item->sound : null;

            return Scene::of($item->id, new Part(
                $id,
                Zone::KIND,
                $item->id,
                $item->media,
                $placing->rect($box),
                $drawn,
                $sound === null || $sound->hours !== [] ? [] : ['volume' => $sound->volume],
                changing: $sound === null || $sound->hours === [] ? null : Loudness::of($sound, $drawer->surroundings->timezone),
            ));
        }
        $name = $item->row === null ? $item->id : "$item->id " . $zone->each[$item->id]->name($item->row);

        return Scene::later($name, static function () use ($zone, $item, $id, $drawn, $box, $fit, $placing, $drawer): array {
            $nested = $zone->layoutOf($item);
            $ground = new Part($id, 'background', $item->id, null, $drawn->clippedTo($placing->rect($box)), $drawn, ['fill' => $nested->background->hex]);

            return [$ground, ...$drawer->begun($nested, $placing->inside($zone->id(), $box, $fit))];
        });
    }
}
