<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\WiringSheet;
use UpperPane\Core\Geometry\Box;

/** The wiring sheet as pages of SVG, A4 across, in mm; drawn with attributes alone, so that any reader draws it. */
final readonly class WiringDrawing
{
    private const WIDTH = 297;
    private const HEIGHT = 210;
    private const MARGIN = 12;
    private const ROW = 5.2;
    private const ROWS = 33;
    private const INK = '#17272e';
    private const SOFT = '#52616a';
    private const KELP = '#14665b';
    private const RULE = '#b9b2a0';

    /** @return list<string> SVG documents */
    public static function pages(Display $display, string $way, int $revision, \DateTimeImmutable $printed): array
    {
        $sheet = WiringSheet::of($display);
        $wall = $display->wall;
        $head = sprintf(
            '%s · canvas %s px · %s px/mm · %s · survey revision %d',
            $way,
            $wall->canvas,
            round($wall->density, 4),
            match (true) {
                count($wall->panels) === 1 => 'one panel',
                $display->butt => 'seams butted',
                default => 'bezels hidden',
            },
            $revision,
        );
        $bodies = [self::drawings($sheet, $wall->size->width, $wall->size->height), ...self::lists($sheet)];
        $pages = [];
        foreach ($bodies as $index => $body) {
            $foot = sprintf('page %d of %d · printed %s UTC', $index + 1, count($bodies), $printed->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i'));
            $size = sprintf('width="%1$dmm" height="%2$dmm" viewBox="0 0 %1$d %2$d"', self::WIDTH, self::HEIGHT);
            $pages[] = sprintf('<svg xmlns="http://www.w3.org/2000/svg" %s font-family="\'Atkinson Hyperlegible Next Variable\', Inter, sans-serif">', $size)
                . sprintf('<title>%s</title><rect width="%d" height="%d" fill="#ffffff"/>', self::text("Wiring sheet, $display->name"), self::WIDTH, self::HEIGHT)
                . self::words(self::MARGIN, 17, $display->name, 6.2, self::INK, 'font-weight="700"')
                . self::words(self::MARGIN, 23.5, $head, 3.2, self::SOFT)
                . self::words(self::WIDTH - self::MARGIN, 17, 'Wiring sheet', 4.2, self::KELP, 'text-anchor="end" font-weight="600"')
                . self::words(self::WIDTH - self::MARGIN, 23.5, $foot, 3.2, self::SOFT, 'text-anchor="end"')
                . self::line(self::MARGIN, 27, self::WIDTH - self::MARGIN, 27, self::INK, 0.3)
                . $body . '</svg>';
        }

        return $pages;
    }

    private static function drawings(WiringSheet $sheet, float $activeWidth, float $activeHeight): string
    {
        $room = new Box(0, 0, (self::WIDTH - 2 * self::MARGIN - 26) / 2, 100);
        $scale = min($room->width / $sheet->width, $room->height / $sheet->height);
        $top = 48;
        $left = self::MARGIN + 12;
        $right = $left + $room->width + 14;
        $svg = self::words($left, 36, 'From the front', 4.2, self::INK, 'font-weight="600"')
            . self::words($right, 36, 'From behind, mirrored: as you stand when you cable it', 4.2, self::INK, 'font-weight="600"')
            . self::across($left, $top - 4, $sheet->width * $scale, sprintf('%.1f mm with frames, %.1f mm of picture', $sheet->width, $activeWidth))
            . self::down($left - 4, $top, $sheet->height * $scale, sprintf('%.1f mm', $sheet->height));
        foreach ($sheet->panels as $panel) {
            $svg .= self::panel($panel, $panel['front']->placed($scale, $scale, $left, $top), $panel['inner']->placed($scale, $scale, $left, $top), $panel['arrow']);
            // Seen from behind, a turn to the right becomes one to the left.
            $svg .= self::panel($panel, $panel['behind']->placed($scale, $scale, $right, $top), null, (360 - $panel['arrow']) % 360);
        }
        $y = $top + $sheet->height * $scale + 12;
        $svg .= self::words($left, $y, 'Switching on', 4.2, self::INK, 'font-weight="600"')
            . self::words($right, $y, 'To tick off', 4.2, self::INK, 'font-weight="600"');
        $fit = max(3, (int) floor((self::HEIGHT - 12 - $y) / self::ROW));
        $steps = array_map(static fn (array $step): string => sprintf('%d:%02d  %s', intdiv($step['at_s'], 60), $step['at_s'] % 60, $step['what']), $sheet->switching);
        $columns = max(1, (int) ceil(count($steps) / $fit));
        foreach (array_slice($steps, 0, $fit * min($columns, 4)) as $index => $step) {
            $svg .= self::words($left + intdiv($index, $fit) * 31, $y + self::ROW * (1 + $index % $fit), $step, 3.2, self::INK, 'xml:space="preserve"');
        }
        foreach (array_slice($sheet->checks, 0, $fit) as $index => $check) {
            $at = $y + self::ROW * ($index + 1);
            $svg .= self::box(new Box($right, $at - 2.7, 3, 3), 'none', self::INK, 0.3)
                . self::words($right + 5, $at, $check, 3.2, self::INK);
        }

        return $svg;
    }

    /** @param array{id: string, rotation: int, player: ?string, output: ?int} $panel */
    private static function panel(array $panel, Box $box, ?Box $inner, int $arrow): string
    {
        $size = max(1.4, min(4.2, $box->width / 7, $box->height / 5));
        $x = $box->x + $box->width / 2;
        $y = $box->y + $box->height / 2;
        $svg = self::box($box, '#f7f5ee', self::INK, 0.35) . ($inner === null ? '' : self::box($inner, '#ffffff', self::SOFT, 0.15));
        $feed = $panel['output'] === null ? '' : ($panel['player'] === null ? '' : $panel['player'] . ' ') . '→ ' . $panel['output'];

        return $svg
            . self::words($x, $y - $size * 0.2, $panel['id'], $size, self::INK, 'text-anchor="middle" font-weight="700"')
            . self::words($x, $y + $size, $feed, $size, self::KELP, 'text-anchor="middle"')
            // The arrow points where the top of the panel itself is.
            . sprintf(
                '<path d="M0 %1$s V-%1$s M-%2$s -%3$s L0 -%1$s L%2$s -%3$s" transform="translate(%4$s %5$s) rotate(%6$d)" fill="none" stroke="%7$s" stroke-width="0.4"/>',
                self::n($size * 0.8),
                self::n($size * 0.4),
                self::n($size * 0.3),
                self::n($box->x + $size * 1.4),
                self::n($y),
                $arrow,
                self::INK,
            )
            . ($panel['rotation'] === 0 ? '' : self::words($box->x + $size * 1.4, $y + $size * 1.8, $panel['rotation'] . '°', $size * 0.7, self::SOFT, 'text-anchor="middle"'));
    }

    /** @return list<string> one for each page */
    private static function lists(WiringSheet $sheet): array
    {
        $pages = [];
        foreach (array_chunk($sheet->cables, self::ROWS) as $cables) {
            $svg = '';
            $columns = ['cable' => 0, 'from' => 16, 'to' => 70, 'link' => 124, 'signal' => 164, 'label at both ends' => 236, 'in' => 268];
            foreach ($columns as $name => $x) {
                $svg .= self::words(self::MARGIN + $x, 34, $name, 3.2, self::SOFT);
            }
            foreach ($cables as $index => $cable) {
                $y = 34 + self::ROW * ($index + 1);
                $svg .= self::line(self::MARGIN, $y - 3.9, self::WIDTH - self::MARGIN, $y - 3.9, self::RULE, 0.15)
                    . self::words(self::MARGIN, $y, (string) $cable['number'], 3.2, self::INK, 'font-weight="700"')
                    . self::words(self::MARGIN + 16, $y, $cable['from'], 3.2, self::INK)
                    . self::words(self::MARGIN + 70, $y, $cable['to'], 3.2, self::INK)
                    . self::words(self::MARGIN + 124, $y, $cable['link'], 3.2, self::INK)
                    . self::words(self::MARGIN + 164, $y, $cable['signal'], 3.2, self::INK)
                    . self::box(new Box(self::MARGIN + 236, $y - 2.7, 3, 3), 'none', self::INK, 0.3)
                    . self::box(new Box(self::MARGIN + 268, $y - 2.7, 3, 3), 'none', self::INK, 0.3);
            }
            $pages[] = $svg;
        }

        return $pages;
    }

    private static function across(float $x, float $y, float $length, string $words): string
    {
        return self::line($x, $y, $x + $length, $y, self::INK, 0.2) . self::line($x, $y - 1.5, $x, $y + 1.5, self::INK, 0.2)
            . self::line($x + $length, $y - 1.5, $x + $length, $y + 1.5, self::INK, 0.2)
            . self::words($x + $length / 2, $y - 1.4, $words, 3, self::INK, 'text-anchor="middle"');
    }

    private static function down(float $x, float $y, float $length, string $words): string
    {
        return self::line($x, $y, $x, $y + $length, self::INK, 0.2) . self::line($x - 1.5, $y, $x + 1.5, $y, self::INK, 0.2)
            . self::line($x - 1.5, $y + $length, $x + 1.5, $y + $length, self::INK, 0.2)
            . self::words(0, 0, $words, 3, self::INK, sprintf('text-anchor="middle" transform="translate(%s %s) rotate(-90)"', self::n($x - 1.4), self::n($y + $length / 2)));
    }

    private static function box(Box $box, string $fill, string $stroke, float $width): string
    {
        [$x, $y, $w, $h] = array_map(self::n(...), [$box->x, $box->y, $box->width, $box->height]);

        return sprintf('<rect x="%s" y="%s" width="%s" height="%s" fill="%s" stroke="%s" stroke-width="%s"/>', $x, $y, $w, $h, $fill, $stroke, self::n($width));
    }

    private static function line(float $x1, float $y1, float $x2, float $y2, string $colour, float $width): string
    {
        return sprintf('<line x1="%s" y1="%s" x2="%s" y2="%s" stroke="%s" stroke-width="%s"/>', self::n($x1), self::n($y1), self::n($x2), self::n($y2), $colour, self::n($width));
    }

    private static function words(float $x, float $y, string $words, float $size, string $colour, string $more = ''): string
    {
        return sprintf('<text x="%s" y="%s" font-size="%s" fill="%s" %s>%s</text>', self::n($x), self::n($y), self::n($size), $colour, $more, self::text($words));
    }

    private static function text(string $words): string
    {
        return htmlspecialchars($words, ENT_QUOTES | ENT_XML1 | ENT_SUBSTITUTE, 'UTF-8');
    }

    private static function n(float $value): string
    {
        return (string) round($value, 3);
    }
}
