<?php

declare(strict_types=1);

namespace UpperPane\Core\Trigger;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Time\Schedule\Played;

/** What is shown until something else is: over the whole display or in a zone. */
final readonly class State
{
    private const OWN = 'own';
    private const ENDLESS = 'endless';
    private const LONGEST_MS = 366 * 86_400_000;

    /**
     * @param ?Played $plays null where what the display plays anyway goes on, or nobody said yet what it plays
     * @param ?int $lingerMs how long it stands; null where it has no end, or one length of what it plays
     * @param bool $isOwn whether it stands for one length of what it plays
     * @param ?string $then the state behind it; null at rest
     * @param array<string, mixed> $given as it was read
     */
    private function __construct(
        public string $id,
        public ?Played $plays,
        public ?int $lingerMs,
        public bool $isOwn,
        public ?string $then,
        public ?string $zone,
        private array $given,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'id' => Field::pattern(TriggerMap::NAME)->required(),
            'name' => Field::name(),
            'plays' => Field::either(Played::field(), Field::nothing())->saying('left out: what plays anyway goes on, at rest alone'),
            'zone' => Field::id()->saying('left out: the whole display'),
            'linger_ms' => Field::int(1, self::LONGEST_MS),
            'linger' => Field::oneOf(self::OWN, self::ENDLESS)->saying('one length of what it plays, or without end'),
            'then' => Field::pattern(TriggerMap::NAME)->saying('left out: the rest state'),
        ])->named('State');
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node, string $id, string $rest, Names $states): self
    {
        $node->object(...self::fields()->names());
        $node->optional('name')?->name();
        $plays = ($field = $node->given('plays')) === null ? null : Played::fromNode($field);
        $zone = $node->optional('zone')?->id();
        $given = $node->fields();
        if ($id === $rest) {
            foreach (['linger', 'linger_ms', 'then'] as $name) {
                if ($node->has($name)) {
                    throw $node->field($name)->refused(Reason::FieldUnknown, sprintf('stands at the rest state "%s", which never ends by itself: take it out.', $id));
                }
            }

            return new self($id, $plays, null, false, null, $zone, $given);
        }
        $node->field('plays');
        $linger = $node->optional('linger')?->oneOf(self::OWN, self::ENDLESS);
        if ($linger !== null && $node->has('linger_ms')) {
            throw $node->field('linger')->refused(Reason::ValueRange, 'stands beside linger_ms; one of the two is right.');
        }

        return new self(
            $id,
            $plays,
            $linger === null ? $node->field('linger_ms')->int(1, self::LONGEST_MS, 'ms') : null,
            $linger === self::OWN,
            ($then = $node->optional('then')) === null ? $rest : $states->known($then, 'state'),
            $zone,
            $given,
        );
    }

    /** Whether it stands until a signal comes. */
    public function isEndless(): bool
    {
        return $this->lingerMs === null && !$this->isOwn;
    }

    /** The same, for so long: of what stands for one length of what it plays. */
    public function lasting(int $ms): self
    {
        return new self($this->id, $this->plays, $ms, false, $this->then, $this->zone, $this->given);
    }

    public function name(): string
    {
        return is_string($this->given['name'] ?? null) ? $this->given['name'] : $this->id;
    }
}
