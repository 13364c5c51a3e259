<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use UpperPane\App\Account\Reach;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\Feeding;
use UpperPane\App\Layout\HouseStyles;
use UpperPane\App\Layout\PlaysRowByRow;
use UpperPane\App\Layout\References;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;

/** What a change of a house style reaches: designs that name what becomes another, and the displays on which these stand. */
final readonly class StyleReach
{
    public function __construct(
        private Connection $connection,
        private Designs $designs,
        private References $references,
        private HouseStyles $styles,
        private DesignLibrary $library,
        private PlaysRowByRow $rowByRow,
        private Surroundings $surroundings,
        private Feeding $feeding,
        private ClockInterface $clock,
        private Reach $reach,
    ) {
    }

    /**
     * @param array<string, mixed> $document the style as it would be saved
     * @return array{names: list<string>, designs: list<array<string, mixed>>, displays: list<array{id: string, name: string, kind: string, source: string, called: string}>}
     */
    public function of(Design $style, array $document): array
    {
        $names = $this->changed($style->id, $document);
        $designs = [];
        $users = $names === [] ? [] : $this->references->users(References::NAME, ...$names);
        [$before, $after] = [$this->seen($style->id, []), $this->seen($style->id, [$style->id => $document])];
        foreach ($users === [] ? [] : $this->designs->those(array_map(strval(...), array_keys($users))) as $design) {
            if ($design->kind !== DesignKind::Style) {
                $designs[] = ['id' => $design->id, 'kind' => $design->kind->value, 'name' => $design->name, 'revision' => $design->revision]
                    + $this->found($design, $before, $after);
            }
        }
        usort($designs, static fn (array $a, array $b): int => [count($b['worse']), $a['name']] <=> [count($a['worse']), $b['name']]);

        return ['names' => $names, 'designs' => $designs, 'displays' => $users === [] ? [] : $this->displays($style->id, array_map(strval(...), array_keys($users)))];
    }

    /**
     * One of the designs that it reaches, before and after.
     *
     * @param array<string, mixed> $document the style as it would be saved
     * @return array{?Composed, ?Composed} null where it cannot be drawn
     */
    public function pictures(Design $style, array $document, Design $design): array
    {
        return [$this->composed($design, $this->seen($style->id, [])), $this->composed($design, $this->seen($style->id, [$style->id => $document]))];
    }

    private function composed(Design $design, Surroundings $surroundings): ?Composed
    {
        try {
            return $this->looked($design, $surroundings);
        } catch (Refused) {
            return null;
        }
    }

    /**
     * As it is looked at while it is designed.
     *
     * @throws Refused
     */
    private function looked(Design $design, Surroundings $surroundings): Composed
    {
        $library = $this->library->seen($surroundings);
        $composer = $library->composer($design->document);
        $layout = $library->written($design->document, $composer);
        [$composer] = $this->rowByRow->composer($layout->id, $composer);

        return $composer->layout($layout);
    }

    /**
     * Names that mean something else then, in it and in those that extend it.
     *
     * @param array<string, mixed> $document
     * @return list<string> as `colours/sea`
     */
    private function changed(string $id, array $document): array
    {
        $changed = [];
        $after = $this->styles->all([$id => $document]);
        foreach ($this->styles->all() as $other => $styles) {
            $changed += array_diff_assoc($styles->meanings(), $was = ($after[$other] ?? new Styles())->meanings()) + array_diff_assoc($was, $styles->meanings());
        }
        ksort($changed);

        return array_map(strval(...), array_keys($changed));
    }

    /** @param array<string, array<string, mixed>> $instead documents in place of saved ones, by id */
    private function seen(string $style, array $instead): Surroundings
    {
        $now = (int) $this->clock->now()->format('Uv');

        return $this->styles->elsewhere($this->surroundings->at($now)->fed($this->feeding->now($now)))->styled($this->styles->all($instead)[$style] ?? new Styles());
    }

    /** @return array{worse: list<string>, better: list<string>} what the checks say of it then and did not before, and the other way round */
    private function found(Design $design, Surroundings $before, Surroundings $after): array
    {
        if (!in_array($design->kind, [DesignKind::Layout, DesignKind::Filled], true)) {
            return ['worse' => [], 'better' => []];
        }
        [$was, $is] = [$this->said($design, $before), $this->said($design, $after)];

        return ['worse' => array_values(array_diff($is, $was)), 'better' => array_values(array_diff($was, $is))];
    }

    /** @return list<string> */
    private function said(Design $design, Surroundings $surroundings): array
    {
        try {
            $findings = Checks::run($this->looked($design, $surroundings), $surroundings);
        } catch (Refused $e) {
            return [$e->getMessage()];
        }

        return self::messages($findings);
    }

    /** @return list<string> */
    private static function messages(Findings $findings): array
    {
        return array_values(array_unique(array_map(static fn ($finding): string => $finding->message, $findings->all)));
    }

    /**
     * Displays on which one of these stands, in this style.
     *
     * @param list<string> $designs ids
     * @return list<array{id: string, name: string, kind: string, source: string, called: string}>
     */
    private function displays(string $style, array $designs): array
    {
        $rows = $this->connection->fetchAllAssociative(
            "SELECT s.id, s.name, r.source_kind AS kind, r.source_id AS source, r.name AS called FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id
             WHERE r.made_of IN (SELECT made_of FROM release_part WHERE design_id = ?) AND r.made_of IN (SELECT made_of FROM release_part WHERE design_id IN (?))
                AND {$this->reach->condition('display', 's.id')} ORDER BY s.position, s.id",
            [$style, $designs],
            [1 => ArrayParameterType::STRING],
        );

        /** @var list<array{id: string, name: string, kind: string, source: string, called: string}> $rows */
        return $rows;
    }
}
