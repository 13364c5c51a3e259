<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Names of states, or of signals: each once, also where it is written in other case. */
final class Names
{
    /** @var array<string, array{string, string}> the name and where it stood first, by itself in small letters */
    private array $seen = [];

    /** @throws DocumentRefused */
    public function take(Node $node): string
    {
        $name = self::name($node);
        $known = $this->seen[strtolower($name)] ?? null;
        if ($known !== null) {
            throw $node->refused(Reason::IdTwice, $known[0] === $name
                ? sprintf('is "%s", which %s has already.', $name, $known[1])
                : sprintf('is "%s", which differs from "%s" (%s) by its case alone.', $name, $known[0], $known[1]));
        }
        $this->seen[strtolower($name)] = [$name, $node->path];

        return $name;
    }

    /**
     * One that was taken before.
     *
     * @throws DocumentRefused
     */
    public function known(Node $node, string $what): string
    {
        $name = $node->text(1, 200);
        $known = $this->seen[strtolower($name)][0] ?? null;
        if ($known !== $name) {
            throw $node->refused(Reason::RefUnknown, sprintf(
                'is "%s", and there is no %s of that name%s.',
                mb_strimwidth($name, 0, 80, '…'),
                $what,
                $known === null ? '' : sprintf('; "%s" is there', $known),
            ));
        }

        return $name;
    }

    /** @throws DocumentRefused */
    private static function name(Node $node): string
    {
        $name = $node->text(1, 80);

        return preg_match('/' . TriggerMap::NAME . '/D', $name) === 1
            ? $name
            : throw $node->refused(Reason::ValueRange, sprintf('is "%s"; a name is of letters, figures, _ and -, with a letter or _ first.', $name));
    }
}
