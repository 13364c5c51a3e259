<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;

/** The words of an element in several languages, as its document says them. */
final readonly class Languages
{
    public const MOST = 20;
    public const LEAST_TURN_MS = 500;
    private const MOST_TURN_MS = 86_400_000;
    private const TURN_MS = 6000;

    /**
     * @param non-empty-array<string, string> $texts by language, in the order in which they are shown
     * @param array<string, ?Message> $messages that they are; null where they are words as they stand
     */
    private function __construct(public array $texts, public array $messages, public int $turnMs)
    {
    }

    /**
     * @param int $longest characters of a text
     * @return array<string, Field>
     */
    public static function fields(int $longest): array
    {
        return [
            'texts' => Field::map(Field::text(0, $longest, Role::Words), self::MOST, Field::LANGUAGE)
                ->saying('the text in several languages, which take turns in this order where the place has not chosen among them; text is the first of them'),
            'turn_ms' => Field::int(self::LEAST_TURN_MS, self::MOST_TURN_MS)->saying('how long each language stands, ms; 6,000 unless stated'),
        ];
    }

    /**
     * @param Node $node of the element
     * @param bool $isMessage whether its texts are messages
     * @param \Closure(Node): string $text reads one of them
     * @return ?self null where it has one text for all
     * @throws Refused
     */
    public static function of(Node $node, bool $isMessage, \Closure $text): ?self
    {
        $turn = $node->optional('turn_ms');
        $turnMs = $turn?->int(self::LEAST_TURN_MS, self::MOST_TURN_MS, 'ms') ?? self::TURN_MS;
        $given = $node->optional('texts');
        if ($given === null) {
            return null;
        }
        [$texts, $messages] = [[], []];
        foreach ($given->members(self::MOST) as $language => $one) {
            self::check((string) $language, $one);
            $texts[(string) $language] = $text($one);
            $messages[(string) $language] = $isMessage ? Message::parse($texts[(string) $language], $one->path) : null;
        }

        return $texts === [] ? throw $given->refused(Reason::ValueRange, 'is empty; a text in one language at the least is right.') : new self($texts, $messages, $turnMs);
    }

    /** @throws Refused unless the name under which something stands is a language tag */
    public static function check(string $language, Node $node): void
    {
        if (preg_match('/' . Field::LANGUAGE . '/D', $language) !== 1) {
            throw $node->refused(Reason::ValueRange, sprintf('stands under "%s"; a language such as en or pt-PT is right.', mb_strimwidth($language, 0, 40, '…')));
        }
    }
}
