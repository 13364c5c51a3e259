<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Data\SourceStatus;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Document\Limits;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Handover\EstateFindings;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Core\Handover\WorkFacts;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Media\MediaFindings;
use UpperPane\Core\Overlay\Kinds;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Panel\Panel;
use UpperPane\Core\Playback\Base;
use UpperPane\Core\Playback\OverlayChecks;
use UpperPane\Core\Playback\Report\Report;
use UpperPane\Core\Setting\Estate;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Time\Schedule\ScheduleChecks;
use UpperPane\Core\Trigger\TriggerChecks;
use UpperPane\Core\Trigger\TriggerMap;

/** What stands in docs/ and follows from the core. */
final class Docs
{
    /** @return array<string, string> text by file within docs/ */
    public static function all(): array
    {
        return [
            'checks.md' => self::checks(),
            'limits.md' => self::limits(),
            'formats/layout.schema.json' => self::schema('layout', 'Layout ' . Layout::FORMAT, Layout::schema()),
            'formats/playlist.schema.json' => self::schema('playlist', 'Playlist ' . Playlist::FORMAT, Playlist::schema()),
            'formats/report.schema.json' => self::schema('report', 'Report ' . Report::FORMAT, Report::fields()->schema()),
            'formats/rows.schema.json' => self::schema('rows', 'Rows ' . Rows::FORMAT, Rows::ofFile()->schema()),
            'formats/source.schema.json' => self::schema('source', 'Source ' . Source::FORMAT, Source::fields()->schema()),
            'formats/style.schema.json' => self::schema('style', 'House style ' . HouseStyle::FORMAT, HouseStyle::fields()->schema()),
            'formats/filled.schema.json' => self::schema('filled', 'Filled in ' . Filled::FORMAT, Filled::fields()->schema()),
            'formats/estate.schema.json' => self::schema('estate', 'Estate ' . Estate::FORMAT, Estate::fields()->schema()),
            'formats/overlay.schema.json' => self::schema('overlay', 'Overlay ' . Overlay::FORMAT, ['oneOf' => Kinds::schemas()]),
            'formats/sheet.schema.json' => self::schema('sheet', 'Sheet ' . Sheet::FORMAT, self::sheet()),
            'formats/triggers.schema.json' => self::schema('triggers', 'Triggers ' . TriggerMap::FORMAT, TriggerMap::fields()->schema()),
            'formats/panel.schema.json' => self::schema('panel', 'Panel ' . Panel::FORMAT, Panel::fields()->schema()),
            'formats/schedule.schema.json' => self::schema('schedule', 'Schedule ' . Schedule::FORMAT, Schedule::fields()->schema()),
        ];
    }

    private static function checks(): string
    {
        $layout = array_merge(...array_map(static fn (Check $check): array => $check::explained(), Checks::all()));

        return "# Checks\n\n"
            . "What Upper Pane looks for while a layout is made. A **stop** keeps it from being handed over; a **warning** wants a look; a **hint** is worth knowing.\n"
            . "A cure is tried before it is offered: the finding is gone after it, and nothing else is found.\n"
            . "This page is made of what stands at the classes that find it (`bin/docs`).\n\n" . self::table($layout)
            . "\n## Of what is filled in\n\nWhat is found in what stands in the slots of a template, by `bin/upperpane fill` and where it is filled in.\n\n" . self::table(Filling::explained())
            . "\n## Of overlays\n\nWhat is found in what lies above, by `bin/upperpane check LAYOUT --display D --overlay O --at INSTANT`; its words are judged as those of a layout are.\n\n"
            . self::table(OverlayChecks::explained())
            . "\n## Of triggers\n\nWhat is found in a map of triggers before anybody stands before it, by `bin/upperpane triggers MAP --display D --with FILE`.\n\n"
            . self::table(TriggerChecks::explained())
            . "\n## Of a schedule\n\nWhat is found in the bookings of a display or place, by `bin/upperpane plays` in the span asked for.\n\n"
            . self::table([...ScheduleChecks::explained(), ...Base::explained()])
            . "\n## Of the estate\n\nWhat is found in displays, their players and what was handed over to them, at Today, Displays and Playback.\n\n"
            . self::table([...EstateFindings::explained(), ...Planned::explained(), ...WorkFacts::explained()])
            . "\n## Of media\n\nWhat is found in files that were brought in, at Media.\n\n" . self::table(MediaFindings::explained())
            . "\n## Of data\n\nWhat is found in sources, at Data.\n\n" . self::table(SourceStatus::explained())
            . "\n## Of the survey\n\nWhat is found in a display itself, by `bin/upperpane wall` and at Displays.\n\n" . self::table(Survey::explained());
    }

