<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Contracts\Service\ResetInterface;

/**
 * Whoever is signed in reaches what lies in the places at which he has the right that is made use of.
 *
 * Pictures and films are there for all. Whoever hands over or designs looks at all documents; whoever only fills in, at templates, at what is filled in
 * for his places, and at what he has filled in himself.
 */
final class ByPlace implements Reach, ResetInterface
{
    /** @var array<string, ?list<string>> ids of things, by who asks, the right and the kind; null for all of them */
    private array $ids = [];

    public function __construct(private readonly Connection $connection, private readonly Rights $rights)
    {
    }

    public function reset(): void
    {
        $this->ids = [];
    }

    public function condition(string $kind, string $id): string
    {
        $right = $this->rights->needed();
        $places = $this->rights->places($right);
        if ($places === null || $kind === 'media' || ($kind === 'design' && $this->rights->login() === null)) {
            return self::ALL;
        }
        $key = implode(' ', [$this->rights->login(), $right->value, $kind]);
        $ids = array_key_exists($key, $this->ids) ? $this->ids[$key] : $this->ids[$key] = match ($kind) {
            'place' => $right === Right::Look ? $this->outwards($places) : $places,
            'display' => $this->displays($places),
            'design' => $this->designs($right, $places),
        };

        return match ($ids) {
            null => self::ALL,
            [] => '1 = 0',
            // Ids are made here or read as such: they have no quotes.
            default => sprintf("%s IN ('%s')", $id, implode("', '", array_map(static fn (string $one): string => strtr($one, ["'" => '', '\\' => '']), $ids))),
        };
    }

    /**
     * With the places in which they lie: of these nothing but their names is told.
     *
     * @param list<string> $places
     * @return list<string>
     */
    private function outwards(array $places): array
    {
        $parents = $this->connection->fetchAllKeyValue('SELECT id, parent_id FROM place');
        $all = [];
        foreach ($places as $place) {
            for ($at = $place; is_string($at) && !isset($all[$at]); $at = $parents[$at] ?? null) {
                $all[$at] = true;
            }
        }

        return array_map(strval(...), array_keys($all));
    }

    /**
     * @param list<string> $places
     * @return list<string>
     */
    private function displays(array $places): array
    {
        return $this->column('SELECT id FROM surveyed_display WHERE place_id IN (?)', [$places], [ArrayParameterType::STRING]);
    }

    /**
     * @param list<string> $places
     * @return ?list<string>
     */
    private function designs(Right $right, array $places): ?array
    {
        $isLooking = $right === Right::Look;
        if (($isLooking || $right === Right::HandOver) && $this->rights->has(Right::HandOver)) {
            return null;
        }
        $displays = $this->displays($places);
        $inPlace = '(d.display_id IN (?) OR d.place_id IN (?))';
        $types = [ArrayParameterType::STRING, ArrayParameterType::STRING];
        if ($right === Right::Design) {
            // All that is for no other place.
            return $this->column("SELECT d.id FROM design d WHERE (d.display_id IS NULL AND d.place_id IS NULL) OR $inPlace", [$displays, $places], $types);
        }
        $own = $this->column(
            "SELECT d.id FROM design d WHERE d.kind = 'filled'
             AND ($inPlace OR EXISTS (SELECT 1 FROM design_revision v WHERE v.design_id = d.id AND v.number = 1 AND v.saved_by = ?))",
            [$displays, $places, (string) $this->rights->login()],
            $types,
        );
        $free = $right === Right::FillIn || $isLooking ? $this->templates($places) : [];

        return [...$own, ...$free];
    }

    /**
     * Layouts that leave something open, and are for all or for one of these places.
     *
     * @param list<string> $places
     * @return list<string>
     */
    private function templates(array $places): array
    {
        return $this->column(
            "SELECT d.id FROM design d WHERE d.kind = 'layout' AND JSON_LENGTH(d.document, '$.slots') > 0 AND (d.place_id IS NULL OR d.place_id IN (?))",
            [$this->outwards($places)],
            [ArrayParameterType::STRING],
        );
    }

    /**
     * @param list<mixed> $values
     * @param array<int<0, max>, ArrayParameterType> $types
     * @return list<string>
     */
    private function column(string $sql, array $values, array $types): array
    {
        return array_values(array_filter($this->connection->fetchFirstColumn($sql, $values, $types), is_string(...)));
    }
}
