<?php

declare(strict_types=1);

namespace UpperPane\Core\Colour;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** An sRGB colour as `#rrggbb` or `#rrggbbaa`. */
final readonly class Colour
{
    private function __construct(public string $hex)
    {
    }

    /**
     * A colour as it stands in a design. One that the house style names is black until that is known (Layout\Style).
     *
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        return $node->styleName() === null ? self::hex($node) : self::black();
    }

    /** @throws DocumentRefused also where it is a name */
    public static function hex(Node $node): self
    {
        $hex = $node->text(1, 100);
        if (preg_match('/^#([0-9a-f]{6}|[0-9a-f]{8})$/Di', $hex) !== 1) {
            throw $node->refused(Reason::ValueRange, sprintf('is "%s"; a colour is #rrggbb or #rrggbbaa.', $hex));
        }

        return new self(strtolower($hex));
    }

    /** @throws DocumentRefused */
    public static function of(string $hex): self
    {
        return self::hex(Node::root($hex));
    }

    /** An opaque colour of channels from 0 to 255. */
    public static function rgb(int $red, int $green, int $blue): self
    {
        return new self(sprintf('#%02x%02x%02x', max(0, min(255, $red)), max(0, min(255, $green)), max(0, min(255, $blue))));
    }

    public static function black(): self
    {
        return new self('#000000');
    }

    public function isOpaque(): bool
    {
        return strlen($this->hex) === 7 || str_ends_with($this->hex, 'ff');
    }

    /** The colour as it is seen on an opaque ground: each channel mixed as it is coded, as browsers do it. */
    public function over(self $ground): self
    {
        if ($this->isOpaque()) {
            return new self(substr($this->hex, 0, 7));
        }
        $alpha = (int) hexdec(substr($this->hex, 7)) / 255;
        $mixed = array_map(
            static fn (int $top, int $below): int => (int) round($alpha * $top + (1 - $alpha) * $below),
            $this->channels(),
            $ground->channels(),
        );

        return new self(sprintf('#%02x%02x%02x', ...$mixed));
    }

    /** Relative luminance of the opaque colour, 0 to 1. WCAG 2.2, "relative luminance". */
    public function luminance(): float
    {
        [$red, $green, $blue] = array_map(static function (int $channel): float {
            $share = $channel / 255;

            return $share <= 0.04045 ? $share / 12.92 : (($share + 0.055) / 1.055) ** 2.4;
        }, $this->channels());

        return 0.2126 * $red + 0.7152 * $green + 0.0722 * $blue;
    }

    /** Contrast of two opaque colours, 1 to 21. WCAG 2.2, "contrast ratio". */
    public function contrast(self $other): float
    {
        [$a, $b] = [$this->luminance(), $other->luminance()];

        return (max($a, $b) + 0.05) / (min($a, $b) + 0.05);
    }

    /**
     * The opaque colour as the eye orders it: lightness from 0 to 1, towards red, towards yellow. CSS Color 4, Oklab.
     *
     * @return array{float, float, float}
     */
    public function oklab(): array
    {
        [$red, $green, $blue] = array_map(static function (int $channel): float {
            $share = $channel / 255;

            return $share <= 0.04045 ? $share / 12.92 : (($share + 0.055) / 1.055) ** 2.4;
        }, $this->channels());
        $long = (0.4122214708 * $red + 0.5363325363 * $green + 0.0514459929 * $blue) ** (1 / 3);
        $medium = (0.2119034982 * $red + 0.6806995451 * $green + 0.1073969566 * $blue) ** (1 / 3);
        $short = (0.0883024619 * $red + 0.2817188376 * $green + 0.6299787005 * $blue) ** (1 / 3);

        return [
            0.2104542553 * $long + 0.7936177850 * $medium - 0.0040720468 * $short,
            1.9779984951 * $long - 2.4285922050 * $medium + 0.4505937099 * $short,
            0.0259040371 * $long + 0.7827717662 * $medium - 0.8086757660 * $short,
        ];
    }

    /** How far two opaque colours look apart: 0 for the same, about 0.02 where it can just be told, 1 from black to white. CSS Color 4, deltaEOK. */
    public function distance(self $other): float
    {
        [$a, $b] = [$this->oklab(), $other->oklab()];

        return sqrt(($a[0] - $b[0]) ** 2 + ($a[1] - $b[1]) ** 2 + ($a[2] - $b[2]) ** 2);
    }

    /** @return array{int, int, int} red, green, blue, 0 to 255 */
    public function channels(): array
    {
        return [(int) hexdec(substr($this->hex, 1, 2)), (int) hexdec(substr($this->hex, 3, 2)), (int) hexdec(substr($this->hex, 5, 2))];
    }
}
