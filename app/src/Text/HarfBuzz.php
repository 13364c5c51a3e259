<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use FFI;
use FFI\CData;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\FaceRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Text\FaceFile;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Text\FaceWeight;

/**
 * Type faces measured by HarfBuzz, the shaper with which browsers set text: through PHP's FFI, from the very files that are drawn.
 *
 * Names and types of its functions: the headers of HarfBuzz 6 (Debian libharfbuzz-dev).
 */
final class HarfBuzz implements FaceMetrics
{
    private const LIBRARY = 'libharfbuzz.so.0';
    private const HEADER = <<<'C'
        void *hb_blob_create_from_file(const char *file_name);
        void *hb_blob_create(const char *data, unsigned int length, int mode, void *user_data, void *destroy);
        unsigned int hb_blob_get_length(void *blob);
        void *hb_face_create(void *blob, unsigned int index);
        unsigned int hb_face_get_upem(void *face);
        void *hb_font_create(void *face);
        void *hb_buffer_create(void);
        void hb_buffer_reset(void *buffer);
        void hb_buffer_add_utf8(void *buffer, const char *text, int text_length, unsigned int item_offset, int item_length);
        void hb_buffer_guess_segment_properties(void *buffer);
        unsigned int hb_buffer_get_length(void *buffer);
        void hb_shape(void *font, void *buffer, const void *features, unsigned int num_features);
        void hb_buffer_destroy(void *buffer);
        void hb_font_destroy(void *font);
        void hb_face_destroy(void *face);
        void hb_blob_destroy(void *blob);
        void *hb_buffer_get_glyph_positions(void *buffer, unsigned int *length);
        void *hb_buffer_get_glyph_infos(void *buffer, unsigned int *length);
        C;
    /** Both are five words of 32 bit: x_advance is the first of hb_glyph_position_t, codepoint and cluster are the first and third of hb_glyph_info_t. */
    private const WORDS = 5;
    /** Texts of which the advance is kept: a layout measures the same words again and again. */
    private const KEPT = 20_000;

    /** @var array<string, array<int, string|\Closure(): string>> files, or who reads them, by family and weight */
    private readonly array $files;
    private ?FFI $library = null;
    private ?CData $buffer = null;
    /** @var array<string, array{font: CData, upem: int, cap_share: float}> */
    private array $open = [];
    /** @var array<string, float> */
    private array $kept = [];

    /** @param list<array{family: string, weight: int, file: string}|array{family: string, weight: int, read: \Closure(): string}> $faces by their file, or by who reads its bytes */
    public function __construct(array $faces)
    {
        $files = [];
        foreach ($faces as $face) {
            $files[$face['family']][$face['weight']] = $face['file'] ?? $face['read'];
        }
        $this->files = $files;
    }

    /** What HarfBuzz holds is not PHP's: a worker that answers thousands of requests would keep it all. */
    public function __destruct()
    {
        foreach ($this->open as $face) {
            $this->call('hb_font_destroy', $face['font']);
        }
        if ($this->buffer !== null) {
            $this->call('hb_buffer_destroy', $this->buffer);
        }
    }

    public static function ofTheHouse(string $projectDir): self
    {
        return new self(FaceFiles::in($projectDir));
    }

    public function knows(string $family): bool
    {
        return isset($this->files[$family]);
    }

    /** @return list<string> */
    public function families(): array
    {
        return array_map(strval(...), array_keys($this->files));
    }

    public function advance(string $text, string $family, int $weight): float
    {
        $key = "$family|$weight|$text";
        if (isset($this->kept[$key])) {
            return $this->kept[$key];
        }
        $face = $this->face($family, $weight);
        $sum = 0;
        foreach (self::runs($text) as $run) {
            $words = $this->shaped($run, $face['font'], 'positions');
            for ($i = 0; $i < count($words); $i += self::WORDS) {
                $sum += $words[$i];
            }
        }
        if (strlen($text) < 200) {
            $this->kept = count($this->kept) < self::KEPT ? $this->kept : [];
            $this->kept[$key] = $sum / $face['upem'];
        }

        return $sum / $face['upem'];
    }

    public function capShare(string $family, int $weight): float
    {
        return $this->face($family, $weight)['cap_share'];
    }

