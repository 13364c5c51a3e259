<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind;

use UpperPane\Core\Document\ActRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Box;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Style\StyleNames;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Time\When;

/** A written element that has a Head, and what follows from the fields of its kind. */
trait ElementHead
{
    /** A display refreshes so often unless it was surveyed otherwise; half steps of a px at each refresh still run smoothly. */
    private const SPEED_STEP = 30.0;

    /**
     * An element of this kind as it stands in a document.
     *
     * @param array<string, mixed> $fields
     * @return array<string, mixed>
     */
    public static function written(string $id, Rect $rect, array $fields): array
    {
        return ['id' => $id, 'kind' => self::KIND, 'rect' => $rect->toArray()] + $fields;
    }

    public function id(): string
    {
        return $this->head->id;
    }

    public function rect(): Rect
    {
        return $this->head->rect;
    }

    public function kind(): string
    {
        return self::KIND;
    }

    public function isHidden(): bool
    {
        return $this->head->hidden;
    }

    public function when(): ?When
    {
        return $this->head->when;
    }

    public function isLocked(): bool
    {
        return $this->head->locked;
    }

    public function toArray(): array
    {
        return self::fields()->and(['rect' => Kinds::rect()])->written($this->head->given);
    }

    public function changed(array $fields): static
    {
        return static::fromNode(Node::root(array_filter(array_replace($this->head->given, $fields), static fn (mixed $value): bool => $value !== null)));
    }

    public function restyled(array $style): static
    {
        foreach (self::fields()->waysTo(Role::TypePx) as $way) {
            $given = self::fieldsAt($this->head->given, array_slice($way, 0, -1), $style);
            if (count($way) > 1 && $given !== null) {
                return $this->changed($given);
            }
        }
        throw ActRefused::because(Reason::FieldUnknown, sprintf('"%s" has no type that could be set otherwise.', $this->id()), '/style');
    }

    /**
     * @template K of array-key
     * @param array<K, mixed> $given
     * @param list<string> $way to an object in it
     * @param array<string, mixed> $fields of that object; null takes one away
     * @return ?array<K|string, mixed> null where there is no such object
     */
    private static function fieldsAt(array $given, array $way, array $fields): ?array
    {
        $name = array_shift($way);
        if ($name === null) {
            return array_filter(array_replace($given, $fields), static fn (mixed $value): bool => $value !== null);
        }
        $inner = $given[$name] ?? null;
        $changed = is_array($inner) ? self::fieldsAt($inner, $way, $fields) : null;

        return $changed === null ? null : array_replace($given, [$name => $changed]);
    }

    public function scaled(Rect $rect, float $factor): static
    {
        $given = $factor === 1.0 ? $this->head->given : self::fields()->mapped($this->head->given, static fn (mixed $value, Role $role): mixed => match (true) {
            !is_int($value) && !is_float($value) => $value,
            $role === Role::Px => Box::figure($value * $factor),
            $role === Role::WholePx => $value > 0 ? max(1, (int) round($value * $factor)) : (int) round($value * $factor),
            $role === Role::TypePx => Box::figure(max(1.0, $value * $factor)),
            $role === Role::Speed => Box::figure(max(self::SPEED_STEP, round($value * $factor / self::SPEED_STEP) * self::SPEED_STEP)),
            default => $value,
        });

        return static::fromNode(Node::root(['rect' => $rect->toArray()] + $given));
    }

    public function renamed(array $elements, array $groups): static
    {
        $given = self::fields()->mapped($this->head->given, static fn (mixed $value, Role $role): mixed => $role === Role::Element && is_string($value) ? $elements[$value] ?? $value : $value);
        $group = $given['group'] ?? null;

        return static::fromNode(Node::root(array_replace($given, ['id' => $elements[$this->head->id] ?? $this->head->id], is_string($group) ? ['group' => $groups[$group] ?? $group] : [])));
    }

    public function styled(Styling $styling, string $path): static
    {
        return StyleNames::mayStandIn($this->head->given)
            ? static::fromNode(Node::at(StyleNames::replaced(self::fields(), $this->head->given, $styling, $path), $path))
            : $this;
    }

    public function withoutRefsBeyond(string ...$ids): static
    {
        $own = self::fields();
        $lost = array_filter(
            $this->head->given,
            static fn (mixed $value, string $name): bool => array_diff(array_filter($own->only($name)->collected([$name => $value], Role::Element), is_string(...)), $ids) !== [],
            ARRAY_FILTER_USE_BOTH,
        );

        return $lost === [] ? $this : static::fromNode(Node::root(array_diff_key($this->head->given, $lost)));
    }
}
