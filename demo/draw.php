<?php

declare(strict_types=1);

// Draws the demo's pictures and films into demo/media. Run by hand when a drawing changes: php demo/draw.php [--pictures]
// Needs librsvg2-bin and ffmpeg, and the house faces in web/node_modules. What it writes is kept in the repository.

namespace UpperPane\Demo;

const PALETTES = [
    'dawn' => ['sky' => ['#6f9fb6', '#f0dcb6'], 'sun' => '#f7e6b8', 'far' => '#7fa8a6', 'near' => '#4b8084', 'sea' => ['#2b5d78', '#234d66', '#1c3f56']],
    'noon' => ['sky' => ['#8fc4d6', '#e4f0ea'], 'sun' => '#fff6da', 'far' => '#9cc0b0', 'near' => '#5f9a7f', 'sea' => ['#3a8396', '#2f7186', '#275f74']],
    'dusk' => ['sky' => ['#2b3a5c', '#e79a72'], 'sun' => '#ffd9a0', 'far' => '#6a5a72', 'near' => '#463f59', 'sea' => ['#2c3a57', '#243049', '#1b253b']],
    'night' => ['sky' => ['#0d1b2c', '#1f3a52'], 'sun' => '#e9efe6', 'far' => '#18303f', 'near' => '#122531', 'sea' => ['#0f2434', '#0c1e2c', '#091824']],
];

function svg(int $w, int $h, string ...$parts): string
{
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"$w\" height=\"$h\" viewBox=\"0 0 $w $h\">" . implode('', $parts) . '</svg>';
}

function sky(int $w, int $h, string $palette): string
{
    [$top, $low] = PALETTES[$palette]['sky'];

    return "<defs><linearGradient id=\"sky\" x1=\"0\" y1=\"0\" x2=\"0\" y2=\"1\"><stop offset=\"0\" stop-color=\"$top\"/><stop offset=\"1\" stop-color=\"$low\"/></linearGradient></defs>"
        . "<rect width=\"$w\" height=\"$h\" fill=\"url(#sky)\"/>";
}

function sun(float $x, float $y, float $r, string $palette): string
{
    $c = PALETTES[$palette]['sun'];

    return "<circle cx=\"$x\" cy=\"$y\" r=\"" . $r * 1.9 . "\" fill=\"$c\" opacity=\".18\"/><circle cx=\"$x\" cy=\"$y\" r=\"$r\" fill=\"$c\"/>";
}

/** @param list<array{float, float}> $ridge points as shares of the width and of the height above the sea */
function hills(int $w, float $sea, float $high, array $ridge, string $fill): string
{
    $d = 'M0 ' . $sea;
    foreach ($ridge as [$x, $y]) {
        $d .= ' L' . round($x * $w, 1) . ' ' . round($sea - $y * $high, 1);
    }

    return "<path d=\"$d L$w $sea Z\" fill=\"$fill\" stroke=\"$fill\" stroke-width=\"2\" stroke-linejoin=\"round\"/>";
}

function sea(int $w, int $h, float $level, string $palette, float $unit): string
{
    $out = '';
    foreach (PALETTES[$palette]['sea'] as $i => $fill) {
        $y = $level + ($h - $level) * $i * 0.3;
        $d = "M0 $y";
        $step = $unit * (2.2 + $i * 1.4);
        $lift = $i === 0 ? 0 : $unit * (0.10 + 0.08 * $i);
        for ($x = 0.0; $x < $w + $step; $x += $step) {
            $d .= sprintf(' q%.1f %.1f %.1f 0 q%.1f %.1f %.1f 0', $step / 4, -$lift, $step / 2, $step / 4, $lift, $step / 2);
        }
        $out .= "<path d=\"$d V$h H0 Z\" fill=\"$fill\"/>";
    }

    return $out;
}

