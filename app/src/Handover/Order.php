<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\Core\Document\Node;

/** What goes to which displays. */
final readonly class Order
{
    /**
     * @param ?Contents $contents null where an earlier release comes back as it was
     * @param non-empty-list<string> $displays ids
     * @param array<int> $putsBack number of the earlier release that it puts back, by display; empty where it puts none back
     * @param ?int $asItWas id of an earlier release whose bytes come back
     */
    public function __construct(public ?Contents $contents, public array $displays, public array $putsBack = [], public ?int $asItWas = null)
    {
    }

    /** @param array<int> $numbers of releases that are put back, by display */
    public static function of(Offer $offer, array $numbers = []): self
    {
        return new self($offer->contents, $offer->displays, array_intersect_key($numbers, array_flip($offer->displays)), $offer->asItWas);
    }

    /** @return array<string, mixed> as a handing keeps it */
    public function toArray(): array
    {
        return ['contents' => $this->contents?->toArray(), 'displays' => $this->displays, 'puts_back' => (object) $this->putsBack, 'as_it_was' => $this->asItWas];
    }

    public static function fromNode(Node $node): self
    {
        $contents = $node->field('contents');
        $back = $node->field('puts_back')->value;
        $was = $node->field('as_it_was');
        $displays = array_map(static fn (Node $id): string => $id->text(), $node->field('displays')->items(10_000));

        return new self(
            $contents->value === null ? null : Contents::fromNode($contents),
            $displays === [] ? throw new \LogicException('An order is for at least one display.') : $displays,
            array_filter(is_array($back) ? $back : [], is_int(...)),
            $was->value === null ? null : $was->int(1),
        );
    }
}
