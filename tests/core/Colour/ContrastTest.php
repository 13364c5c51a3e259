<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Colour;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;

/** Contrast as WCAG 2.2 defines it; the figures of the reference list were calculated by colorjs.io. */
final class ContrastTest extends TestCase
{
    #[TestWith(['#777777', '#ffffff', 4.478, false, true])]
    #[TestWith(['#0a3d62', '#f5f6fa', 10.473, true, true])]
    #[TestWith(['#000000', '#ffffff', 21.0, true, true])]
    #[TestWith(['#14665b', '#14665b', 1.0, false, false])]
    public function testRatios(string $text, string $ground, float $ratio, bool $normal, bool $large): void
    {
        $said = Contrast::of(Colour::of($text), Colour::of($ground))->toArray();

        self::assertEqualsWithDelta($ratio, $said['ratio'], 0.001);
        self::assertSame([$normal, $large], [$said['normal'], $said['large']]);
        self::assertSame($said, Contrast::of(Colour::of($ground), Colour::of($text))->toArray(), 'the order does not matter');
    }

    public function testSeeThroughColoursAreMixedFirst(): void
    {
        // 128 of 255 of black on white: 255 x (1 - 128/255) = 127.
        self::assertSame('#7f7f7f', Colour::of('#00000080')->over(Colour::of('#ffffff'))->hex);
        self::assertEqualsWithDelta(1.0, Contrast::of(Colour::of('#ffffff00'), Colour::of('#336699'))->ratio, 1e-9);
    }
}
