<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\App\Text\FaceFiles;
use UpperPane\App\Text\HarfBuzz;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Text\Run;
use UpperPane\Core\Text\SetText;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Core\Make;

/**
 * Widths and line breaks of texts: against `hb-shape` (Debian libharfbuzz-bin 6) and against Debian's Chromium 156, which lays out the same files.
 */
final class TextReferenceTest extends TestCase
{
    private const ROOT = __DIR__ . '/../..';
    private const SIZE_PX = 48;

    /** Latin with accents, figures, and the marks that kern; Greek and Cyrillic, which Inter has. */
    private const LATIN = [
        'Welcome aboard', 'AVATAR To We Yo LT 7.11', 'Hare Skerry on foot',
        'fi fl ffi office flight', '11:20 Great Pellan', '0123456789', 'São João, às 8 h',
        'Übergröße für Fähren',
        'Çeşme Iğdır İstanbul', 'Žluťoučký kůň', 'Łódź, Gdańsk', 'Århus – Ærø', 'ÑANDÚ ¿Qué? ¡Sí!',
        '“Quoted” ‘text’ … —', '€ 18.50 / £ 12.20', 'Tel. +351 21 000 00 00',
        'TYPOGRAPHY', 'a  b   c', "it's 5:40", 'Q&A (A/B) [C] {D}',
    ];
    private const MORE = [
        'Καλώς ήρθατε', 'ΑΥΤΟΣ ΤΟΥ', 'Πειραιάς – Αίγινα 07:30', 'Добро пожаловать', 'ГУТА УЛ Ўзбек',
        'Съешь ещё этих мягких булок', 'Київ, Ґданськ, Їжак', 'Београд 11:20', 'Mixed Ελληνικά и Русский', 'Ω ≈ 3 × 4',
    ];
    private const WORDS = 'Berth 2 is closed until noon. '
        . 'Sailings to Tolm leave from berth 4, five minutes along the quay; please keep your booking at hand (vehicles: 30 minutes). '
        . 'Wi-fi on board is free — ask at the desk! High-speed crossings don\'t run on 24/12 and 25/12. E-mail: desk@pellan.example, www.pellan.example/fares?from=saltgate&to=tolm. '
        . 'A day ticket costs €18.50, 20 % less for groups of 5+. “As often as you like”, all islands… São João, Übergröße, Łódź, naïve café-bar. Rest/café and/or deck. x=y+z; 3-4 km; #1';

    public function testWidthsAreThoseOfHbShapeAndOfChromium(): void
    {
        $faces = HarfBuzz::ofTheHouse(self::ROOT);
        $cases = [];
        foreach (FaceFiles::in(self::ROOT) as $face) {
            foreach ([...self::LATIN, ...($face['family'] === 'Inter' ? self::MORE : [])] as $text) {
                $cases[] = ['text' => $text, 'width' => $faces->advance($text, $face['family'], $face['weight']) * self::SIZE_PX] + $face;
            }
        }
        self::assertGreaterThan(100, count($cases));
        $painted = $this->inChromium(
            'const span = document.body.appendChild(document.createElement("span")); span.style.cssText = "position:absolute;white-space:pre;font-size:48px";'
                . 'return arguments[0].map((c) => { span.style.fontFamily = c.family; span.style.fontWeight = c.weight; span.textContent = c.text; return span.getBoundingClientRect().width })',
            array_map(static fn (array $case): array => array_diff_key($case, ['file' => 1]), $cases),
        );
        foreach ($cases as $index => $case) {
            self::assertEqualsWithDelta($painted[$index], $case['width'], 0.5, "\"{$case['text']}\" in {$case['family']} {$case['weight']}, Chromium");
            self::assertEqualsWithDelta($this->hbShape($case['file'], $case['text']), $case['width'], 0.5, "\"{$case['text']}\" in {$case['family']} {$case['weight']}, hb-shape");
            self::assertSame([], $faces->missing($case['text'], $case['family'], $case['weight']));
        }
    }

