<?php

declare(strict_types=1);

namespace UpperPane\Core\Units;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/**
 * A length as designers type it: `576`, `1920-576`, `1/3`, `50%`, `2.5mm`, `(1080 - 2*20) / 3`.
 *
 * Whole numbers are px; `%` is of the side of the canvas, and so is a fraction of two whole numbers, the first one smaller (`1/3`, `2/3 - 20`);
 * `mm` are of the display. The result is a whole number of px, halves rounded up.
 */
final class TypedFigure
{
    private const TOKEN = '~\G\s*(?:([0-9]+(?:[.,][0-9]+)?|[.,][0-9]+)\s*(px|mm|%)?|([-+*/()×÷]))~iu';
    private const LARGEST = 1e9;

    /** @var list<array{string, string, string}> figure, unit and sign */
    private array $tokens = [];
    private int $at = 0;

    private function __construct(private readonly string $text, private readonly int $sidePx, private readonly ?float $mmPerPx)
    {
    }

    /**
     * @param int $sidePx the side of the canvas
     * @param ?float $mmPerPx of the canvas on the display; null where none is known
     * @return int px
     * @throws DocumentRefused with what cannot be read
     */
    public static function px(string $text, int $sidePx, ?float $mmPerPx): int
    {
        $figure = new self($text, $sidePx, $mmPerPx);
        $figure->read();
        $px = $figure->sum();
        if ($figure->at < count($figure->tokens)) {
            throw $figure->refused('"%s" is not expected there', implode('', $figure->tokens[$figure->at]));
        }
        if (abs($px) > self::LARGEST) {
            throw $figure->refused('it comes to more than a canvas has');
        }

        return (int) floor(round($px, 6) + 0.5);
    }

    private function read(): void
    {
        for ($offset = 0; preg_match(self::TOKEN, $this->text, $m, PREG_UNMATCHED_AS_NULL, $offset) === 1; $offset += strlen($m[0])) {
            $this->tokens[] = [strtr($m[1] ?? '', ',', '.'), strtolower($m[2] ?? ''), strtr($m[3] ?? '', ['×' => '*', '÷' => '/'])];
        }
        if (trim(substr($this->text, $offset)) !== '' || $this->tokens === []) {
            throw $this->refused($this->tokens === [] && trim($this->text) === '' ? 'nothing is typed' : '"%s" cannot be read', mb_strimwidth(trim(substr($this->text, $offset)), 0, 20, '...'));
        }
    }

    private function sum(): float
    {
        $sum = $this->product();
        while (in_array($sign = $this->sign(), ['+', '-'], true)) {
            $this->at++;
            $sum += ($sign === '+' ? 1 : -1) * $this->product();
        }

        return $sum;
    }

    private function product(): float
    {
        if (($share = $this->share()) !== null) {
            return $share;
        }
        $product = $this->factor();
        while (in_array($sign = $this->sign(), ['*', '/'], true)) {
            $this->at++;
            $factor = $this->factor();
            if ($sign === '/' && $factor === 0.0) {
                throw $this->refused('it divides by 0');
            }
            $product = $sign === '*' ? $product * $factor : $product / $factor;
        }

        return $product;
    }

    /** A fraction of two whole numbers, the first one smaller, by itself: a share of the side. */
    private function share(): ?float
    {
        [$over, $line, $under, $next] = array_map(fn (int $by): array => $this->tokens[$this->at + $by] ?? ['', '', ''], [0, 1, 2, 3]);
        $whole = preg_match('/^\d+ \d+$/D', "$over[0] $under[0]") === 1 && $over[1] . $under[1] === '';
        if (!$whole || $line[2] !== '/' || (int) $over[0] >= (int) $under[0] || in_array($next[2], ['*', '/'], true)) {
            return null;
        }
        $this->at += 3;

        return $this->sidePx * (int) $over[0] / (int) $under[0];
    }

    private function factor(): float
    {
        [$figure, $unit, $sign] = $this->tokens[$this->at] ?? throw $this->refused('a figure is missing at its end');
        $this->at++;
        if ($sign === '-') {
            return -$this->factor();
        }
        if ($sign === '(') {
            $sum = $this->sum();
            if ($this->sign() !== ')') {
                throw $this->refused('a ")" is missing');
            }
            $this->at++;

            return $sum;
        }
        if ($figure === '') {
            throw $this->refused('"%s" is not expected there', $sign);
        }

        return match ($unit) {
            '%' => $this->sidePx * (float) $figure / 100,
            'mm' => (float) $figure / ($this->mmPerPx ?? throw $this->refused('no display is chosen, so nobody knows how large a mm is')),
            default => (float) $figure,
        };
    }

    private function sign(): string
    {
        return $this->tokens[$this->at][2] ?? '';
    }

    private function refused(string $why, string $what = ''): DocumentRefused
    {
        return DocumentRefused::because(Reason::FigureSyntax, sprintf("\"%s\": $why. 576, 1920-576, 1/3, 50%% and 2.5mm are right.", mb_strimwidth($this->text, 0, 40, '...'), $what), '/text');
    }
}
