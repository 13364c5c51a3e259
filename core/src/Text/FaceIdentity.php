<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

use UpperPane\Core\Document\FaceRefused;
use UpperPane\Core\Document\Reason;

/**
 * What the file of a type face says it is: its family and weight, and whether it may be shipped to players.
 *
 * Source: OpenType 1.9, the table directory and the tables `name`, `OS/2` and `fvar`.
 */
final readonly class FaceIdentity
{
    private const WANTED = ['cmap', 'head', 'hhea', 'hmtx', 'maxp', 'name', 'OS/2'];
    /** fsType, bit 1: restricted licence embedding. */
    private const RESTRICTED = 0x0002;

    private function __construct(public string $family, public int $weight, public bool $isVariable)
    {
    }

    /**
     * @throws FaceRefused with a sentence that says why these bytes are no face that can be used
     */
    public static function fromBytes(string $bytes): self
    {
        $magic = substr($bytes, 0, 4);
        if (in_array($magic, ['wOFF', 'wOF2'], true)) {
            throw FaceRefused::because(Reason::FaceRefused, 'It is a web font (WOFF), which cannot be measured; bring in the TTF or OTF it was made from.', '');
        }
        if ($magic === 'ttcf') {
            throw FaceRefused::because(Reason::FaceRefused, 'It is a collection of several faces (TTC); bring in each as a file of its own.', '');
        }
        $tables = OpenType::fromBytes($bytes)->tables ?? throw FaceRefused::because(Reason::FaceRefused, 'It is no type face: TTF and OTF files are.', '');
        $missing = array_diff(self::WANTED, array_keys($tables));
        if ($missing !== [] || (!isset($tables['glyf']) && !isset($tables['CFF ']) && !isset($tables['CFF2']))) {
            throw FaceRefused::because(Reason::FaceRefused, sprintf('It is a damaged type face: it has no %s.', $missing === [] ? 'outlines' : 'table ' . implode(', ', $missing)), '');
        }
        $os2 = $tables['OS/2'];
        if (strlen($os2) < 64) {
            throw FaceRefused::because(Reason::FaceRefused, 'It is a damaged type face: its table OS/2 is cut short.', '');
        }
        if ((OpenType::u16($os2, 8) & self::RESTRICTED) !== 0) {
            throw FaceRefused::because(Reason::FaceRefused, 'Its maker does not allow it to be shipped with what is set in it (OS/2, fsType).', '');
        }
        $names = self::names($tables['name']);
        $family = trim(str_replace(['"', '\\', ';'], '', $names[16] ?? $names[1] ?? ''));
        if ($family === '') {
            throw FaceRefused::because(Reason::FaceRefused, 'It does not say what its family is called.', '');
        }
        // Weights of 1 to 9 were written by old programs.
        $weight = OpenType::u16($os2, 4);
        $weight = $weight < 10 ? 100 * $weight : $weight;
        $italic = (OpenType::u16($os2, 62) & 1) !== 0 && !str_contains($family, 'Italic') ? ' Italic' : '';

        return new self(mb_substr($family, 0, 70) . $italic, max(100, min(900, (int) round($weight / 100) * 100)), isset($tables['fvar']));
    }

    /** @return array<int, string> by name id, English before others */
    private static function names(string $table): array
    {
        $names = [];
        $english = [];
        $strings = strlen($table) >= 6 ? OpenType::u16($table, 4) : 0;
        for ($i = 0, $count = strlen($table) >= 6 ? OpenType::u16($table, 2) : 0; $i < $count && strlen($table) >= 18 + 12 * $i; $i++) {
            [$platform, $language, $id, $length, $from] = array_map(static fn (int $at): int => OpenType::u16($table, 6 + 12 * $i + $at), [0, 4, 6, 8, 10]);
            $raw = substr($table, $strings + $from, $length);
            $text = $platform === 1 ? mb_convert_encoding($raw, 'UTF-8', 'ISO-8859-1') : mb_convert_encoding($raw, 'UTF-8', 'UTF-16BE');
            $isEnglish = $platform === 3 && $language === 0x0409;
            if (!isset($names[$id]) || ($isEnglish && !isset($english[$id]))) {
                $names[$id] = $text;
                $english += $isEnglish ? [$id => true] : [];
            }
        }

        return $names;
    }
}
