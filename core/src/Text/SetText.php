<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/**
 * A text broken into lines for a width, as the pane draws it: CSS `white-space: pre-wrap`, `overflow-wrap: break-word`.
 *
 * Lines break where Unicode allows it (UAX 14, by ICU), and between ASCII signs where Chromium, which draws the pane, does;
 * spaces at the end of a line hang and are not counted; a word that is longer than the line is broken between letters
 * (grapheme clusters, UAX 29). Widths come from the faces themselves.
 */
final readonly class SetText
{
    /** A browser lays out in 64ths of a px. */
    private const TOLERANCE_PX = 1 / 64;

    /**
     * Where Chromium breaks between two printable ASCII signs; there UAX 14 has no say.
     *
     * Read off Debian's Chromium 156 for all pairs; a figure follows a dash only where a letter or figure stands before it (a minus stays).
     */
    private const ASCII_BREAKS = '~(?<=[!"#%&)*+,.:;=>\\\\\]|}\~])(?=[(<[{])'
        . '|(?<=-)(?=["#%&\'(*+\-<=>@A-Z\[\\\\^_`a-z{|\~])'
        . '|(?<=[0-9A-Za-z]-)(?=[0-9])'
        . '|(?<=\?)(?=[#$%&(*+\-0-9<=>@A-Z\[\\\\^_`a-z{|\~])~';

    /** @param list<array{text: string, width_px: float, height_px: float, from: int}> $lines spaces at their ends taken off; `from` is the byte of the text at which it begins */
    private function __construct(public array $lines, public float $widthPx, public float $heightPx)
    {
    }

    /**
     * @param float $widthPx of the box; INF for one line a paragraph
     * @param float $lineHeight as a multiple of the size
     * @param list<Run> $runs parts in another weight or size, in order
     */
    public static function of(string $text, FaceMetrics $faces, string $family, int $weight, float $sizePx, float $lineHeight, float $widthPx, array $runs = []): self
    {
        $text = strtr($text, ["\r\n" => "\n", "\r" => "\n"]);
        $lines = [];
        $at = 0;
        foreach (explode("\n", $text) as $paragraph) {
            $own = Run::within($runs, $at, $at + strlen($paragraph));
            $measure = static function (int $from, int $to) use ($paragraph, $own, $faces, $family, $weight, $sizePx): float {
                if ($own === []) {
                    return $to <= $from ? 0.0 : self::width(substr($paragraph, $from, $to - $from), $faces, $family, $weight) * $sizePx;
                }
                $width = 0.0;
                foreach (Run::parts($own, $from, $to, $weight, $sizePx) as [$begin, $end, $partWeight, $partSize]) {
                    $width += self::width(substr($paragraph, $begin, $end - $begin), $faces, $family, $partWeight) * $partSize;
                }

                return $width;
            };
            foreach (self::broken($paragraph, $measure, $widthPx + self::TOLERANCE_PX) as [$from, $to]) {
                $end = self::trimmed($paragraph, $from, $to);
                $lines[] = [
                    'text' => substr($paragraph, $from, $end - $from),
                    'width_px' => $measure($from, $end),
                    'height_px' => $lineHeight * Run::largest($own, $from, $to, $sizePx),
                    'from' => $at + $from,
                ];
            }
            $at += strlen($paragraph) + 1;
        }

        return new self($lines, max(array_column($lines, 'width_px')), array_sum(array_column($lines, 'height_px')));
    }

    /** Whether it is larger than a box. */
    public function overflows(float $widthPx, float $heightPx): bool
    {
        return $this->widthPx > $widthPx + self::TOLERANCE_PX || $this->heightPx > $heightPx + self::TOLERANCE_PX;
    }

    /** @return array{lines: list<array{text: string, width_px: float}>, width_px: float, height_px: float} to 0.01 px */
    public function toArray(): array
    {
        return [
            'lines' => array_map(static fn (array $line): array => ['text' => $line['text'], 'width_px' => round($line['width_px'], 2)], $this->lines),
            'width_px' => round($this->widthPx, 2),
            'height_px' => round($this->heightPx, 2),
        ];
    }

    /** Where a part ends without the spaces behind it. */
    private static function trimmed(string $paragraph, int $from, int $to): int
    {
        return $from + strlen(rtrim(substr($paragraph, $from, $to - $from), " \t"));
    }

    /**
     * @param \Closure(int, int): float $measure
     * @return non-empty-list<array{int, int}> bytes of the paragraph at which each line begins and ends
     */
    private static function broken(string $paragraph, \Closure $measure, float $widthPx): array
    {
        $length = strlen($paragraph);
        if ($paragraph === '' || $widthPx === INF || $measure(0, $length) <= $widthPx) {
            return [[0, $length]];
        }
        $lines = [];
        [$begin, $end] = [0, 0];
        // Widths of the pieces add up to nearly that of the line; it is measured whole only where that decides.
        $nearly = 0.0;
        foreach (self::pieces($paragraph) as [$from, $to]) {
            $solid = self::trimmed($paragraph, $from, $to);
            $width = $measure($from, $solid);
            if ($end > $begin && ($nearly + $width > 0.9 * $widthPx) && $measure($begin, $solid) > $widthPx) {
                $lines[] = [$begin, $end];
                [$begin, $nearly] = [$from, 0.0];
                $end = $begin;
            }
            if ($end === $begin && $width > $widthPx) {
                $parts = self::torn($paragraph, $from, $to, $measure, $widthPx);
                [$from, $to] = array_pop($parts);
                array_push($lines, ...$parts);
                $begin = $from;
            }
            $end = $to;
            $nearly += $measure($from, $to);
        }
        $lines[] = [$begin, $end];

        return $lines;
    }

    /** @return iterable<array{int, int}> what lies between two places where a line may break, the spaces behind it included */
    private static function pieces(string $paragraph): iterable
    {
        $breaks = \IntlBreakIterator::createLineInstance('en') ?? throw new \LogicException('ICU breaks no lines.');
        $breaks->setText($paragraph);
        $places = [strlen($paragraph) => true];
        for ($breaks->first(); ($to = $breaks->next()) !== \IntlBreakIterator::DONE;) {
            if (!self::isSign($paragraph[$to - 1]) || !self::isSign($paragraph[$to] ?? '')) {
                $places[$to] = true;
            }
        }
        preg_match_all(self::ASCII_BREAKS, $paragraph, $found, PREG_OFFSET_CAPTURE);
        foreach ($found[0] as [, $to]) {
            $places[$to] = true;
        }
        ksort($places);
        $from = 0;
        foreach (array_keys($places) as $to) {
            yield [$from, $to];
            $from = $to;
        }
    }

    /** Whether a byte is a printable ASCII sign, no space. */
    private static function isSign(string $byte): bool
    {
        return $byte > ' ' && $byte < "\x7f";
    }

    /**
     * A word that is longer than the line, broken between letters; each line takes as many as it holds, at least one.
     *
     * @param \Closure(int, int): float $measure
     * @return non-empty-list<array{int, int}>
     */
    private static function torn(string $paragraph, int $from, int $to, \Closure $measure, float $widthPx): array
    {
        $letters = [];
        preg_match_all('/\X/u', substr($paragraph, $from, $to - $from), $letters, PREG_OFFSET_CAPTURE);
        $starts = [...array_map(static fn (array $letter): int => $from + $letter[1], $letters[0]), $to];
        [$parts, $at, $last] = [[], 0, count($starts) - 1];
        while ($at < $last) {
            // The most letters that fit: doubled until they do not, then by halving.
            $fit = static fn (int $count): bool => $measure($starts[$at], self::trimmed($paragraph, $starts[$at], $starts[$at + $count])) <= $widthPx;
            [$least, $most] = [1, $last - $at];
            while ($least < $most && 2 * $least <= $most && $fit(2 * $least)) {
                $least *= 2;
            }
            $most = min($most, 2 * $least);
            while ($least < $most) {
                $middle = intdiv($least + $most + 1, 2);
                $fit($middle) ? $least = $middle : $most = $middle - 1;
            }
            $parts[] = [$starts[$at], $starts[$at + $least]];
            $at += $least;
        }

        return $parts === [] ? [[$from, $to]] : $parts;
    }

    /** @return float em; a tab goes on to the next multiple of eight spaces, the one behind where that is under half a figure away (CSS Text 3, 4.2) */
    private static function width(string $line, FaceMetrics $faces, string $family, int $weight): float
    {
        if (!str_contains($line, "\t")) {
            return $line === '' ? 0.0 : $faces->advance($line, $family, $weight);
        }
        $tab = 8 * $faces->advance(' ', $family, $weight);
        $width = 0.0;
        foreach (explode("\t", $line) as $index => $part) {
            if ($index > 0 && $tab > 0.0) {
                $stop = (floor($width / $tab + 1e-9) + 1) * $tab;
                $width = $stop - $width < 0.5 * $faces->advance('0', $family, $weight) ? $stop + $tab : $stop;
            }
            $width += $part === '' ? 0.0 : $faces->advance($part, $family, $weight);
        }

        return $width;
    }
}
