<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback;

use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Drawing\Drawings;
use UpperPane\Core\Time\Item;
use UpperPane\Core\Time\Loop;
use UpperPane\Core\Time\Transition;
use UpperPane\Core\Time\TransitionKind;

/**
 * A layout, or a playlist over a whole canvas, as SMIL 3.0 (W3C, Language profile): regions, and what plays in them in sequence.
 *
 * Zones, nested layouts, pictures, texts and grounds are written; clocks, codes, running text and shapes have no counterpart there and
 * are named in a comment. Durations are those of the loop, so that followers change with their leader.
 */
final class SmilText
{
    /** @var list<string> regions and transitions, as they are met */
    private array $regions = [];

    /** @var array<string, string> ids by what a transition is */
    private array $transitions = [];

    /** @var list<string> elements that are not written */
    private array $omitted = [];

    /** @param \Closure(Media): string $address of a file, as players find it */
    private function __construct(private readonly \Closure $address)
    {
    }

    /** @param \Closure(Media): string $address of a file, as players find it */
    public static function of(Composed $layout, \Closure $address): string
    {
        $writer = new self($address);
        $body = $writer->layout($layout, Placing::outermost(), '  ');
        $size = sprintf('width="%d" height="%d"', $layout->canvas->width, $layout->canvas->height);
        $lines = [
            '<?xml version="1.0" encoding="UTF-8"?>',
            '<!DOCTYPE smil PUBLIC "-//W3C//DTD SMIL 3.0 Language//EN" "http://www.w3.org/2008/SMIL30/SMIL30Language.dtd">',
            '<smil xmlns="http://www.w3.org/ns/SMIL" version="3.0" baseProfile="Language">',
            ' <head>',
            '  <meta name="title" content="' . $writer->escaped($layout->name) . '"/>',
            '  <layout>',
            "   <root-layout $size backgroundColor=\"" . $writer->escaped($layout->background->hex) . '"/>',
            ...$writer->regions,
            '  </layout>',
            ...array_map(static fn (string $what, string $id): string => "  <transition xml:id=\"$id\" $what/>", array_keys($writer->transitions), $writer->transitions),
            ' </head>',
            ' <body>',
            ...($writer->omitted === [] ? [] : ['  <!-- Not written: ' . str_replace('--', '- -', implode(', ', $writer->omitted)) . ' -->']),
            ...$body,
            ' </body>',
            '</smil>',
        ];

        return implode("\n", $lines) . "\n";
    }

    /** @return list<string> */
    private function layout(Composed $layout, Placing $placing, string $in): array
    {
        $lines = ["$in<par>"];
        foreach ($layout->visible()->elements as $element) {
            $own = Drawings::of($element)->smil($element, $layout, $placing, $this, "$in ");
            if ($own === null) {
                $this->omitted[] = $element->kind() . ' ' . $element->id();
            }
            array_push($lines, ...($own ?? []));
        }

        return [...$lines, "$in</par>"];
    }

    /** @return list<string> what plays in a zone, in sequence */
    public function zone(PlayingZone $zone, Loop $loop, Placing $placing, string $in): array
    {
        if ($loop->items === []) {
            return [];
        }
        $enabled = $zone->playlist->enabled();
        $lines = [];
        foreach ($loop->items as $slot => $index) {
            $endless = $loop->periodMs === null && $slot === count($loop->items) - 1;
            array_push($lines, ...$this->item($zone, $enabled[$index], $endless ? 'indefinite' : self::seconds($loop->lengths[$slot]), $placing, "$in "));
        }

        return ["$in<seq" . ($loop->periodMs === null ? '' : ' repeatCount="indefinite"') . '>', ...$lines, "$in</seq>"];
    }

    /** @return list<string> */
    private function item(PlayingZone $zone, Item $item, string $dur, Placing $placing, string $in): array
    {
        $box = Box::ofRect($zone->rect());
        if ($item->layout !== null) {
            $nested = $zone->layoutOf($item);
            return ["$in<par dur=\"$dur\">", ...$this->layout($nested, $placing->inside($zone->id(), $box, $zone->fit($item)), "$in "), "$in</par>"];
        }
        $media = $item->media ?? throw new \LogicException('An item plays a media or a layout.');
        $fit = ['contain' => 'meet', 'cover' => 'slice', 'fill' => 'fill', 'none' => 'hidden', 'scale-down' => 'meet'][$item->fit->value];
        $transition = $item->transition->ms === 0 ? '' : ' transIn="' . $this->transition($item->transition) . '"';
        $sound = $media->isFilm() ? sprintf(' soundLevel="%d%%"', $item->sound->volume) : '';

        return ["$in<" . ($media->isFilm() ? 'video' : 'img') . ' src="' . $this->addressOf($media) . '" region="' . $this->region($placing->rect($box), $fit)
            . "\" dur=\"$dur\" fill=\"transition\"$transition$sound/>"];
    }

    public function region(Box $box, string $fit = 'hidden'): string
    {
        $id = 'r' . (count($this->regions) + 1);
        $this->regions[] = sprintf(
            '   <region xml:id="%s" left="%s" top="%s" width="%s" height="%s" fit="%s" z-index="%d"/>',
            $id,
            ...array_map(static fn (float|int $px): string => (string) $px, array_values($box->toArray())),
            ...[$fit, count($this->regions) + 1],
        );

        return $id;
    }

    /** W3C SMIL 3.0, 12.4: the types and subtypes of SMPTE 258M. */
    private function transition(Transition $transition): string
    {
        [$type, $subtype] = match ($transition->kind) {
            TransitionKind::Push => ['pushWipe', ['left' => 'fromLeft', 'right' => 'fromRight', 'top' => 'fromTop', 'bottom' => 'fromBottom'][$transition->from]],
            TransitionKind::Wipe => ['barWipe', in_array($transition->from, ['left', 'right'], true) ? 'leftToRight' : 'topToBottom'],
            default => ['fade', 'crossfade'],
        };
        $back = $transition->kind === TransitionKind::Wipe && in_array($transition->from, ['right', 'bottom'], true) ? ' direction="reverse"' : '';
        $what = "type=\"$type\" subtype=\"$subtype\" dur=\"" . self::seconds($transition->ms) . "\"$back";
        $this->transitions[$what] ??= 't' . (count($this->transitions) + 1);

        return $this->transitions[$what];
    }

    /** Of a file, as it stands in the document. */
    public function addressOf(Media $media): string
    {
        return $this->escaped(($this->address)($media));
    }

    private static function seconds(int $ms): string
    {
        return rtrim(rtrim(sprintf('%.3f', $ms / 1000), '0'), '.') . 's';
    }

    public function escaped(string $text): string
    {
        return htmlspecialchars($text, ENT_XML1 | ENT_QUOTES | ENT_SUBSTITUTE, 'UTF-8');
    }
}
