<?php

declare(strict_types=1);

namespace UpperPane\Core\Overlay;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;

/** What lies above whatever a display plays, without any layout below being touched. */
final readonly class Overlay
{
    public const FORMAT = 'upper-pane/overlay@1';

    /**
     * @param int $createdMs Unix ms; of those of a kind and level the later lies above
     * @param array<mixed> $document as it was read
     */
    private function __construct(
        public string $id,
        public string $name,
        public string $kind,
        public Kind $lies,
        public int $level,
        public int $createdMs,
        public Times $when,
        private array $document,
    ) {
    }

    /** What every overlay has beside its kind. */
    public static function fields(): Fields
    {
        return Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'level' => Field::int(-1_000_000, 1_000_000)->saying('within its kind the higher lies above'),
            'created' => Field::text(1, 40)->required()->saying('instant, UTC; of one level the later lies above'),
            'when' => Times::field()->required(),
        ]);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/overlay@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        return self::fromNode(Node::root($document));
    }

    /** @throws Refused */
    public static function fromNode(Node $node): self
    {
        $kind = $node->field('kind')->oneOf(...array_keys(Kinds::ALL));
        $class = Kinds::ALL[$kind];
        $node->object('kind', ...self::fields()->names(), ...$class::fields()->names());
        $node->format(self::FORMAT);
        $created = $node->field('created');

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            $kind,
            $class::fromNode($node),
            $node->optional('level')?->int(-1_000_000, 1_000_000) ?? 0,
            Instant::parse($created->text(1, 40), $created->path)->ms,
            Times::fromNode($node->field('when'), $class::mayFollow()),
            is_array($node->value) ? $node->value : [],
        );
    }

    /** The same without end, as it is looked at. */
    public function always(): self
    {
        return new self($this->id, $this->name, $this->kind, $this->lies, $this->level, $this->createdMs, Times::always(), ['when' => Times::ALWAYS] + $this->document);
    }

    /**
     * What a viewer would see change.
     *
     * @return list<string> in words; empty where nothing changes
     */
    public function changesFrom(self $before): array
    {
        $known = ['text' => 'says something else', 'when' => 'is shown at other times', 'plays' => 'plays something else', 'media' => 'has another picture'];
        $changed = array_filter(
            array_keys($this->document + $before->document),
            fn (int|string $field): bool => !in_array($field, ['format', 'created'], true) && ($this->document[$field] ?? null) !== ($before->document[$field] ?? null),
        );
        $words = array_values(array_intersect_key($known, array_flip($changed)));
        $others = array_diff($changed, array_keys($known));

        return $changed === [] ? [] : [sprintf('"%s" %s.', $this->name, implode(', ', [...$words, ...($others === [] ? [] : ['changes its ' . strtr(implode(', ', $others), '_', ' ')])]))];
    }

    /** @return array{int, int, int} by which it lies above others: the place of its kind, its level, and when it was made (Unix ms) */
    public function lies(): array
    {
        return [Kinds::place($this->kind), $this->level, $this->createdMs];
    }

    /** Whether it lies above another: negative where it lies below. */
    public function comparedTo(self $other): int
    {
        return [...$this->lies(), $this->id] <=> [...$other->lies(), $other->id];
    }
}
