<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Overlay;

use Random\Randomizer;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** Layouts with all that may lie above them. */
final class RandomOverlaid
{
    /**
     * @param bool $turns whether items come and go
     * @return ?array{Programme, Surroundings, list<string>} null where nothing is left by strips; with ids of what ends
     */
    public static function of(Randomizer $random, bool $turns): ?array
    {
        $base = ['id' => 'base'] + ($turns ? Make::comingAndGoing($random) : Make::randomLayout($random));
        $base['elements'][0]['rect'] = ['x' => 0, 'y' => 0, 'width' => 1280, 'height' => 720];
        $documents = OverlayDocuments::random($random);
        foreach (array_keys($base['elements'][0]['playlist']['items']) as $n) {
            if ($random->getInt(0, 3) === 0) {
                $base['elements'][0]['playlist']['items'][$n]['overlays'] = ['without' => ['o0', 'o2']];
            }
        }
        $sign = Make::randomLayout($random, 1);
        array_splice($sign['elements'], 1, 0, [['id' => 'open', 'kind' => 'programme', 'rect' => ['x' => 100, 'y' => 50, 'width' => 800, 'height' => 500]]]);
        try {
            $overlaid = self::over($base, $documents, [['id' => 'sign'] + $sign, ['id' => 'alarm'] + ($turns ? Make::comingAndGoing($random) : Make::randomLayout($random, 1))], 'Europe/Lisbon');
            RunSheet::of($overlaid->programme, new Surroundings('Europe/Lisbon', new Typewriter()));
        } catch (DocumentRefused $e) {
            return $e->path === '/thickness' ? null : throw $e;
        }
        $ending = array_values(array_filter($documents, static fn (array $one): bool => isset($one['when']['until'])));

        return [$overlaid->programme, new Surroundings('Europe/Lisbon', new Typewriter()), array_column($ending, 'id')];
    }

    /**
     * @param array<string, mixed> $base
     * @param list<array<string, mixed>> $overlays
     * @param list<array<string, mixed>> $with
     */
    public static function over(array $base, array $overlays, array $with, string $timezone = 'UTC'): Overlaid
    {
        $composer = Composer::over(Library::of($with), new Surroundings($timezone, new Typewriter()));
        $layout = $composer->layout(Layout::fromArray($base));

        return Overlaid::of(Programme::endless($layout, $timezone), Overlays::of(...array_map(Overlay::fromArray(...), $overlays)), $composer, $layout->canvas);
    }
}
