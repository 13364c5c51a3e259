<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Told\Reading;

/** Who plays a layout row by row, and over which rows: so that it is seen over one of them while it is designed. */
final readonly class PlaysRowByRow
{
    /** So many designs that name a layout are looked through: it is asked whenever somebody types. */
    private const MOST = 20;

    public function __construct(private References $references, private Designs $anyDesigns)
    {
    }

    /**
     * What composes a layout; one that some design plays row by row is told over the first of these rows.
     *
     * @param Composer $composer of all that is in it
     * @return array{Composer, ?array{by: string, source: string, fields: list<string>, rows: int}} and whose rows these are
     */
    public function composer(string $layout, Composer $composer): array
    {
        $played = $this->of($layout, $composer);
        if ($played === null) {
            return [$composer, null];
        }
        $reading = $played['reading'];
        $rows = $reading->rowsAt($reading->atMs);

        return [$composer->toldOver($reading->teller($rows[0] ?? [])), [
            'by' => $played['by'],
            'source' => $reading->rows->source,
            'fields' => $reading->inTime?->table($reading->atMs)->names ?? [],
            'rows' => count($rows),
        ]];
    }

    /** @return ?array{by: string, reading: Reading} name of the first design that plays it so; null where none does, or not for anybody's eyes here */
    private function of(string $layout, Composer $composer): ?array
    {
        foreach (array_slice(array_keys($this->references->users(References::DESIGN, $layout)), 0, self::MOST) as $id) {
            $design = $this->anyDesigns->find((string) $id);
            $rows = $design === null ? null : self::rowsIn($design->document, $layout);
            if ($design === null || $rows === null) {
                continue;
            }
            try {
                return ['by' => $design->name, 'reading' => $composer->reading(Rows::fromNode(Node::root($rows)), '/each')];
            } catch (Refused) {
                // What cannot be chosen by now is told there, and not here.
            }
        }

        return null;
    }

    /**
     * @param array<mixed> $document
     * @return ?array<mixed> the rows of the first item in it that plays the layout
     */
    private static function rowsIn(array $document, string $layout): ?array
    {
        if (is_array($document['each'] ?? null) && is_array($document['layout'] ?? null) && ($document['layout']['ref'] ?? null) === $layout) {
            return $document['each'];
        }
        foreach ($document as $value) {
            $found = is_array($value) ? self::rowsIn($value, $layout) : null;
            if ($found !== null) {
                return $found;
            }
        }

        return null;
    }
}
