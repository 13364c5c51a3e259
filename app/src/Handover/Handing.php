<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\DocumentType;
use UpperPane\Core\Document\Node;

/** One press of "Hand over", from when it was noted until every player is told: to all of its displays, or to none. */
#[ORM\Entity]
#[ORM\Index(columns: ['begun_at'])]
class Handing
{
    public const WAITING = 'waiting';
    public const WORKING = 'working';
    public const HANDED = 'handed';
    public const DONE = 'done';
    public const FAILED = 'failed';

    /** So many of its displays are told. */
    private const TOLD = 5;

    #[ORM\Column(length: 16)]
    public string $state = self::WAITING;

    /** Of how many of its displays all is compiled. */
    #[ORM\Column]
    public int $done = 0;

    /** Why it failed, in words. */
    #[ORM\Column(length: 1000, nullable: true)]
    public ?string $trouble = null;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $endedAt = null;

    /** @var list<string> the first of its displays, which are told */
    #[ORM\Column(type: 'json')]
    public array $displays;

    /**
     * @param string $name of what is handed over
     * @param list<array<string, mixed>> $orders what goes to which displays (Order)
     * @param int $of so many displays
     */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 26)]
        public readonly string $id,
        #[ORM\Column(length: 255)]
        public readonly string $name,
        #[ORM\Column(type: DocumentType::NAME)]
        public readonly array $orders,
        #[ORM\Column]
        public readonly int $of,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public readonly \DateTimeImmutable $begunAt,
        #[ORM\Column(length: 80, nullable: true)]
        public readonly ?string $begunBy = null,
    ) {
        $this->displays = array_slice(array_merge(...array_map(static fn (Order $order): array => $order->displays, $this->orders()), ...[[]]), 0, self::TOLD);
    }

    /** @return list<array{About, non-empty-list<string>}> what is handed over, and ids of the displays that it goes to */
    public function sources(): array
    {
        $sources = [];
        foreach ($this->orders() as $order) {
            if ($order->contents !== null) {
                $source = $order->contents->source;
                $known = $sources["$source->kind $source->id"][1] ?? [];
                $sources["$source->kind $source->id"] = [new About($source->kind, $source->id, $source->name), [...$known, ...$order->displays]];
            }
        }

        return array_values($sources);
    }

    /** @return list<Order> */
    public function orders(): array
    {
        return array_map(static fn (array $order): Order => Order::fromNode(Node::root($order)), $this->orders);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $written = static fn (?\DateTimeImmutable $at): ?string => $at?->format('Y-m-d H:i:s');

        return self::told([
            'id' => $this->id,
            'name' => $this->name,
            'state' => $this->state,
            'done' => $this->done,
            'of' => $this->of,
            'displays' => json_encode($this->displays, JSON_THROW_ON_ERROR),
            'trouble' => $this->trouble,
            'begun_at' => $written($this->begunAt),
            'begun_by' => $this->begunBy,
            'ended_at' => $written($this->endedAt),
        ]);
    }

    /**
     * The same of a row of the table, without its orders, which name thousands of displays.
     *
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    public static function told(array $row): array
    {
        $instant = static fn (mixed $at): ?string => is_string($at) ? strtr($at, ' ', 'T') . 'Z' : null;

        return [
            'displays' => is_string($row['displays']) ? json_decode($row['displays'], true) : [],
            'begun_at' => $instant($row['begun_at']),
            'ended_at' => $instant($row['ended_at']),
        ] + $row;
    }
}