    /** @param list<Explanation> $rows */
    private static function table(array $rows): string
    {
        return "| code | level | what | why | source |\n|---|---|---|---|---|\n" . implode('', array_map(
            static fn (Explanation $one): string => "| `$one->code` | $one->level | $one->what | $one->why | $one->source |\n",
            $rows,
        ));
    }

    private static function limits(): string
    {
        $rows = array_map(static fn (array $limit): string => sprintf("| %s | %s | %s |\n", $limit['what'], number_format($limit['most']), $limit['where']), Limits::all());

        return "# Limits\n\nWhat takes more is refused as `budget.exceeded`, in words, before it is worked out: when a document is saved anew, and when a question is asked.\n"
            . "What is stored already can still be opened and made smaller, and what was handed over plays on. This page is made of `Document\\Limits` (`bin/docs`).\n\n"
            . "| what | most | path of the refusal |\n|---|---|---|\n" . implode('', $rows);
    }

    /** @return array<string, mixed> a run sheet that may include others, or that is included and then has no canvas and no anchor of its own */
    private static function sheet(): array
    {
        $run = json_decode((string) file_get_contents(dirname(__DIR__, 3) . '/docs/formats/run-sheet.schema.json'), true);
        $name = ['type' => 'string', 'minLength' => 1, 'maxLength' => 2000];
        $run['$defs']['layers']['items']['oneOf'][] = ['type' => 'object', 'properties' => ['include' => $name, 'id' => $name], 'required' => ['include', 'id'], 'additionalProperties' => false];
        $file = ['url' => ['type' => 'string', 'pattern' => '^/sheets/'], 'sha256' => ['type' => 'string', 'pattern' => '^[0-9a-f]{64}$'], 'bytes' => ['type' => 'integer', 'minimum' => 1]];
        $includes = ['type' => 'object', 'additionalProperties' => ['type' => 'object', 'properties' => $file, 'required' => array_keys($file), 'additionalProperties' => false]];

        return [
            '$defs' => $run['$defs'],
            'type' => 'object',
            'properties' => ['format' => ['const' => Sheet::FORMAT], 'build' => ['type' => 'string']] + $run['properties'] + ['includes' => $includes],
            'required' => ['format', 'build', 'layers'],
            'dependentRequired' => ['canvas' => ['background', 'anchor_ms'], 'anchor_ms' => ['canvas']],
            'additionalProperties' => false,
        ];
    }

    /**
     * What has a title stands among the definitions, once.
     *
     * @param array<mixed> $schema
     * @param array<string, mixed> $named by title
     * @return array<mixed>
     */
    private static function hoisted(array $schema, array &$named): array
    {
        foreach ($schema as $key => $one) {
            if (is_array($one)) {
                $schema[$key] = self::hoisted($one, $named);
            }
        }
        $title = $schema['title'] ?? null;
        if (!is_string($title)) {
            return $schema;
        }
        $own = array_diff_key($schema, ['title' => 1, 'description' => 1]);
        if (($named[$title] ?? $own) !== $own) {
            throw new \LogicException("Two things are called $title in one schema.");
        }
        $named[$title] = $own;

        return ['$ref' => "#/\$defs/$title"] + array_intersect_key($schema, ['description' => 1]);
    }

    /** @param array<string, mixed> $schema */
    private static function schema(string $name, string $title, array $schema): string
    {
        $head = ['$schema' => 'https://json-schema.org/draft/2020-12/schema', '$id' => "https://upper-pane.invalid/formats/$name.schema.json", 'title' => $title];

        $named = [];
        $schema = self::hoisted($schema, $named);
        ksort($named);

        $whole = $head + array_merge_recursive($named === [] ? [] : ['$defs' => $named], $schema);

        return json_encode($whole, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR) . "\n";
    }
}
