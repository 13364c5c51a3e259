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

    /** @param list<array{text: string, width_px: float}> $lines spaces at their ends taken off */
    private function __construct(public array $lines, public float $widthPx, public float $heightPx)
    {
    }

    /**
     * @param float $widthPx of the box; INF for one line a paragraph
     * @param float $lineHeight as a multiple of the size
     */
    public static function of(string $text, FaceMetrics $faces, string $family, int $weight, float $sizePx, float $lineHeight, float $widthPx): self
    {
        $measure = static fn (string $line): float => self::width($line, $faces, $family, $weight) * $sizePx;
        $lines = [];
        foreach (explode("\n", strtr($text, ["\r\n" => "\n", "\r" => "\n"])) as $paragraph) {
            foreach (self::broken($paragraph, $measure, $widthPx + self::TOLERANCE_PX) as $line) {
                $line = rtrim($line, " \t");
                $lines[] = ['text' => $line, 'width_px' => $measure($line)];
            }
        }

        return new self($lines, max(array_column($lines, 'width_px')), count($lines) * $lineHeight * $sizePx);
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

    /**
     * @param \Closure(string): float $measure
     * @return non-empty-list<string>
     */
    private static function broken(string $paragraph, \Closure $measure, float $widthPx): array
    {
        if ($paragraph === '' || $widthPx === INF || $measure($paragraph) <= $widthPx) {
            return [$paragraph];
        }
        $lines = [];
        $line = '';
        // Widths of the pieces add up to nearly that of the line; it is measured whole only where that decides.
        $nearly = 0.0;
        foreach (self::pieces($paragraph) as $piece) {
            $width = $measure(rtrim($piece, " \t"));
            if ($line !== '' && ($nearly + $width > 0.9 * $widthPx) && $measure(rtrim($line . $piece, " \t")) > $widthPx) {
                $lines[] = $line;
                [$line, $nearly] = ['', 0.0];
            }
            if ($line === '' && $width > $widthPx) {
                $parts = self::torn($piece, $measure, $widthPx);
                $piece = array_pop($parts);
                array_push($lines, ...$parts);
            }
            $line .= $piece;
            $nearly += $measure($piece);
        }
        $lines[] = $line;

        return $lines;
    }

    /** @return iterable<string> what lies between two places where a line may break, the spaces behind it included */
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
            yield substr($paragraph, $from, $to - $from);
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
     * @param \Closure(string): float $measure
     * @return non-empty-list<string>
     */
    private static function torn(string $word, \Closure $measure, float $widthPx): array
    {
        $letters = [];
        preg_match_all('/\X/u', $word, $letters);
        [$parts, $at, $all] = [[], 0, $letters[0]];
        while ($at < count($all)) {
            // The most letters that fit: doubled until they do not, then by halving.
            $fit = static fn (int $count): bool => $measure(rtrim(implode('', array_slice($all, $at, $count)), " \t")) <= $widthPx;
            [$least, $most] = [1, count($all) - $at];
            while ($least < $most && 2 * $least <= $most && $fit(2 * $least)) {
                $least *= 2;
            }
            $most = min($most, 2 * $least);
            while ($least < $most) {
                $middle = intdiv($least + $most + 1, 2);
                $fit($middle) ? $least = $middle : $most = $middle - 1;
            }
            $parts[] = implode('', array_slice($all, $at, $least));
            $at += $least;
        }

        return $parts === [] ? [$word] : $parts;
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