/** A small car ferry, $s px from bow to stern, its water line at $y. */
function ferry(float $x, float $y, float $s, string $hull = '#f5ecdc', string $funnel = '#c8553d'): string
{
    $u = $s / 100;
    $windows = '';
    for ($i = 0; $i < 6; $i++) {
        $windows .= sprintf('<rect x="%.1f" y="-24" width="5" height="5" rx=".6" fill="#234d66"/>', 26 + $i * 8.4);
    }
    $ports = '';
    for ($i = 0; $i < 9; $i++) {
        $ports .= sprintf('<circle cx="%.1f" cy="-6.5" r="1.1" fill="#234d66"/>', 18 + $i * 7.6);
    }

    return "<g transform=\"translate($x $y) scale($u)\">"
        . "<rect x=\"58\" y=\"-46\" width=\"13\" height=\"16\" fill=\"$funnel\"/><rect x=\"58\" y=\"-42.5\" width=\"13\" height=\"3.4\" fill=\"$hull\"/>"
        . '<rect x="36.5" y="-49" width="1.4" height="20" fill="#17272e"/><path d="M38 -48.5 l9 3 l-9 3 Z" fill="#14665b"/>'
        . '<rect x="33" y="-37" width="22" height="8" fill="#fffdf8"/><rect x="34.5" y="-35.2" width="19" height="3.6" fill="#234d66"/>'
        . "<rect x=\"22\" y=\"-29\" width=\"58\" height=\"14\" fill=\"#fffdf8\"/>$windows"
        . "<path d=\"M0 -15 H97 L90 2 H12 Z\" fill=\"$hull\"/><path d=\"M9 -4 L12 2 H90 L92.5 -4 Z\" fill=\"#14665b\"/>$ports"
        . '<rect x="14" y="-15.6" width="72" height="1.2" fill="#d9c9ac"/></g>';
}

function lighthouse(float $x, float $y, float $h): string
{
    $u = $h / 100;

    return "<g transform=\"translate($x $y) scale($u)\"><path d=\"M-11 0 L-7 -78 H7 L11 0 Z\" fill=\"#fffdf8\"/>"
        . '<path d="M-9.9 -22 L-9 -40 H9 L9.9 -22 Z" fill="#c8553d"/><path d="M-8.2 -56 L-7.5 -70 H7.5 L8.2 -56 Z" fill="#c8553d"/>'
        . '<rect x="-9" y="-81" width="18" height="3.4" fill="#17272e"/><rect x="-5" y="-93" width="10" height="12" fill="#f7e6b8"/><path d="M-7 -93 L0 -101 L7 -93 Z" fill="#17272e"/></g>';
}

function pine(float $x, float $y, float $h, string $fill): string
{
    $u = $h / 10;

    return "<path transform=\"translate($x $y) scale($u)\" d=\"M0 -10 L2.6 -5.4 H1.4 L3.6 -1.8 H.5 V0 H-.5 V-1.8 H-3.6 L-1.4 -5.4 H-2.6 Z\" fill=\"$fill\"/>";
}

function gulls(float $x, float $y, float $s, string $ink): string
{
    $out = '';
    foreach ([[0, 0, 1], [1.7, -.7, .7], [-1.4, -.9, .6]] as [$dx, $dy, $k]) {
        $out .= sprintf(
            '<path d="M%.1f %.1f q%.1f %.1f %.1f 0 q%.1f %.1f %.1f 0" fill="none" stroke="%s" stroke-width="%.1f" stroke-linecap="round"/>',
            $x + $dx * $s,
            $y + $dy * $s,
            $s * .25 * $k,
            -$s * .28 * $k,
            $s * .5 * $k,
            $s * .25 * $k,
            -$s * .28 * $k,
            $s * .5 * $k,
            $ink,
            $s * .07,
        );
    }

    return $out;
}

function words(float $x, float $y, float $size, string $text, string $fill, string $family = 'Barlow Condensed', int $weight = 700, string $anchor = 'start'): string
{
    return "<text x=\"$x\" y=\"$y\" font-family=\"$family\" font-weight=\"$weight\" font-size=\"$size\" fill=\"$fill\" text-anchor=\"$anchor\">"
        . htmlspecialchars($text, ENT_XML1) . '</text>';
}

