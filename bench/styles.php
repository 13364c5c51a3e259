<?php

declare(strict_types=1);

// Required by run.php: house styles, templates and settings of places.

namespace UpperPane\Bench;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\FilledRows;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Setting\Estate;
use UpperPane\Core\Text\FaceMetrics;

function benchStyles(float $hash, FaceMetrics $faces): void
{
    $text = static fn (int $n): array => [
        'id' => "t$n", 'kind' => 'text', 'text' => 'Sailings of the day', 'rect' => ['x' => 40, 'y' => 120 * $n, 'width' => 1200, 'height' => 120],
        'style' => ['family' => '@head', 'size_px' => '@line', 'color' => '@sea'],
    ];
    $ground = ['id' => 'g', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1920, 'height' => 1080], 'fill' => '@sand'];
    $elements = [$ground, ...array_map($text, range(0, 7))];
    $document = ['format' => Layout::FORMAT, 'id' => 'l', 'name' => 'L', 'canvas' => ['width' => 1920, 'height' => 1080], 'elements' => $elements];
    $style = static fn (string $sea): Surroundings => (new Surroundings('UTC', $faces))->styled(Styles::of(HouseStyle::fromArray([
        'format' => HouseStyle::FORMAT, 'id' => 's', 'name' => 'S', 'colours' => ['sea' => $sea, 'sand' => '#f5e6b8'],
        'faces' => ['head' => ['family' => 'Barlow Condensed']], 'sizes' => ['line' => ['share' => 0.06]],
    ])));
    $preview = seconds(static function () use ($document, $style): void {
        foreach (range(1, 500) as $n) {
            $layout = Layout::fromArray(['id' => "l$n"] + $document);
            foreach (['#14665b', '#7a1f26'] as $sea) {
                Checks::run(Composer::compose($layout, null, $style($sea)), $style($sea));
            }
        }
    }, 1);
    say('a change of style over 500 layouts of 9 elements: each checked before and after', sprintf('%.2f s, %s x baseline', $preview, number_format($preview / $hash)), 'under 3 s');

    $slots = [
        ['id' => 'head', 'name' => 'Headline', 'kind' => 'text', 'element' => 't0', 'languages' => ['en', 'pt']],
        ['id' => 'price', 'name' => 'Price', 'kind' => 'number', 'element' => 't1', 'argument' => 'price', 'decimals' => 2],
    ];
    $document['elements'][2] = ['message' => true, 'text' => 'From {price}'] + $document['elements'][2];
    $template = Layout::fromArray($document + ['slots' => $slots]);
    $rows = array_map(static fn (int $n): array => ['name' => "Offer number $n", 'fare' => $n / 8], range(1, 1000));
    $many = FilledRows::of($template, Node::at(['head' => ['en' => 'name', 'pt' => 'Oferta: {name}'], 'price' => 'fare'], '/map'), 'Offer {name}');
    $filled = seconds(static fn (): mixed => $many->filled($rows, new Formats('en', 'UTC'), []), 3);
    say('1,000 rows filled into a template', sprintf('%.0f ms, %s x baseline', 1000 * $filled, number_format($filled / $hash)), 'under 2 s');
    $around = $style('#14665b');
    $values = ['head' => ['en' => 'Late boats', 'pt' => 'Barcos tardios'], 'price' => 18.5];
    $one = Filled::fromArray(['format' => Filled::FORMAT, 'id' => 'f', 'name' => 'F', 'template' => 'l', 'values' => $values]);
    $told = seconds(static fn (): mixed => Filling::of($one, $template)->findings($around), 20);
    say('one of them put in, and what is wrong with it', sprintf('%.1f ms, %s x baseline', 1000 * $told, number_format($told / $hash)), 'under 150 ms');

    $key = seconds(static function () use ($one, $template, $around): mixed {
        $filling = Filling::of($one, $template);
        $composed = Composer::compose($filling->layout($around->speaking), null, $around);

        return [$filling->looked($composed, $around), $filling->room($around), RunSheet::of(Programme::endless($composed, 'UTC'), $around, 0, 6 * 3_600_000)];
    }, 20);
    say('a keystroke while it is filled in: composed, checked, the room that is left, its run sheet', sprintf('%.1f ms, %s x baseline', 1000 * $key, number_format($key / $hash)), 'under 150 ms');

    $places = [['id' => 'p0', 'name' => 'P', 'settings' => ['timezone' => 'Europe/Lisbon', 'style' => 's', 'languages' => ['en'], 'vars' => ['phone' => '1']]]];
    foreach (range(1, 499) as $n) {
        $places[] = ['id' => "p$n", 'name' => "P$n", 'parent' => 'p' . intdiv($n - 1, 4), 'settings' => $n % 3 === 0 ? ['vars' => ['phone' => (string) $n], 'overlays' => ['add' => ["o$n"]]] : []];
    }
    $displays = array_map(static fn (int $n): array => ['id' => "d$n", 'place' => 'p' . $n % 500, 'settings' => $n % 50 === 0 ? ['languages' => ['pt']] : []], range(1, 5000));
    $estate = Estate::fromArray(['format' => Estate::FORMAT, 'id' => 'e', 'name' => 'E', 'places' => $places, 'displays' => $displays]);
    $resolved = seconds(static function () use ($estate): void {
        foreach (range(1, 5000) as $n) {
            $estate->at("d$n")->settled();
        }
    }, 3);
    say('settings of 5,000 displays in 500 places resolved', sprintf('%.0f ms, %s x baseline', 1000 * $resolved, number_format($resolved / $hash)), 'under 100 ms');
}
