<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Something at a display that tells what happens before it. */
final readonly class Sensor
{
    public const PRESENCE = 'presence';
    public const BUTTONS = 'buttons';
    public const TOUCH = 'touch';
    public const KEYS = 'keys';
    public const KINDS = [self::PRESENCE, self::BUTTONS, self::TOUCH, self::KEYS];

    /** As some were called before; they are read still. */
    private const BEFORE = ['press' => self::BUTTONS, 'key' => self::KEYS, 'value' => 'value'];

    private const MOST = 64;

    /**
     * @param list<float> $bandsMm farther ends of its distance bands, rising; none where it tells no distance
     * @param float $hysteresisMm by how much an edge has to be passed before the band is left
     * @param bool $farFirst whether it numbers its bands from the farthest to the nearest
     * @param ?list<string> $buttons null where nobody says which it has
     * @param array<string, string> $names what it calls a button or a key, and which that is
     * @param ?array{float, float} $atMm where it hangs, from the middle of the display: to the right and down
     */
    private function __construct(
        public string $id,
        public string $kind,
        public array $bandsMm,
        public float $hysteresisMm,
        public bool $farFirst,
        public ?array $buttons,
        public array $names,
        public ?array $atMm,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'kind', 'bands_mm', 'hysteresis_mm', 'numbering', 'buttons', 'names', 'at_mm');
        $bands = [];
        foreach ($node->optional('bands_mm')?->items(32) ?? [] as $band) {
            $mm = $band->positive('mm');
            if ($bands !== [] && $mm <= $bands[count($bands) - 1]) {
                throw $band->refused(Reason::ValueRange, sprintf('is %s mm, not beyond the band before it, which ends at %s mm.', $mm, $bands[count($bands) - 1]));
            }
            $bands[] = $mm;
        }
        $kind = $node->field('kind')->oneOf(...self::KINDS, ...array_keys(self::BEFORE));
        $buttons = $node->optional('buttons')?->items(self::MOST);
        $at = $node->optional('at_mm')?->object('x', 'y');

        return new self(
            $node->field('id')->id(),
            self::BEFORE[$kind] ?? $kind,
            $bands,
            $node->optional('hysteresis_mm')?->number(0.0, 1e5, 'mm') ?? 0.0,
            $node->optional('numbering')?->oneOf('near-first', 'far-first') === 'far-first',
            $buttons === null ? null : array_map(static fn (Node $one): string => $one->text(1, 80), $buttons),
            array_map(static fn (Node $one): string => $one->text(1, 80), $node->optional('names')?->members(self::MOST) ?? []),
            $at === null ? null : [$at->field('x')->number(-1e6, 1e6, 'mm'), $at->field('y')->number(-1e6, 1e6, 'mm')],
        );
    }

    /** The band that a distance is in: 1 is the nearest, 0 beyond all of them. */
    public function bandOf(float $mm): int
    {
        foreach ($this->bandsMm as $place => $far) {
            if ($mm < $far) {
                return $place + 1;
            }
        }

        return 0;
    }

    /** Where a band begins as seen from the display, mm; that of band 0 is the end of the last. */
    public function nearMm(int $band): float
    {
        return match (true) {
            $band === 1 => 0.0,
            $band === 0 => $this->bandsMm[count($this->bandsMm) - 1] ?? 0.0,
            default => $this->bandsMm[$band - 2] ?? INF,
        };
    }

    /**
     * The band that is held after a distance was read: it is left only where its edge is passed by the hysteresis.
     *
     * @param int $held band that was held before
     */
    public function holds(int $held, float $mm): int
    {
        $band = $this->bandOf($mm);
        $far = $held === 0 ? INF : $this->bandsMm[$held - 1] ?? INF;
        $isFarther = $held !== 0 && ($band === 0 || $band > $held);

        return match (true) {
            $band === $held => $held,
            $isFarther => $mm >= $far + $this->hysteresisMm ? $band : $held,
            default => $mm < $this->nearMm($held) - $this->hysteresisMm ? $band : $held,
        };
    }

    /** The band that it means by a number of its own; null where it has no such band. */
    public function bandSent(int $number): ?int
    {
        $count = count($this->bandsMm);

        return match (true) {
            $number < 0 || $number > $count => null,
            $number === 0 => 0,
            default => $this->farFirst ? $count + 1 - $number : $number,
        };
    }

    /** The button or key that it means by what it sends. */
    public function named(string $sent): string
    {
        return $this->names[$sent] ?? $sent;
    }

    /** @return array{id: string, kind: string, bands_mm: list<float>, hysteresis_mm: float, far_first: bool, buttons: ?list<string>, names: object} as a player knows it */
    public function compiled(): array
    {
        return [
            'id' => $this->id,
            'kind' => $this->kind,
            'bands_mm' => $this->bandsMm,
            'hysteresis_mm' => $this->hysteresisMm,
            'far_first' => $this->farFirst,
            'buttons' => $this->buttons,
            'names' => (object) $this->names,
        ];
    }
}
