<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\DBAL\Connection;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;
use UpperPane\Core\Setting\Settings;

/** What settings of places and displays name stays there. */
final readonly class StatedSettings implements Holding
{
    public function __construct(private Connection $connection)
    {
    }

    public function letsGo(About $thing): void
    {
        $list = ['overlay' => Settings::OVERLAYS, 'trigger' => Settings::TRIGGERS][$thing->kind] ?? null;
        if ($list !== null) {
            $this->letsGoListed($thing, $list);

            return;
        }
        $path = $thing->kind === 'style' ? '$.' . Settings::STYLE : '$.' . Settings::STANDBY . ".$thing->kind";
        $names = array_filter([
            ...$this->connection->fetchFirstColumn('SELECT name FROM place WHERE JSON_VALUE(settings, ?) = ? ORDER BY position, id', [$path, $thing->id]),
            ...$this->connection->fetchFirstColumn('SELECT name FROM surveyed_display WHERE JSON_VALUE(settings, ?) = ? ORDER BY position, id', [$path, $thing->id]),
        ], is_string(...));
        if ($names !== []) {
            throw new Problem(409, "$thing->kind.used", sprintf('"%s" holds at %s. State another one there first.', $thing->name, implode(', ', array_slice($names, 0, 5))));
        }
    }

    /** @throws Problem where a place or display puts it there */
    private function letsGoListed(About $thing, string $list): void
    {
        $stated = "JSON_CONTAINS(JSON_EXTRACT(settings, '$.$list.add'), JSON_QUOTE(?)) OR JSON_CONTAINS(JSON_EXTRACT(settings, '$.$list.only'), JSON_QUOTE(?))";
        $names = array_filter([
            ...$this->connection->fetchFirstColumn("SELECT name FROM place WHERE $stated ORDER BY position, id", [$thing->id, $thing->id]),
            ...$this->connection->fetchFirstColumn("SELECT name FROM surveyed_display WHERE $stated ORDER BY position, id", [$thing->id, $thing->id]),
        ], is_string(...));
        if ($names !== []) {
            throw new Problem(409, "$thing->kind.used", sprintf('"%s" holds above what plays at %s. Take it off there first.', $thing->name, implode(', ', array_slice($names, 0, 5))));
        }
    }

    public function goesWith(string $kind): array
    {
        return [];
    }

    public function forgets(string $kind): array
    {
        return [];
    }
}