const RIDGE_A = [[0, .35], [.1, .62], [.19, .3], [.32, .78], [.46, .34], [.6, .5], [.76, .84], [1, .42]];
const RIDGE_B = [[0, .2], [.14, .34], [.3, .12], [.52, .4], [.7, .18], [.86, .46], [1, .2]];

function coast(int $w, int $h, string $palette, float $seaShare = .62, float $sunX = .72): string
{
    $sea = $h * $seaShare;
    $p = PALETTES[$palette];

    return sky($w, $h, $palette) . sun($w * $sunX, $sea - $h * .22, $h * .075, $palette)
        . hills($w, $sea + 2, $h * .34, RIDGE_A, $p['far']) . hills($w, $sea + 2, $h * .22, RIDGE_B, $p['near']) . sea($w, $h, $sea, $palette, $h * .08);
}

function island(int $w, int $h, string $palette): string
{
    $sea = $h * .7;
    $p = PALETTES[$palette];
    $path = sprintf(
        '<path d="M%1$.0f %2$.0f C%3$.0f %4$.0f %5$.0f %6$.0f %7$.0f %8$.0f" fill="none" stroke="#f0dcb6" stroke-width="%9$.1f" stroke-dasharray="%10$.1f %10$.1f" stroke-linecap="round"/>',
        $w * .30,
        $sea - $h * .01,
        $w * .38,
        $sea - $h * .16,
        $w * .50,
        $sea - $h * .10,
        $w * .56,
        $sea - $h * .33,
        $h * .008,
        $h * .02,
    );
    $trees = '';
    foreach ([.27, .31, .36, .63, .67, .72, .75] as $i => $x) {
        $trees .= pine($w * $x, $sea - $h * (.02 + .03 * ($i % 3)), $h * (.09 + .02 * ($i % 2)), '#2f5f58');
    }

    return sky($w, $h, $palette) . sun($w * .84, $h * .2, $h * .07, $palette) . hills($w, $sea + 2, $h * .2, RIDGE_B, $p['far'])
        . "<path d=\"M" . $w * .14 . " $sea C" . $w * .3 . ' ' . $h * .5 . ' ' . $w * .44 . ' ' . $h * .34 . ' ' . $w * .56 . ' ' . $h * .35
        . ' C' . $w * .7 . ' ' . $h * .37 . ' ' . $w * .74 . ' ' . $h * .58 . ' ' . $w * .9 . " $sea Z\" fill=\"{$p['near']}\"/>"
        . $path . $trees . sea($w, $h, $sea, $palette, $h * .08) . gulls($w * .3, $h * .38, $h * .06, '#17272e');
}

function png(string $name, string $svg): void
{
    $file = __DIR__ . "/media/$name";
    $source = sys_get_temp_dir() . '/upper-pane-draw.svg';
    file_put_contents($source, $svg);
    run(['rsvg-convert', '-o', $file, $source]);
}

/** @param list<string> $command */
function run(array $command): void
{
    passthru(implode(' ', array_map(escapeshellarg(...), $command)), $code);
    if ($code !== 0) {
        fwrite(STDERR, 'Failed: ' . implode(' ', $command) . "\n");
        exit(1);
    }
}

/** A film: $moving goes over $still along the ffmpeg expressions $x and $y (t in s), $front stays before it. */
function film(string $name, string $still, string $moving, string $front, string $x, string $y, int $seconds): void
{
    global $argv;
    if (in_array('--pictures', $argv, true)) {
        return;
    }
    $folder = sys_get_temp_dir();
    foreach (['still' => $still, 'moving' => $moving, 'front' => $front] as $layer => $svg) {
        file_put_contents("$folder/$layer.svg", $svg);
        run(['rsvg-convert', '-o', "$folder/$layer.png", "$folder/$layer.svg"]);
    }
    run([
        'ffmpeg', '-v', 'error', '-y', '-loop', '1', '-framerate', '25', '-i', "$folder/still.png", '-i', "$folder/moving.png", '-i', "$folder/front.png",
        '-filter_complex', "[0][1]overlay=x='$x':y='$y'[a];[a][2]overlay=0:0,format=yuv420p", '-t', (string) $seconds,
        '-c:v', 'libx264', '-preset', 'slow', '-crf', '23', '-g', '25', '-movflags', '+faststart', __DIR__ . "/media/$name",
    ]);
}

