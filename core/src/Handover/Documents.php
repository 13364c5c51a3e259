<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Slots;
use UpperPane\Core\Overlay\Kinds as OverlayKinds;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Panel\Panel;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Trigger\TriggerMap;

/** What documents of any format name and say, found without reading them: also in one that cannot be read. */
final readonly class Documents
{
    /**
     * @param array<mixed> $document a layout, a playlist, a schedule, a source, an overlay, a map of triggers, a panel
     * @return array{designs: list<string>, media: list<string>, faces: list<string>, words: list<string>, names: list<string>} ids, families of type faces, what viewers
     *         read, and names of the house style as `colours/sea`, each once
     */
    public static function named(array $document): array
    {
        $found = ['designs' => [], 'media' => [], 'faces' => [], 'words' => [], 'names' => []];
        self::collect(match ($document['format'] ?? null) {
            Playlist::FORMAT => Playlist::fields(),
            Schedule::FORMAT => Schedule::fields(),
            Source::FORMAT => Source::fields(),
            Filled::FORMAT => Filled::fields(),
            HouseStyle::FORMAT => HouseStyle::fields(),
            TriggerMap::FORMAT => TriggerMap::fields(),
            Panel::FORMAT => Panel::fields(),
            Overlay::FORMAT => OverlayKinds::fieldsOf(is_string($document['kind'] ?? null) ? $document['kind'] : ''),
            default => Layout::fields(),
        }, $document, $found);

        return array_map(array_values(...), $found);
    }

    /**
     * @param array<mixed> $value
     * @param array{designs: array<string>, media: array<string>, faces: array<string>, words: array<string>, names: array<string>} $found
     */
    private static function collect(Fields $fields, array $value, array &$found): void
    {
        $fields->mapped($value, static function (mixed $one, Role $role) use (&$found): mixed {
            $name = StyleNames::nameOf($one, $role);
            if ($name !== null) {
                $found['names'][$name] = $name;
            } elseif (is_string($one) && in_array($role, [Role::LayoutId, Role::PlaylistId, Role::Source, Role::Style], true)) {
                $found['designs'][$one] = $one;
            } elseif (is_string($one) && $role === Role::MediaId) {
                $found['media'][$one] = $one;
            } elseif (is_string($one) && $role === Role::Face) {
                $found['faces'][$one] = $one;
            } elseif (is_string($one) && $role === Role::Words) {
                $words = trim((string) preg_replace('/\s+/u', ' ', $one));
                $found['words'] += $words === '' ? [] : [$words => $words];
            } elseif (is_array($one) && $role === Role::Layout) {
                is_string($one['ref'] ?? null) ? $found['designs'][$one['ref']] = $one['ref'] : self::collect(Layout::fields(), $one, $found);
            }

            return $one;
        });
        $kinds = [];
        foreach (is_array($value['elements'] ?? null) ? $value['elements'] : [] as $element) {
            if (is_array($element) && is_string($element['kind'] ?? null)) {
                self::collect(Kinds::fieldsOf($element['kind']), $element, $found);
                $kinds[is_string($element['id'] ?? null) ? $element['id'] : ''] = $element['kind'];
            }
        }
        foreach (is_array($value['slots'] ?? null) ? Slots::sets($value['slots']) : [] as [$element, $fields]) {
            self::collect(Kinds::fieldsOf($kinds[$element] ?? ''), $fields, $found);
        }
    }

    /**
     * What else decides how a document looks: whether it names anything of a house style, whether it is told in several languages or by messages, and what
     * its messages tell of the place.
     *
     * @param array<mixed> $document
     * @return array{style: bool, languages: bool, vars: list<string>}
     */
    public static function dependsOn(array $document): array
    {
        $vars = [];
        $isTold = ($document['format'] ?? null) === Filled::FORMAT;
        array_walk_recursive($document, static function (mixed $value, int|string $name) use (&$vars, &$isTold): void {
            if (is_string($value) && str_contains($value, Formats::PLACE) && preg_match_all('/\b' . Formats::PLACE . '([a-z][a-z0-9_]*)/', $value, $found) > 0) {
                $vars += array_fill_keys($found[1], true);
            }
            $isTold = $isTold || ($name === 'message' && $value === true);
        });

        return ['style' => StyleNames::mayStandIn($document), 'languages' => $isTold || self::hasTexts($document), 'vars' => array_map(strval(...), array_keys($vars))];
    }

    /** @param array<mixed> $value */
    private static function hasTexts(array $value): bool
    {
        foreach ($value as $name => $one) {
            if (is_array($one) && ($name === 'texts' || self::hasTexts($one))) {
                return true;
            }
        }

        return false;
    }
}
