<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
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
    }

    /** @return list<Order> */
    public function orders(): array
    {
        return array_map(static fn (array $order): Order => Order::fromNode(Node::root($order)), $this->orders);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'state' => $this->state,
            'done' => $this->done,
            'of' => $this->of,
            'displays' => array_slice(array_merge(...array_map(static fn (Order $order): array => $order->displays, $this->orders())), 0, self::TOLD),
            'trouble' => $this->trouble,
            'begun_at' => $this->begunAt->format('Y-m-d\TH:i:s\Z'),
            'begun_by' => $this->begunBy,
            'ended_at' => $this->endedAt?->format('Y-m-d\TH:i:s\Z'),
        ];
    }
}
