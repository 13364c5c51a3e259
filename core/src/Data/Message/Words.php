<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Message;

/** Words that stand as they are. */
final readonly class Words implements Piece
{
    public function __construct(private string $text)
    {
    }

    public function told(Telling $telling): string
    {
        return $this->text;
    }

    public function names(): array
    {
        return [];
    }
}
