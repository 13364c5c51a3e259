<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Where a signal leads from some states. */
final readonly class Transition
{
    public const EVERY = '*';
    private const FROM = '^(?:\\*|[A-Za-z_][A-Za-z0-9_-]*)$';
    private const LONGEST_MS = 366 * 86_400_000;

    /**
     * @param list<string> $from
     * @param int $cooldownMs after it was taken it is not taken again for so long
     * @param bool $again whether it begins the state anew in which one is; else its linger time alone
     * @param bool $carries whether what it plays tells the row that came with the signal
     */
    private function __construct(public array $from, public string $on, public string $to, public int $cooldownMs, public bool $again, public bool $carries)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'from' => Field::list(Field::pattern(self::FROM), TriggerMap::MOST_STATES, 1)->required()->saying('states; * for every state'),
            'on' => Field::pattern(TriggerMap::NAME)->required(),
            'to' => Field::pattern(TriggerMap::NAME)->required(),
            'cooldown_ms' => Field::int(0, self::LONGEST_MS),
            'again' => Field::bool()->saying('false: of the state in which one is, the linger time alone is begun again'),
            'carries' => Field::bool()->saying('what it leads to tells the row that came with the signal'),
        ])->named('Transition');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node, Names $states, Names $signals): self
    {
        $node->object(...self::fields()->names());
        $from = [];
        foreach ($node->field('from')->items(TriggerMap::MOST_STATES) as $one) {
            $from[] = $one->value === self::EVERY ? self::EVERY : $states->known($one, 'state');
        }
        if ($from === []) {
            throw $node->field('from')->refused(Reason::ValueRange, 'names no state; "*" means every state.');
        }

        return new self(
            $from,
            $signals->known($node->field('on'), 'signal'),
            $states->known($node->field('to'), 'state'),
            $node->optional('cooldown_ms')?->int(0, self::LONGEST_MS, 'ms') ?? 0,
            $node->optional('again')?->bool() ?? true,
            $node->optional('carries')?->bool() ?? false,
        );
    }

    public function leadsFrom(string $state): bool
    {
        return in_array($state, $this->from, true) || in_array(self::EVERY, $this->from, true);
    }

    /** Whether in this state it begins nothing anew but the linger time. */
    public function goesOnIn(string $state): bool
    {
        return !$this->again && $this->to === $state;
    }
}