    public function testLinesBreakWhereChromiumBreaksThem(): void
    {
        $faces = HarfBuzz::ofTheHouse(self::ROOT);
        $random = Make::random(15);
        $all = explode(' ', self::WORDS);
        $cases = [];
        for ($i = 0; $i < 60; $i++) {
            $face = FaceFiles::in(self::ROOT)[$i % 6];
            $from = $random->getInt(0, count($all) - 30);
            $text = implode(' ', array_slice($all, $from, $random->getInt(12, 60)));
            // Now and then a paragraph of its own, two spaces, a tab, or a word longer than the line.
            $text = match ($i % 5) {
                0 => strtr($text, ['. ' => ".\n"]),
                1 => strtr($text, [', ' => ',  ']),
                2 => preg_replace('/ /', "\t", $text, 1) ?? $text,
                3 => "Donaudampfschifffahrtsgesellschaftskapitänsmütze $text",
                default => $text,
            };
            $cases[] = ['text' => $text, 'box' => $random->getInt(180, 900), 'family' => $face['family'], 'weight' => $face['weight']];
        }
        $painted = $this->inChromium(<<<'JS'
            const box = document.body.appendChild(document.createElement('div'))
            box.style.cssText = 'position:absolute;white-space:pre-wrap;overflow-wrap:break-word;font-size:48px;line-height:1.2'
            return arguments[0].map((c) => {
              Object.assign(box.style, { fontFamily: c.family, fontWeight: c.weight, width: `${c.box}px` })
              box.textContent = c.text
              const node = box.firstChild, range = document.createRange(), lines = []
              let top = null
              for (let i = 0; i < c.text.length; i++) {
                if (c.text[i] === '\n') { top = null; continue }
                range.setStart(node, i); range.setEnd(node, i + 1)
                const r = range.getClientRects()[0]
                // A space that hangs behind the end of its line has no place of its own.
                if (!r || (c.text[i] === ' ' && r.width === 0 && lines.length)) { if (lines.length && top !== null) lines[lines.length - 1] += c.text[i]; continue }
                if (top === null || r.top > top + 10) { lines.push(''); top = r.top }
                lines[lines.length - 1] += c.text[i]
              }
              return [lines, box.getBoundingClientRect().height]
            })
            JS, $cases);
        $exact = 0;
        foreach ($cases as $index => $case) {
            // Chromium rounds advances to 64ths: a line that is within a tenth of a px of its box may stand either way.
            $sets = array_map(
                static fn (float $by): SetText => SetText::of($case['text'], $faces, $case['family'], $case['weight'], self::SIZE_PX, 1.2, $case['box'] + $by),
                [0.0, 0.1, -0.1],
            );
            $lines = array_map(static fn (SetText $set): array => array_column($set->lines, 'text'), $sets);
            $drawn = array_map(static fn (string $line): string => rtrim($line), $painted[$index][0]);
            $alike = array_search($drawn, $lines, true);
            self::assertSame($drawn, $lines[$alike === false ? 0 : $alike], "{$case['family']} {$case['weight']} in {$case['box']} px");
            $exact += $alike === 0 ? 1 : 0;
            $set = $sets[$alike];
            self::assertEqualsWithDelta($painted[$index][1], $set->heightPx, 1.0, 'lines are as high as the line height says');
        }
        self::assertGreaterThan(50, $exact);
    }

    /** Words of several weights and sizes: where lines break, and how high each is. */
    public function testLinesOfSeveralSizesStandAsChromiumDrawsThem(): void
    {
        $faces = HarfBuzz::ofTheHouse(self::ROOT);
        $random = Make::random(16);
        $all = explode(' ', self::WORDS);
        $cases = [];
        for ($i = 0; $i < 30; $i++) {
            $face = FaceFiles::in(self::ROOT)[$i % 6];
            $words = array_slice($all, $random->getInt(0, count($all) - 20), 18);
            $pieces = [];
            foreach (array_chunk($words, 3) as $n => $chunk) {
                $pieces[] = ['text' => implode(' ', $chunk) . ' '] + ($n % 2 === 0 ? [] : ['weight' => [400, 700][$random->getInt(0, 1)], 'size_px' => $random->getInt(20, 90)]);
            }
            $cases[] = ['pieces' => $pieces, 'box' => $random->getInt(300, 900), 'family' => $face['family'], 'weight' => $face['weight']];
        }
        $painted = $this->inChromium(<<<'JS'
            const box = document.body.appendChild(document.createElement('div'))
            box.style.cssText = 'position:absolute;white-space:pre-wrap;overflow-wrap:break-word;font-size:48px;line-height:1.2'
            return arguments[0].map((c) => {
              Object.assign(box.style, { fontFamily: c.family, fontWeight: c.weight, width: `${c.box}px` })
              box.replaceChildren(...c.pieces.map((p) => {
                const span = document.createElement('span')
                span.textContent = p.text
                if (p.size_px) Object.assign(span.style, { fontSize: `${p.size_px}px`, fontWeight: p.weight })
                return span
              }))
              const range = document.createRange(), lines = []
              let bottom = null
              for (const span of box.children) {
                for (let i = 0; i < span.firstChild.length; i++) {
                  range.setStart(span.firstChild, i); range.setEnd(span.firstChild, i + 1)
                  const r = range.getClientRects()[0]
                  if (!r || (span.textContent[i] === ' ' && r.width === 0)) continue
                  // Letters of one line overlap in height, those of the next begin below their middle.
                  if (bottom === null || r.top + r.height / 2 > bottom) { lines.push(''); bottom = r.bottom }
                  lines[lines.length - 1] += span.textContent[i]
                }
              }
              return [lines, box.getBoundingClientRect().height]
            })
            JS, $cases);
        foreach ($cases as $index => $case) {
            [$text, $runs] = ['', []];
            foreach ($case['pieces'] as $piece) {
                $from = strlen($text);
                $text .= $piece['text'];
                if (isset($piece['size_px'])) {
                    $runs[] = new Run($from, strlen($text), $piece['weight'], (float) $piece['size_px']);
                }
            }
            $set = SetText::of($text, $faces, $case['family'], $case['weight'], self::SIZE_PX, 1.2, (float) $case['box'], $runs);
            [$drawn, $lines] = array_map(static fn (array $lines): string => (string) preg_replace('/\s+/', '', implode('|', $lines)), [$painted[$index][0], array_column($set->lines, 'text')]);
            self::assertSame($drawn, $lines, "{$case['family']} in {$case['box']} px");
            self::assertEqualsWithDelta($painted[$index][1], $set->heightPx, 1.0 + 0.5 * count($set->lines), 'Chromium rounds ascents of each size to whole px');
        }
    }

