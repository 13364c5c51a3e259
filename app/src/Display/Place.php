<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Thing;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Setting\Resolved;
use UpperPane\Core\Setting\Settings;

/** A node of the tree that displays hang in. */
#[ORM\Entity]
class Place implements Thing
{
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\Column(length: 120)]
        public string $name,
        #[ORM\ManyToOne]
        public ?Place $parent = null,
        #[ORM\Column]
        public int $position = 0,
        /** @var array<string, mixed> what it states itself (core/src/Setting/Settings.php) */
        #[ORM\Column(type: 'json')]
        public array $settings = [],
    ) {
    }

    public function about(): About
    {
        return new About('place', $this->id, $this->name);
    }

    /** The time zone of the nearest place upwards that names one; null where none does. */
    public function zone(): ?string
    {
        return $this->resolved()->timezone();
    }

    /** What holds in it: what it states itself, and what comes from the places in which it lies. */
    public function resolved(): Resolved
    {
        return ($this->parent?->resolved() ?? Resolved::nothing())->below($this->id, Settings::fromNode(Node::root($this->settings), false));
    }

    /** @return list<string> names from the estate down to this place */
    public function way(): array
    {
        return [...($this->parent?->way() ?? []), $this->name];
    }

    /** @return non-empty-list<string> its id, that of the place it is in, and so on outwards */
    public function outwards(): array
    {
        return [$this->id, ...$this->parent?->outwards() ?? []];
    }

    /** Whether this place is $other or lies in it. */
    public function isIn(Place $other): bool
    {
        return $this === $other || ($this->parent?->isIn($other) ?? false);
    }

    /** @return array<string, mixed> zone: its own time zone, or the inherited one */
    public function toArray(): array
    {
        return ['id' => $this->id, 'name' => $this->name, 'parent' => $this->parent?->id, 'timezone' => $this->settings[Settings::TIMEZONE] ?? null, 'zone' => $this->zone()];
    }
}