$fonts = sys_get_temp_dir() . '/upper-pane-fonts.conf';
file_put_contents($fonts, '<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM "fonts.dtd"><fontconfig><dir>' . dirname(__DIR__) . '/web/node_modules/@expo-google-fonts</dir><cachedir>/tmp/upper-pane-fonts</cachedir></fontconfig>');
putenv("FONTCONFIG_FILE=$fonts");

// --- Check-in: main 1344 x 864, side 576 x 864, foot 1920 x 216 -----------------------------------------------
[$w, $h] = [1344, 864];
$front = svg($w, $h, str_replace('<path', '<path opacity=".92"', sea($w, $h, $h * .72, 'dawn', $h * .08)));
film('crossing-at-dawn.mp4', svg($w, $h, coast($w, $h, 'dawn')), svg(430, 260, ferry(10, 215, 400)), $front, "-450+t*122", "420+6*sin(t*1.3)", 15);
png('hare-skerry-walks.png', svg(
    $w,
    $h,
    island($w, $h, 'noon'),
    words(64, 700, 104, 'Hare Skerry on foot', '#fffdf8'),
    words(66, 770, 46, 'Three marked walks. Boats at 9:20, 11:50 and 15:10.', '#f4efe2', 'Inter', 400),
));
png('lights-of-tolm.png', svg(
    1600,
    900,
    coast(1600, 900, 'dusk', .66, .3),
    '<path d="M960 620 q120 -110 330 -96 q180 10 310 96 Z" fill="#2e2a3f"/>',
    lighthouse(1240, 545, 300),
    '<path d="M1225 272 L400 130 V330 Z" fill="#f7e6b8" opacity=".22"/>',
    words(80, 760, 110, 'The lights of Tolm', '#fffdf8'),
    words(82, 825, 46, 'Evening crossings every Friday until the end of October', '#f4efe2', 'Inter', 400),
));

$side = static fn (string $ground, string $ink, string $kicker, string $head1, string $head2, string $small, string $art): string => svg(
    576,
    864,
    "<rect width=\"576\" height=\"864\" fill=\"$ground\"/>",
    $art,
    words(44, 96, 34, $kicker, $ink, 'Inter', 600),
    words(42, 196, 104, $head1, $ink),
    words(42, 292, 104, $head2, $ink),
    words(44, 812, 34, $small, $ink, 'Inter', 400),
);
$cup = '<g transform="translate(150 400)"><path d="M20 60 H240 Q236 250 130 250 Q24 250 20 60 Z" fill="#fffdf8"/><path d="M238 90 q70 0 60 60 q-8 50 -80 46" fill="none" stroke="#fffdf8" stroke-width="22"/>'
    . '<ellipse cx="130" cy="62" rx="110" ry="22" fill="#5a3a2c"/><path d="M90 20 q-24 -34 0 -60 M150 20 q-24 -34 0 -60" fill="none" stroke="#fffdf8" stroke-width="10" stroke-linecap="round" opacity=".8"/></g>';
png('quay-cafe.png', $side('#c8553d', '#fffdf8', 'Quay café', 'Soup is', 'on until 3', 'Next to berth 1, open from 5:40', $cup));
$bike = '<g transform="translate(78 450)" fill="none" stroke="#14665b" stroke-width="16" stroke-linecap="round" stroke-linejoin="round"><circle cx="95" cy="150" r="88"/><circle cx="325" cy="150" r="88"/>'
    . '<path d="M95 150 L160 20 H285 L325 150 M160 20 L215 150 L285 20 M95 150 H215 M140 -12 H186 M285 20 L272 -24 H312"/></g>';
