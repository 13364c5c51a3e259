<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Tests\Core\Make;

/** Contrast ratios of random colours, see-through ones mixed with their ground first, against the npm package colorjs.io (WCAG 2.1 method). */
final class ContrastReferenceTest extends TestCase
{
    private const SCRIPT = <<<'JS'
        import Color from 'colorjs.io'
        const over = (top, below) => {
          const [a, b] = [new Color(top).to('srgb'), new Color(below).to('srgb')]
          return new Color('srgb', a.coords.map((c, i) => Math.round(255 * (a.alpha * c + (1 - a.alpha) * b.coords[i])) / 255))
        }
        console.log(JSON.stringify(asked.map(([text, ground]) => over(text, ground).contrast(new Color(ground), 'WCAG21'))))
        JS;

    public function testRatiosAreThoseOfColorjs(): void
    {
        $random = Make::random(21);
        $hex = static fn (bool $alpha): string => '#' . bin2hex($random->getBytes($alpha ? 4 : 3));
        $pairs = [['#777777', '#ffffff'], ['#0a3d62', '#f5f6fa'], ['#ffffff', '#0a143c'], ['#000000', '#ffffff'], ['#123456', '#123456']];
        for ($i = 0; $i < 200; $i++) {
            $pairs[] = [$hex($i % 3 === 0), $hex(false)];
        }
        foreach ($this->ratios($pairs) as $index => $ratio) {
            [$text, $ground] = $pairs[$index];
            self::assertEqualsWithDelta($ratio, Contrast::of(Colour::of($text), Colour::of($ground))->ratio, 0.001, "$text on $ground");
        }
    }

    /** How far colours look apart, against the same package's deltaEOK (CSS Color 4). */
    public function testDistancesAreThoseOfColorjs(): void
    {
        $random = Make::random(22);
        $hex = static fn (): string => '#' . bin2hex($random->getBytes(3));
        $pairs = [['#000000', '#ffffff'], ['#14665b', '#15675c'], ['#777777', '#787878']];
        for ($i = 0; $i < 200; $i++) {
            $pairs[] = [$hex(), $hex()];
        }
        /** @var list<float> $distances */
        $distances = InNode::asked("import Color from 'colorjs.io'; console.log(JSON.stringify(asked.map(([a, b]) => new Color(a).deltaE(new Color(b), 'OK'))))", $pairs);
        foreach ($distances as $index => $distance) {
            [$a, $b] = $pairs[$index];
            self::assertEqualsWithDelta($distance, Colour::of($a)->distance(Colour::of($b)), 0.0001, "$a and $b");
        }
    }

    /**
     * @param list<array{string, string}> $pairs
     * @return list<float>
     */
    private function ratios(array $pairs): array
    {
        /** @var list<float> $ratios */
        $ratios = InNode::asked(self::SCRIPT, $pairs);
        self::assertCount(count($pairs), $ratios);

        return $ratios;
    }
}
