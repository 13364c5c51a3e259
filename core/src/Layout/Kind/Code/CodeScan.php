<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Code;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Fix;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\Subject;

/**
 * What keeps a QR code from being scanned: `code.small` modules of under 3 px of the display, `code.quiet` a quiet zone of under 4 modules (ISO/IEC 18004, 5.3.8),
 * `code.far` viewers who cannot come as near as ten times its width (common practice), `code.contrast` modules that do not stand out, or light ones on dark.
 */
final readonly class CodeScan implements Check
{
    public const LEAST_MODULE_PX = 3.0;
    public const QUIET_MODULES = 4;
    /** A code is scanned from about so many times its width. Common practice, no source. */
    public const REACH = 10.0;

    public static function explained(): array
    {
        return [
            new Explanation('code.small', 'warning', 'modules of a QR code of under 3 px of the display', 'cameras do not resolve them', 'common practice'),
            new Explanation('code.quiet', 'warning', 'a quiet zone of under 4 modules', 'scanners do not find the code', 'ISO/IEC 18004 (from memory)'),
            new Explanation(
                'code.far',
                'warning',
                'a code that nobody comes near enough to: it is scanned from about ten times its width',
                'it is never scanned',
                'common practice',
            ),
            new Explanation(
                'code.contrast',
                'warning',
                'modules under 3 to 1 against their ground, or light on dark',
                'many scanners do not read it',
                'common practice; ratio as WCAG 2.2',
            ),
        ];
    }

    public function findings(Subject $subject): iterable
    {
        foreach ($subject->layout->elements as $element) {
            if ($element instanceof Code) {
                yield from $this->size($subject, $element);
                yield from $this->quiet($element);
                yield from $this->reach($subject, $element);
                yield from $this->contrast($element);
            }
        }
    }

    /** @return iterable<Finding> */
    private function size(Subject $subject, Code $code): iterable
    {
        $px = $code->modulePx() * $subject->displayScale();
        if ($px >= self::LEAST_MODULE_PX) {
            return;
        }
        $side = (int) ceil(self::LEAST_MODULE_PX / $subject->displayScale()) * $code->across();
        $mm = $subject->mmPerCanvasPx();
        yield new Finding(
            'code.small',
            Level::Warning,
            [$code->id()],
            sprintf(
                '"%s" has %d modules a side, %s px each%s; at least %d px are needed, %d x %d px with its quiet zone. A shorter text needs fewer.',
                $code->id(),
                $code->across() - 2 * $code->quiet,
                round($px, 2),
                $mm === null ? '' : sprintf(' (%s mm)', round($code->modulePx() * $mm, 2)),
                (int) self::LEAST_MODULE_PX,
                $side,
                $side,
            ),
            [
                'version' => $code->version,
                'modules' => $code->across() - 2 * $code->quiet,
                'module_px' => round($px, 4),
                'module_mm' => $mm === null ? null : round($code->modulePx() * $mm, 3),
                'needed_px' => $side,
            ],
            $code->rect(),
        );
    }

    /** @return iterable<Finding> */
    private function quiet(Code $code): iterable
    {
        if ($code->quiet < self::QUIET_MODULES) {
            yield new Finding(
                'code.quiet',
                Level::Warning,
                [$code->id()],
                sprintf('"%s" has a quiet zone of %d modules; %d are needed around it.', $code->id(), $code->quiet, self::QUIET_MODULES),
                ['quiet' => $code->quiet],
                $code->rect(),
                [Fix::element(sprintf('Give it %d', self::QUIET_MODULES), $code->id(), ['quiet' => self::QUIET_MODULES])],
            );
        }
    }

    /** @return iterable<Finding> */
    private function reach(Subject $subject, Code $code): iterable
    {
        $mm = $subject->mmPerCanvasPx();
        $viewing = $subject->display?->viewing;
        $nearest = $viewing?->eyeMm($viewing->nearestMm);
        if ($mm === null || $nearest === null) {
            return;
        }
        $width = $code->modulePx() * ($code->across() - 2 * $code->quiet) * $mm;
        if ($width * self::REACH >= $nearest) {
            return;
        }
        yield new Finding(
            'code.far',
            Level::Warning,
            [$code->id()],
            sprintf(
                '"%s" is %d mm wide and scanned from about %s m; nobody comes nearer than %s m. It wants %d px.',
                $code->id(),
                (int) round($width),
                round($width * self::REACH / 1000, 1),
                round($nearest / 1000, 1),
                (int) ceil($nearest / self::REACH / $mm * $code->across() / ($code->across() - 2 * $code->quiet)),
            ),
            ['width_mm' => round($width, 1), 'reach_mm' => round($width * self::REACH), 'nearest_mm' => round($nearest, 1)],
            $code->rect(),
        );
    }

    /** @return iterable<Finding> */
    private function contrast(Code $code): iterable
    {
        $white = Colour::of('#ffffff');
        [$dark, $light] = [$code->color->over($white), $code->ground->over($white)];
        $ratio = Contrast::of($dark, $light)->ratio;
        $inverted = Contrast::of($dark, $white)->ratio < Contrast::of($light, $white)->ratio;
        if ($ratio >= Contrast::LARGE && !$inverted) {
            return;
        }
        yield new Finding(
            'code.contrast',
            Level::Warning,
            [$code->id()],
            $inverted
                ? sprintf('"%s" is light on dark: many scanners do not read it.', $code->id())
                : sprintf('"%s": modules stand out by %.1f to 1; at least %d to 1 is scanned.', $code->id(), floor($ratio * 10) / 10, (int) Contrast::LARGE),
            ['ratio' => round($ratio, 3), 'inverted' => $inverted],
            $code->rect(),
            [Fix::element('Make it black on white', $code->id(), ['color' => '#000000', 'ground' => '#ffffff'])],
        );
    }
}