png('bicycles-go-free.png', $side('#f0e3c8', '#14494a', 'All routes', 'Bicycles', 'go free', 'Board first, by the green line', $bike));
$ticket = '<g transform="translate(60 430) rotate(-6)"><path d="M0 0 H456 V84 a34 34 0 0 0 0 68 V236 H0 V152 a34 34 0 0 0 0 -68 Z" fill="#f5ecdc"/>'
    . '<path d="M330 16 V220" stroke="#1c3f56" stroke-width="5" stroke-dasharray="14 12"/>' . words(40, 100, 66, 'Day ticket', '#1c3f56') . words(40, 180, 70, '18.50', '#c8553d') . '</g>';
png('day-ticket.png', $side('#1c3f56', '#f5ecdc', 'As often as you like', 'One day,', 'all islands', 'At the desk or on board', $ticket));

$foot = static fn (string $ground, string $mark, string $ink, string $sign, string $text, string $more): string => svg(
    1920,
    216,
    "<rect width=\"1920\" height=\"216\" fill=\"$ground\"/><rect width=\"216\" height=\"216\" fill=\"$mark\"/>",
    words(108, 152, 128, $sign, $ground, anchor: 'middle'),
    words(268, 108, 76, $text, $ink),
    words(270, 172, 42, $more, $ink, 'Inter', 400),
);
png('notice-berth-2.png', $foot('#14665b', '#f7e6b8', '#fffdf8', '2', 'Berth 2 is closed until noon', 'Sailings to Tolm leave from berth 4, five minutes along the quay.'));
png('notice-check-in.png', $foot('#17272e', '#8fc4d6', '#fffdf8', '20', 'Check-in closes 20 minutes before sailing', 'Vehicles 30 minutes. Please keep your booking at hand.'));

// --- Gate totem: 1080 x 1920 ------------------------------------------------------------------------------------
[$w, $h] = [1080, 1080];
$front = svg($w, $h, sea($w, $h, $h * .74, 'noon', $h * .07));
film('boarding-the-tolm-maid.mp4', svg($w, $h, coast($w, $h, 'noon', .6, .26)), svg(760, 460, ferry(20, 400, 700, '#f5ecdc', '#c8553d')), $front, 'if(lt(t,7),-760+t*132,164)', '400+8*sin(t*1.1)', 10);
png('great-pellan-market.png', svg(
    $w,
    $h,
    sky($w, $h, 'noon'),
    hills($w, 700, 420, RIDGE_A, '#9cc0b0'),
    '<rect y="690" width="1080" height="390" fill="#e7d7b4"/>',
    ...array_map(static fn (int $i): string => '<g transform="translate(' . (60 + $i * 330) . ' 480)"><rect x="14" y="90" width="10" height="290" fill="#6b4a35"/><rect x="266" y="90" width="10" height="290" fill="#6b4a35"/>'
        . '<rect x="14" y="250" width="262" height="90" fill="#8a6246"/>' . implode('', array_map(static fn (int $k): string => '<path d="M' . $k * 48 . ' 20 h48 v70 a24 24 0 0 1 -48 0 Z" fill="' . ($k % 2 === 0 ? '#c8553d' : '#fffdf8') . '"/>', range(0, 5)))
        . implode('', array_map(static fn (int $k): string => '<circle cx="' . (44 + $k * 42) . '" cy="238" r="20" fill="' . ['#d98a3a', '#5f9a7f', '#c8553d'][($k + $i) % 3] . '"/>', range(0, 4))) . '</g>', [0, 1, 2]),
));
png('keep-to-the-right.png', svg(
    1080,
    520,
    '<rect width="1080" height="520" fill="#f0e3c8"/>',
    '<path d="M120 260 H520 M400 130 L530 260 L400 390" fill="none" stroke="#14665b" stroke-width="52" stroke-linecap="round" stroke-linejoin="round"/>',
    words(600, 240, 108, 'Foot', '#14494a'),
    words(600, 352, 108, 'passengers', '#14494a'),
));
png('vehicles-lane-3.png', svg(
    1080,
    520,
    '<rect width="1080" height="520" fill="#17272e"/>',
    '<g transform="translate(110 150)" fill="#f7e6b8"><path d="M30 130 L80 30 H300 L370 130 H420 V220 H0 V150 Z"/><circle cx="100" cy="222" r="44" fill="#17272e"/><circle cx="100" cy="222" r="28"/><circle cx="322" cy="222" r="44" fill="#17272e"/><circle cx="322" cy="222" r="28"/></g>',
    words(600, 236, 120, 'Vehicles', '#f7e6b8'),
    words(600, 356, 120, 'lane 3', '#f7e6b8'),
));

