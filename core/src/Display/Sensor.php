<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** Something at a display that tells what happens before it. */
final readonly class Sensor
{
    public const KINDS = ['presence', 'press', 'touch', 'key', 'value'];

    /** @param list<float> $bandsMm farther ends of its distance bands, rising; none where it tells no distance */
    private function __construct(public string $id, public string $kind, public array $bandsMm)
    {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'kind', 'bands_mm');
        $bands = [];
        foreach ($node->optional('bands_mm')?->items(32) ?? [] as $band) {
            $mm = $band->positive('mm');
            if ($bands !== [] && $mm <= $bands[count($bands) - 1]) {
                throw $band->refused(Reason::ValueRange, sprintf('is %s mm, not beyond the band before it, which ends at %s mm.', $mm, $bands[count($bands) - 1]));
            }
            $bands[] = $mm;
        }

        return new self($node->field('id')->id(), $node->field('kind')->oneOf(...self::KINDS), $bands);
    }
}
