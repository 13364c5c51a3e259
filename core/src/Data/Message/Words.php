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

    public function inPart(Telling $telling): array
    {
        return [[true, $this->text]];
    }

    /**
     * A text as a pattern that tells just that.
     *
     * @param bool $isPlural whether it stands in a plural, where # is a sign of its own
     */
    public static function quoted(string $text, bool $isPlural): string
    {
        return (string) preg_replace_callback(
            $isPlural ? "/[{}#']+/" : "/[{}']+/",
            static fn (array $run): string => trim($run[0], "'") === '' ? $run[0] . $run[0] : "'" . strtr($run[0], ["'" => "''"]) . "'",
            $text,
        );
    }

    public function names(): array
    {
        return [];
    }
}