    public function missing(string $text, string $family, int $weight): array
    {
        $face = $this->face($family, $weight);
        $missing = [];
        foreach (preg_split('/[\s\x{200B}-\x{200F}\x{2060}]+/u', $text, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            foreach (self::runs($word) as $run) {
                $words = $this->shaped($run, $face['font'], 'infos');
                for ($i = 0; $i < count($words); $i += self::WORDS) {
                    if ($words[$i] === 0) {
                        $missing[mb_substr(mb_strcut($run, $words[$i + 2]), 0, 1)] = true;
                    }
                }
            }
        }

        return array_map(strval(...), array_keys($missing));
    }

    /**
     * Parts of one script each, as browsers shape them: what belongs to no script goes with what stands before it.
     *
     * @return list<string>
     */
    private static function runs(string $text): array
    {
        if (preg_match('/[^\p{Latin}\p{Common}\p{Inherited}]/u', $text) !== 1) {
            return [$text];
        }
        $runs = [];
        $script = null;
        foreach (mb_str_split($text) as $letter) {
            $own = \IntlChar::getIntPropertyValue($letter, \IntlChar::PROPERTY_SCRIPT);
            // 0 is Common, 1 Inherited (UAX 24).
            $neutral = $own < 2;
            if ($runs === [] || (!$neutral && $script !== null && $own !== $script)) {
                $runs[] = '';
            }
            $runs[count($runs) - 1] .= $letter;
            $script = $neutral ? $script : $own;
        }

        return $runs;
    }

    /**
     * @param 'positions'|'infos' $what
     * @return list<int> five words a glyph
     */
    private function shaped(string $text, CData $font, string $what): array
    {
        $buffer = $this->buffer ??= $this->pointer('hb_buffer_create');
        $this->call('hb_buffer_reset', $buffer);
        $this->call('hb_buffer_add_utf8', $buffer, $text, strlen($text), 0, strlen($text));
        $this->call('hb_buffer_guess_segment_properties', $buffer);
        $this->call('hb_shape', $font, $buffer, null, 0);
        $count = $this->number('hb_buffer_get_length', $buffer);
        if ($count < 1) {
            return [];
        }
        $bytes = FFI::string($this->pointer("hb_buffer_get_glyph_$what", $buffer, null), 4 * self::WORDS * $count);
        /** @var array<int, int> $words */
        $words = unpack('l*', $bytes) ?: [];

        return array_values($words);
    }

    /** @return array{font: CData, upem: int, cap_share: float} */
    private function face(string $family, int $weight): array
    {
        $weights = $this->files[$family] ?? throw new \LogicException("No face of the house is called \"$family\".");
        $nearest = FaceWeight::nearest($weight, array_keys($weights));
        $key = "$family|$nearest";
        if (!isset($this->open[$key])) {
            $file = $weights[$nearest];
            // HarfBuzz takes a copy of bytes (memory mode 0, duplicate).
            if (is_string($file) && !is_file($file)) {
                throw FaceRefused::because(Reason::FacesMissing, "The type face $family $nearest is not installed, so no text can be measured; bin/start installs those of the house.", '');
            }
            $bytes = is_string($file) ? (string) file_get_contents($file) : $file();
            $blob = is_string($file) ? $this->pointer('hb_blob_create_from_file', $file) : $this->pointer('hb_blob_create', $bytes, strlen($bytes), 0, null, null);
            if ($this->number('hb_blob_get_length', $blob) === 0) {
                throw new \RuntimeException("The type face $family $nearest cannot be read.");
            }
            $face = $this->pointer('hb_face_create', $blob, 0);
            $this->open[$key] = [
                'font' => $this->pointer('hb_font_create', $face),
                'upem' => $this->number('hb_face_get_upem', $face),
                'cap_share' => FaceFile::fromBytes($bytes)->capShare ?? Legibility::CAP_SHARE,
            ];
            // The font holds the face, and the face the file, as long as they are wanted.
            $this->call('hb_face_destroy', $face);
            $this->call('hb_blob_destroy', $blob);
        }

        return $this->open[$key];
    }

    private function pointer(string $function, mixed ...$arguments): CData
    {
        $pointer = $this->call($function, ...$arguments);

        return $pointer instanceof CData ? $pointer : throw new \LogicException("$function gave nothing.");
    }

    private function number(string $function, mixed ...$arguments): int
    {
        $number = $this->call($function, ...$arguments);

        return is_int($number) ? $number : throw new \LogicException("$function gave no number.");
    }

    private function call(string $function, mixed ...$arguments): mixed
    {
        $this->library ??= FFI::cdef(self::HEADER, self::LIBRARY);

        return $this->library->$function(...$arguments);
    }
}
