<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\App\Display\Place;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Setting\Settings;

/** How something is seen where it hangs: by what holds there, in the house style and the languages of the place. */
final readonly class HouseStyles
{
    public function __construct(private Designs $anyDesigns, private Places $anyPlaces)
    {
    }

    /**
     * @param array<string, mixed> $settled what holds there (SurveyedDisplay::$settled)
     * @param array<int> $revisions by design id: styles as they were then; all others as they are saved by now
     */
    public function seen(Surroundings $surroundings, array $settled, array $revisions = []): Surroundings
    {
        $text = static fn (string $name): string => is_string($settled[$name] ?? null) ? $settled[$name] : '';
        $vars = [];
        foreach (is_array($settled[Settings::VARS] ?? null) ? $settled[Settings::VARS] : [] as $name => $value) {
            is_string($value) || is_int($value) || is_float($value) ? $vars[(string) $name] = $value : null;
        }

        return $surroundings
            ->in($text(Settings::TIMEZONE) ?: $surroundings->timezone)
            ->styled($this->of($text(Settings::STYLE), $revisions))
            ->speaking(new Speaking(null, $text(Settings::LANGUAGES) === '' ? [] : explode(',', $text(Settings::LANGUAGES)), $vars));
    }

    /** On a display; on none, as elsewhere(). */
    public function on(Surroundings $surroundings, ?SurveyedDisplay $display): Surroundings
    {
        return $display === null ? $this->elsewhere($surroundings) : $this->seen($surroundings->on($display->display()), $display->settled);
    }

    /** On no display: as at the first place that lies in no other; where that has no house style, in the first that there is. */
    public function elsewhere(Surroundings $surroundings): Surroundings
    {
        $outermost = array_filter($this->anyPlaces->all(), static fn (Place $place): bool => $place->parent === null);
        $settled = $outermost === [] ? [] : reset($outermost)->resolved()->settled();
        $style = $settled[Settings::STYLE] ?? '';

        // Whoever designs for nowhere in particular sees every language.
        return $this->seen($surroundings, [Settings::STYLE => $style === '' ? $this->anyDesigns->all(DesignKind::Style)[0]->id ?? '' : $style, Settings::LANGUAGES => ''] + $settled);
    }

    /**
     * @param array<string, array<string, mixed>> $instead documents in place of saved ones, by id
     * @return array<string, Styles> every style, by id, as far as it can be worked out
     */
    public function all(array $instead = []): array
    {
        $documents = [];
        foreach ($this->anyDesigns->all(DesignKind::Style) as $design) {
            $documents[$design->id] = $instead[$design->id] ?? $design->document;
        }
        $read = [];
        foreach ($documents as $id => $document) {
            try {
                $read[$id] = HouseStyle::fromNode(Node::root($document));
            } catch (Refused) {
                // It is told where it stands.
            }
        }
        $styles = [];
        foreach ($read as $id => $style) {
            try {
                $styles[(string) $id] = Styles::of($style, ...array_values(array_diff_key($read, [$id => 1])));
            } catch (Refused) {
                $styles[(string) $id] = new Styles();
            }
        }

        return $styles;
    }

    /** @param array<int> $revisions by design id */
    public function of(string $id, array $revisions = []): Styles
    {
        $chain = $this->chain($id, $revisions);
        try {
            return $chain === [] ? new Styles() : Styles::of(...array_map(static fn (array $one): HouseStyle => HouseStyle::fromNode(Node::root($one)), array_values($chain)));
        } catch (Refused) {
            // Of one that extends what is not there any more nothing is known to hold: names are told as unknown where they stand.
            return new Styles();
        }
    }

    /**
     * A style and those that it extends.
     *
     * @param array<int> $revisions by design id
     * @return array<string, array<string, mixed>> documents by id, the one itself first
     */
    public function chain(string $id, array $revisions = []): array
    {
        $chain = [];
        while ($id !== '' && !isset($chain[$id])) {
            $design = $this->anyDesigns->those([$id])[0] ?? null;
            $number = $revisions[$id] ?? null;
            $document = $number === null || $design?->revision === $number ? $design?->document : $this->anyDesigns->numbered($id, $number)?->document;
            if ($document === null || ($document['format'] ?? null) !== HouseStyle::FORMAT) {
                break;
            }
            $chain[$id] = $document;
            $id = is_string($document['extends'] ?? null) ? $document['extends'] : '';
        }

        return $chain;
    }
}
