<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

/** Which rows of a source are told, or looked at, by designs as they are saved by now. */
final readonly class RowsInUse
{
    public function __construct(private References $references, private Designs $designs)
    {
    }

    /** @return list<Rows> each once */
    public function of(string $source): array
    {
        $rows = [];
        foreach ($this->designs->those(array_map(strval(...), array_keys($this->references->users(References::DESIGN, $source)))) as $design) {
            $rows += self::in($design->document, $source);
        }

        return array_values($rows);
    }

    /**
     * @param array<mixed> $document
     * @return array<string, Rows> by what they say
     */
    private static function in(array $document, string $source): array
    {
        $rows = [];
        if (($document['source'] ?? null) === $source) {
            try {
                $one = Rows::fromNode(Node::root($document));
                $rows[$one->key()] = $one;
            } catch (Refused) {
                // What names the source and is no rows is none.
            }
        }
        foreach ($document as $value) {
            $rows += is_array($value) ? self::in($value, $source) : [];
        }

        return $rows;
    }
}