    /** The words that are too many for a slot, in the size of its element or the least it may shrink to: those to take from the end until Chromium has room. */
    public function testWordsTooManyForASlotAreThoseThatChromiumHasNoRoomFor(): void
    {
        $around = new Surroundings('UTC', HarfBuzz::ofTheHouse(self::ROOT));
        $random = Make::random(17);
        $all = explode(' ', self::WORDS);
        [$cases, $found] = [[], []];
        for ($i = 0; $i < 60; $i++) {
            $face = FaceFiles::in(self::ROOT)[$i % 6];
            $case = [
                'family' => $face['family'], 'weight' => $face['weight'], 'size' => $random->getInt(14, 60), 'plate' => $i % 4 === 0 ? $random->getInt(1, 30) : 0,
                'width' => $random->getInt(180, 1200), 'height' => $random->getInt(100, 500), 'text' => implode(' ', array_slice($all, 0, $random->getInt(1, count($all)))),
            ];
            $style = array_intersect_key($case, ['family' => 0, 'weight' => 0]) + ['line_height' => 1.2];
            // Every other one is in larger type that may shrink so far.
            $style += $i % 2 === 0 ? ['size_px' => $case['size']] : ['size_px' => 90];
            $style += $case['plate'] === 0 ? [] : ['plate' => ['color' => '#000000', 'px' => $case['plate']]];
            $element = ['id' => 'line', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => $case['width'], 'height' => $case['height']], 'text' => 'Line', 'style' => $style];
            $element += $i % 2 === 0 ? [] : ['overflow' => 'shrink', 'least_px' => $case['size']];
            $template = Make::layout([$element]) + ['slots' => [['id' => 'line', 'name' => 'Line', 'kind' => 'text', 'element' => 'line']]];
            $filled = ['format' => Filled::FORMAT, 'id' => 'f', 'name' => 'F', 'template' => $template['id'], 'values' => ['line' => $case['text']]];
            $findings = Filling::of(Filled::fromArray($filled), Layout::fromArray($template))->findings($around)->all;
            $cases[] = $case;
            $found[] = $findings === [] ? 0 : $findings[0]->measure['words'];
        }
        // Chromium rounds advances to 64ths: a line that is within a tenth of a px of its box may stand either way.
        $left = $this->inChromium(<<<'JS'
            const box = document.body.appendChild(document.createElement('div'))
            box.style.cssText = 'position:absolute;white-space:pre-wrap;overflow-wrap:break-word;line-height:1.2'
            return arguments[0].map((c) => [0, 0.1, -0.1].map((by) => {
              Object.assign(box.style, { fontFamily: c.family, fontWeight: c.weight, fontSize: `${c.size}px`, width: `${c.width - 2 * c.plate + by}px` })
              const words = c.text.split(' ')
              let kept = words.length
              do box.textContent = words.slice(0, kept).join(' ')
              while (box.getBoundingClientRect().height > c.height - 2 * c.plate + by && --kept)
              return words.length - kept
            }))
            JS, $cases);
        foreach ($cases as $index => $case) {
            self::assertContains($found[$index], $left[$index], (string) json_encode($case));
        }
        self::assertGreaterThan(10, count(array_filter($found)));
        self::assertGreaterThan(10, count(array_keys($found, 0, true)));
    }

    /** @param list<array<string, mixed>> $cases */
    private function inChromium(string $script, array $cases): mixed
    {
        $chrome = Chrome::open(1000, 800);
        try {
            $chrome->go('data:text/html,<!doctype html><body style="margin:0" lang="en">');
            foreach (FaceFiles::in(self::ROOT) as $face) {
                $chrome->driver->executeAsyncScript(
                    'const [family, weight, data, done] = arguments; new FontFace(family, `url(data:font/ttf;base64,${data})`, { weight }).load().then((f) => { document.fonts.add(f); done() })',
                    [$face['family'], (string) $face['weight'], base64_encode((string) file_get_contents($face['file']))],
                );
            }

            return $chrome->script($script, $cases);
        } finally {
            $chrome->close();
        }
    }

    /** The sum of the advances, at a hundred units a px. */
    private function hbShape(string $file, string $text): float
    {
        exec(sprintf('hb-shape --font-size=%d --no-glyph-names -O json %s %s', 100 * self::SIZE_PX, escapeshellarg($file), escapeshellarg($text)), $out, $code);
        self::assertSame(0, $code);
        $glyphs = json_decode(implode('', $out), true);
        self::assertIsArray($glyphs);

        return array_sum(array_column($glyphs, 'ax')) / 100;
    }
}