$waves = static fn (int $w, int $h, string $ground, string $line): string => svg($w, $h, "<rect width=\"$w\" height=\"$h\" fill=\"$ground\"/>", implode('', array_map(
    static fn (int $i): string => '<path d="M0 ' . ($h - 26 - $i * 34) . str_repeat(' q30 -18 60 0 q30 18 60 0', intdiv($w, 120) + 1) . "\" fill=\"none\" stroke=\"$line\" stroke-width=\"5\" opacity=\"" . (.5 - $i * .15) . '"/>',
    [0, 1, 2],
)));
png('ground-green.png', $waves(1080, 320, '#14665b', '#3f8a7c'));
png('ground-ink.png', $waves(480, 540, '#17272e', '#3a5563'));
png('ground-info.png', $waves(1080, 400, '#fffdf8', '#d9d3c3'));
png('ground-foot.png', $waves(1080, 120, '#17272e', '#3a5563'));

// --- Marks: of the ferries, and of the night boats on the vessel; on a plate of their own, so that they stand on any ground ---------
$mark = static fn (string $ground, string $ink, string $accent, string $sign, string $above, string $below): string => svg(
    640,
    160,
    "<rect width=\"640\" height=\"160\" rx=\"28\" fill=\"$ground\"/><circle cx=\"80\" cy=\"80\" r=\"58\" fill=\"$accent\"/>$sign",
    words(164, 72, 62, $above, $ink),
    words(165, 128, 46, $below, $ink, 'Barlow Condensed', 500),
);
$crests = implode('', array_map(
    static fn (int $i): string => '<path d="M34 ' . (84 + $i * 20) . ' q11.5 -12 23 0 t23 0 t23 0 t23 0" fill="none" stroke="#fffdf8" stroke-width="6" stroke-linecap="round"/>',
    [0, 1],
));
png('mark-ferries.png', $mark('#fffdf8', '#14665b', '#14665b', '<path d="M52 72 L80 34 L108 72 Z" fill="#f7e6b8"/>' . $crests, 'PELLAN ISLANDS', 'Ferries between four quays'));
png('mark-night-boats.png', $mark('#17272e', '#cfe3ea', '#1c3f56', '<path d="M92 36 a40 40 0 1 0 26 56 a32 32 0 0 1 -26 -56 Z" fill="#f7e6b8"/>', 'NIGHT BOATS', 'Pellan Islands Ferries'));

// --- Deck strip: 1440 x 540 of 1920 x 540 -------------------------------------------------------------------------
png('strip-great-pellan.png', svg(1440, 540, coast(1440, 540, 'noon', .66, .84), ferry(330, 420, 300), gulls(980, 120, 44, '#17272e')));
png('strip-lights.png', svg(
    1440,
    540,
    coast(1440, 540, 'dusk', .68, .2),
    '<path d="M860 372 q120 -92 290 -80 q160 8 290 80 Z" fill="#2e2a3f"/>',
    lighthouse(1130, 306, 210),
    '<path d="M1120 116 L240 40 V170 Z" fill="#f7e6b8" opacity=".2"/>',
));

