<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Data\Source;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Kind\Kinds;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;

/** What documents of any format name and say, found without reading them: also in one that cannot be read. */
final readonly class Documents
{
    /**
     * @param array<mixed> $document a layout, a playlist, a schedule or a source
     * @return array{designs: list<string>, media: list<string>, faces: list<string>, words: list<string>} ids, families of type faces, and what viewers read, each once
     */
    public static function named(array $document): array
    {
        $found = ['designs' => [], 'media' => [], 'faces' => [], 'words' => []];
        self::collect(match ($document['format'] ?? null) {
            Playlist::FORMAT => Playlist::fields(),
            Schedule::FORMAT => Schedule::fields(),
            Source::FORMAT => Source::fields(),
            Filled::FORMAT => Filled::fields(),
            default => Layout::fields(),
        }, $document, $found);

        return array_map(array_values(...), $found);
    }

    /**
     * @param array<mixed> $value
     * @param array{designs: array<string>, media: array<string>, faces: array<string>, words: array<string>} $found
     */
    private static function collect(Fields $fields, array $value, array &$found): void
    {
        $fields->mapped($value, static function (mixed $one, Role $role) use (&$found): mixed {
            if (is_string($one) && in_array($role, [Role::LayoutId, Role::PlaylistId, Role::Source], true)) {
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
        foreach (is_array($value['elements'] ?? null) ? $value['elements'] : [] as $element) {
            if (is_array($element) && is_string($element['kind'] ?? null)) {
                self::collect(Kinds::fieldsOf($element['kind']), $element, $found);
            }
        }
    }
}
