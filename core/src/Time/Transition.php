<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** The first moments of an item, in which the one before is still seen, held at its end. They lie inside its duration. */
final readonly class Transition
{
    public const USUAL_MS = 500;
    private const LONGEST_MS = 60_000;

    /** @param 'left'|'right'|'top'|'bottom' $from the side that a push or a wipe comes from */
    private function __construct(public TransitionKind $kind, public int $ms, public string $from)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'kind' => Field::oneOf(...array_column(TransitionKind::cases(), 'value'))->required(),
            'ms' => Field::int(0, self::LONGEST_MS)->saying('inside the duration'),
            'from' => Field::oneOf('left', 'right', 'top', 'bottom')->saying('side that a push or a wipe comes from; right and left by default'),
        ])->named('Transition');
    }

    public static function cut(): self
    {
        return new self(TransitionKind::Cut, 0, 'left');
    }

    /**
     * @param ?int $durationMs of the item; null where it is not known yet
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node, ?int $durationMs): self
    {
        $node->object(...self::fields()->names());
        $kind = TransitionKind::from($node->field('kind')->oneOf(...array_column(TransitionKind::cases(), 'value')));
        $ms = $node->optional('ms');
        $length = $ms?->int(0, self::LONGEST_MS, 'ms') ?? self::USUAL_MS;
        $from = $node->optional('from');
        $side = $from === null ? null : match ($from->oneOf('left', 'right', 'top', 'bottom')) {
            'right' => 'right',
            'top' => 'top',
            'bottom' => 'bottom',
            default => 'left',
        };
        if ($from !== null && !in_array($kind, [TransitionKind::Push, TransitionKind::Wipe], true)) {
            throw $from->refused(Reason::FieldUnknown, sprintf('stands in a %s; only a push and a wipe come from a side.', $kind->value));
        }
        if ($kind === TransitionKind::Cut || $length === 0) {
            return self::cut();
        }
        if ($durationMs !== null && $length > $durationMs) {
            throw ($ms ?? $node)->refused(Reason::ValueRange, sprintf('is %d ms, longer than the item, which lasts %d ms; a transition lies inside the duration.', $length, $durationMs));
        }

        return new self($kind, $length, $side ?? ($kind === TransitionKind::Push ? 'right' : 'left'));
    }

    /** @return array{kind: string, ms: int, from: string} */
    public function toArray(): array
    {
        return ['kind' => $this->kind->value, 'ms' => $this->ms, 'from' => $this->from];
    }
}