// --- Shop window: 3840 x 2160, and one picture that is too small for it -------------------------------------------
png('shop-woollens.png', svg(
    3840,
    2160,
    '<rect width="3840" height="2160" fill="#1c3f56"/>',
    '<g transform="translate(2300 420)"><path d="M320 40 Q520 170 720 40 L1010 190 L930 560 L800 520 V1300 H240 V520 L110 560 L30 190 Z" fill="#f5ecdc"/>'
        . implode('', array_map(static fn (int $i): string => '<path d="M240 ' . (640 + $i * 120) . ' ' . str_repeat('l47 -50 l47 50 ', 6) . '" fill="none" stroke="' . ($i % 2 === 0 ? '#c8553d' : '#14665b') . '" stroke-width="26"/>', range(0, 3))) . '</g>',
    words(260, 980, 420, 'Knitted', '#fffdf8'),
    words(260, 1380, 420, 'on Vennick', '#fffdf8'),
    words(272, 1590, 120, 'Woollens at the quay shop', '#f0dcb6', 'Inter', 400),
));
png('shop-charts.png', svg(
    3840,
    2160,
    '<rect width="3840" height="2160" fill="#f0e3c8"/>',
    '<g transform="translate(2050 300)"><rect width="1480" height="1560" fill="#fffdf8"/><path d="M180 1180 C260 760 520 560 760 600 C1080 650 1060 980 1280 1000 C1360 1280 900 1400 620 1340 C420 1310 200 1360 180 1180 Z" fill="#9cc0b0" stroke="#2f5f58" stroke-width="12"/>'
        . '<path d="M0 420 H1480 M0 800 H1480 M0 1180 H1480 M370 0 V1560 M740 0 V1560 M1110 0 V1560" stroke="#2b5d78" stroke-width="5" opacity=".45"/>'
        . '<circle cx="1180" cy="330" r="180" fill="none" stroke="#c8553d" stroke-width="14"/><path d="M1180 120 L1224 330 L1180 540 L1136 330 Z" fill="#c8553d"/></g>',
    words(260, 980, 420, 'Charts of', '#14494a'),
    words(260, 1380, 420, 'the islands', '#14494a'),
    words(272, 1590, 120, 'On paper that stands rain', '#14494a', 'Inter', 400),
));
png('open-late-small.png', svg(960, 540, coast(960, 540, 'night', .7, .84), words(60, 250, 110, 'Open until nine', '#f7e6b8'), words(62, 320, 44, 'while the late boat is in', '#fffdf8', 'Inter', 400)));

// --- Hall wall: 5768 x 2164, bezels hidden, and what stands on its panel B3 -----------------------------------------
[$w, $h] = [5768, 2164];
png('hall-ferry.png', svg(
    $w,
    $h,
    sky($w, $h, 'dawn'),
    sun(4560, 760, 210, 'dawn'),
    hills($w, 1500, 700, RIDGE_A, '#7fa8a6'),
    hills($w, 1500, 380, [[0, .5], [.12, .9], [.25, .3], [.5, .1], [.72, .45], [.85, .8], [1, .35]], '#4b8084'),
    sea($w, $h, 1490, 'dawn', 150),
    ferry(1500, 1680, 2300),
    gulls(3300, 420, 150, '#17272e'),
));
$board = static fn (string $ground, string $ink, string $title, string ...$lines): string => svg(
    1920,
    1080,
    "<rect width=\"1920\" height=\"1080\" fill=\"$ground\"/><rect x=\"110\" y=\"270\" width=\"1700\" height=\"6\" fill=\"$ink\" opacity=\".5\"/>",
    words(104, 214, 190, $title, $ink),
    ...array_map(static fn (int $i): string => words(110, 430 + $i * 170, 128, array_values($lines)[$i], '#fffdf8', 'Barlow Condensed', 500), array_keys(array_values($lines))),
);
png('hall-fares.png', $board('#14494a', '#f7e6b8', 'Day returns', 'Great Pellan  14.00', 'Hare Skerry  9.50', 'Tolm  11.00', 'Vennick  22.00'));
png('hall-hours.png', $board('#1c3f56', '#8fc4d6', 'Quay office', 'Every day  06:15 to 21:00', 'Vehicles close 30 min before', 'Foot passengers 10 min', 'Lost property: counter 2'));
