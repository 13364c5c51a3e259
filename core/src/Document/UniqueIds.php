<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** Refuses an id that stands twice in one scope. */
final class UniqueIds
{
    /** @var array<string, string> id to the path where it stood first */
    private array $seen = [];

    /** @throws DocumentRefused */
    public function take(Node $id): string
    {
        $value = $id->id();
        if (isset($this->seen[$value])) {
            throw $id->refused(Reason::IdTwice, sprintf('is "%s", which %s has already.', $value, $this->seen[$value]));
        }
        $this->seen[$value] = $id->path;

        return $value;
    }
}
