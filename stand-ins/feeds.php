<?php

declare(strict_types=1);

// The Bench's feeds: a small server that tells sailings, sea state, fares, notices, events at the quay, day trips and lost property of the demo estate,
// each as somebody else's system would. Run by php -S with this as its router, on loopback; told to misbehave by PUT /switches.
// FEEDS_STATE names the file in which the switches are kept.

namespace UpperPane\StandIns;

// What each feed can be told to do wrong.
const SWITCHES = ['well', 'slow', 'failing', 'broken', 'empty', 'huge', 'stale', 'other-type', 'other-shape'];
const FEEDS = [
    'sailings.json' => 'application/json', 'sea-state.json' => 'application/json', 'fares.xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    'notices.xml' => 'application/rss+xml', 'quay-events.ics' => 'text/calendar', 'lost-property.csv' => 'text/csv', 'day-trips.json' => 'application/json',
];

// How many sailings a day, from when to when, min after midnight.
const ROUTES = [
    ['name' => 'Great Pellan', 'fare' => 14.0, 'every' => 30, 'from' => 380, 'to' => 1370, 'berth' => 2, 'crossing' => 25, 'stops' => ['Great Pellan, Harbour']],
    ['name' => 'Tolm', 'fare' => 18.5, 'every' => 90, 'from' => 395, 'to' => 1300, 'berth' => 4, 'crossing' => 40, 'stops' => ['Tolm']],
    ['name' => 'Hare Skerry', 'fare' => 21.0, 'every' => 110, 'from' => 430, 'to' => 1260, 'berth' => 1, 'crossing' => 55]
        + ['stops' => ['Hare Skerry, North Landing by the Old Light', 'Hare Skerry, South Landing']],
    ['name' => 'Vennick', 'fare' => 32.0, 'every' => 300, 'from' => 370, 'to' => 1290, 'berth' => 3, 'crossing' => 135, 'stops' => ['Tolm', 'Vennick']],
];
const VESSELS = ['Tolm Maid', 'Lantern', 'Skua', null, 'Great Auk', null];

/** A number that is the same whenever it is asked for, 0 to $below - 1. */
function drawn(string $of, int $below): int
{
    return crc32($of) % $below;
}

/** @return array<string, mixed> */
function sailings(\DateTimeImmutable $now): array
{
    $told = [];
    foreach (ROUTES as $n => $route) {
        $sailings = [];
        foreach ([0, 1] as $ahead) {
            $day = $now->setTime(0, 0)->modify("+$ahead days");
            for ($at = $route['from'], $number = 0; $at <= $route['to']; $at += $route['every'], $number++) {
                $key = $day->format('Y-m-d') . "$n $number";
                $fate = drawn("$key fate", 24);
                $late = $fate === 5 ? 10 + 5 * drawn("$key late", 6) : 0;
                $stops = [];
                foreach ($route['stops'] as $place => $name) {
                    $arrives = $day->modify(sprintf('+%d minutes', $at + (int) ($route['crossing'] * ($place + 1) / count($route['stops']))));
                    $stops[] = ['name' => $name, 'arrives' => $arrives->format('Y-m-d\TH:i')];
                }
                $sailings[] = [
                    'id' => sprintf('%s-%02d-%s', strtoupper(substr($route['name'], 0, 2)), $number + 1, $day->format('md')),
                    'departs' => $day->modify("+$at minutes")->format('Y-m-d\TH:i'),
                    'to' => $route['name'],
                    'berth' => $route['berth'],
                    'status' => $fate === 7 ? 'cancelled' : ($late > 0 ? 'delayed' : 'on time'),
                    'late_min' => $late === 0 ? null : $late,
                    'spaces' => drawn("$key spaces", 47),
                    'vessel' => VESSELS[drawn("$key vessel", count(VESSELS))],
                    'stops' => $stops,
                ];
            }
        }
        $told[] = ['name' => $route['name'], 'fare' => $route['fare'], 'wind_ms' => round(3 + drawn($now->format('Y-m-d H') . $n, 90) / 10, 1), 'sailings' => $sailings];
    }

    return ['operator' => 'Pellan Islands Ferries', 'timezone' => 'Europe/Lisbon', 'taken' => $now->format('c'), 'routes' => $told];
}

/** @return array<string, mixed> */
function seaState(\DateTimeImmutable $now): array
{
    $places = [];
    foreach (['Saltgate Quay', 'Great Pellan', 'Hare Skerry', 'Tolm', 'Vennick'] as $place) {
        $days = [];
        for ($ahead = 0; $ahead < 7; $ahead++) {
            $day = $now->modify("+$ahead days")->format('Y-m-d');
            $key = "$place $day";
            $days[] = [
                'date' => $day, 'waves_m' => round(0.3 + drawn("$key waves", 32) / 10, 1), 'wind_ms' => round(2 + drawn("$key wind", 150) / 10, 1),
                'gusts_ms' => round(4 + drawn("$key wind", 150) / 7, 1), 'air_c' => round(7 + drawn("$key air", 90) / 10, 1), 'sea_c' => round(12 + drawn("$place sea", 30) / 10, 1),
                'sky' => ['clear', 'cloudy', 'rain', 'fog', 'showers'][drawn("$key sky", 5)], 'high_water' => sprintf('%sT%02d:%02d', $day, 3 + drawn($day, 8), drawn("$day min", 60)),
            ];
        }
        $places[] = ['place' => $place, 'days' => $days];
    }

    return ['taken' => $now->format('c'), 'places' => $places];
}

/** @param list<list<string|float|null>> $rows */
function workbook(array $rows): string
{
    $data = '';
    foreach ($rows as $r => $row) {
        $data .= sprintf('<row r="%d">', $r + 1);
        foreach ($row as $c => $value) {
            $at = chr(65 + $c) . ($r + 1);
            $data .= $value === null ? '' : (is_string($value) ? "<c r=\"$at\" t=\"inlineStr\"><is><t>" . htmlspecialchars($value) . '</t></is></c>' : "<c r=\"$at\"><v>$value</v></c>");
        }
        $data .= '</row>';
    }
    $main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    $office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
    $file = (string) tempnam(sys_get_temp_dir(), 'fares');
    $zip = new \ZipArchive();
    $zip->open($file, \ZipArchive::OVERWRITE);
    $package = 'http://schemas.openxmlformats.org/package/2006';
    $relation = static fn (string $type, string $target): string => "<Relationships xmlns=\"$package/relationships\">"
        . "<Relationship Id=\"r1\" Type=\"$office/$type\" Target=\"$target\"/></Relationships>";
    foreach (
        [
            '[Content_Types].xml' => "<Types xmlns=\"$package/content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                . '<Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>'
                . '<Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>',
            '_rels/.rels' => $relation('officeDocument', 'xl/workbook.xml'),
            'xl/workbook.xml' => "<workbook xmlns=\"$main\" xmlns:r=\"$office\"><sheets><sheet name=\"Fares\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>",
            'xl/_rels/workbook.xml.rels' => $relation('worksheet', 'worksheets/sheet1.xml'),
            'xl/worksheets/sheet1.xml' => "<worksheet xmlns=\"$main\"><sheetData>$data</sheetData></worksheet>",
        ] as $name => $text
    ) {
        $zip->addFromString($name, '<?xml version="1.0" encoding="UTF-8"?>' . $text);
        // The same bytes whenever it is asked for.
        $zip->setMtimeName($name, 1_700_000_000);
    }
    $zip->close();
    $bytes = (string) file_get_contents($file);
    unlink($file);

    return $bytes;
}

function fares(): string
{
    $rows = [['Ticket', 'Great Pellan', 'Tolm', 'Hare Skerry', 'Vennick', 'Note']];
    foreach (
        ['Adult' => [1.0, null], 'Child, 4 to 15' => [0.5, null], 'Child under 4' => [0.0, 'with an adult'], 'Resident' => [0.4, 'card to be shown'], 'Bicycle' => [0.25, null],
        'Car with driver' => [2.75, 'up to 5 m'], 'Van with driver' => [3.5, 'up to 7 m'], 'Dog' => [null, 'free, on a lead']] as $ticket => [$share, $note]
    ) {
        $rows[] = [$ticket, ...array_map(static fn (array $route): ?float => $share === null ? null : round($route['fare'] * $share * 2) / 2, ROUTES), $note];
    }

    return workbook($rows);
}

function notices(\DateTimeImmutable $now): string
{
    $items = '';
    foreach (
        [
            ['Tolm Maid back in service', 'After her yearly survey <b>Tolm Maid</b> sails again from this morning.', 2],
            ['Berth 3 closed on Thursday', '<p>Dredging from 06:00 to 14:00.</p><p>Vennick leaves from berth 1.</p>', 9],
            ['Winter timetable from 1 December', 'Fewer evening sailings to Tolm &amp; Hare Skerry.', 26],
            ['Lift at the car deck out of order', 'Staff will help. Please ask.', 31],
        ] as $n => [$title, $text, $hours]
    ) {
        $items .= sprintf(
            '<item><guid isPermaLink="false">notice-%d</guid><title>%s</title><description>%s</description><pubDate>%s</pubDate></item>',
            $n + 1,
            htmlspecialchars($title),
            htmlspecialchars($text),
            $now->setTime((int) $now->format('H'), 0)->modify("-$hours hours")->format(DATE_RSS),
        );
    }

    return '<?xml version="1.0" encoding="UTF-8"?><rss version="2.0"><channel><title>Service notices</title><link>http://ferries.example/</link>'
        . "<description>Pellan Islands Ferries</description>$items</channel></rss>";
}

function events(): string
{
    $lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Saltgate Quay//Events//EN', 'X-WR-CALNAME:Events at the quay'];
    foreach (
        [
            ['market', '20260103T080000', '20260103T130000', 'FREQ=WEEKLY;BYDAY=SA', 'Market on the quay', 'Fish hall', 'Fish, bread and vegetables of the islands.'],
            ['band', '20260102T180000', '20260102T193000', 'FREQ=WEEKLY;BYDAY=FR', 'Brass band rehearsal', 'Bandstand', 'Open to all who like to listen.'],
            ['harbour-walk', '20260104T110000', '20260104T120000', 'FREQ=MONTHLY;BYDAY=1SU', 'Walk round the old harbour', 'Meet at the lamp', null],
            ['swap', '20260107T160000', '20260107T180000', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE', 'Book swap', 'Waiting room', 'Bring one, take one.'],
        ] as [$uid, $start, $end, $rule, $what, $where, $text]
    ) {
        array_push($lines, 'BEGIN:VEVENT', "UID:$uid@quay", 'DTSTAMP:20260101T000000Z', "DTSTART;TZID=Europe/Lisbon:$start", "DTEND;TZID=Europe/Lisbon:$end");
        array_push($lines, "RRULE:$rule", "SUMMARY:$what", "LOCATION:$where");
        array_push($lines, ...($text === null ? [] : ['DESCRIPTION:' . str_replace(',', '\\,', $text)]), ...['END:VEVENT']);
    }

    return implode("\r\n", [...$lines, 'END:VCALENDAR', '']);
}

function lostProperty(): string
{
    $what = ['Umbrella', 'Child’s glove, left', 'Key on a ring with a cork', 'Telephone, cracked', 'Walking stick', 'Book: “Knots”', 'Scarf', 'Rucksack', '', 'Spectacles'];
    $where = ['Hall', 'Gate B', 'Tolm Maid, upper deck', 'Lane 3', 'Lantern', ''];
    $out = "number;what;found;where;remark\r\n";
    for ($n = 1; $n <= 64; $n++) {
        $remark = $n % 9 === 0 ? str_repeat('Found under a seat and handed in by somebody who did not leave a name; wet, and dried since. ', 3) : ($n % 4 === 0 ? 'in the office' : '');
        $out .= sprintf("%d;\"%s\";2026-%02d-%02d;%s;\"%s\"\r\n", 4100 + $n, $what[drawn("what $n", 10)], 1 + drawn("month $n", 11), 1 + drawn("day $n", 28), $where[drawn("where $n", 6)], $remark);
    }

    return $out;
}

// Day trips with pictures of their own: what is at /pictures/NAME.svg. One has none, and the picture of another is not there.
const TRIPS = [
    ['title' => 'Morning on Tolm', 'text' => 'Out at 07:55, the lighthouse open till noon, back for lunch.', 'price' => 24.0, 'photo' => 'pictures/tolm.svg'],
    ['title' => 'Walk the length of Hare Skerry', 'text' => 'From the North Landing to the South in three hours. Good shoes.', 'price' => 28.5, 'photo' => 'pictures/hare-skerry.svg'],
    ['title' => 'Market day on Great Pellan', 'text' => 'Saturdays. Cheese, wool and bread; the late boat waits.', 'price' => 19.0, 'photo' => 'pictures/great-pellan.svg'],
    ['title' => 'Two days on Vennick', 'text' => 'Bed, breakfast and both crossings. An hour earlier there.', 'price' => 96.0, 'photo' => 'pictures/vennick.svg'],
    ['title' => 'Round the islands without landing', 'text' => 'For a grey day, with soup.', 'price' => null, 'photo' => null],
    ['title' => 'By night to see the lights', 'text' => 'Fridays at 22:00, in a clear sky alone.', 'price' => 32.0, 'photo' => 'pictures/lights.svg'],
];
const SCENES = [
    'tolm' => ['#8fc4d6', '#e4f0ea', '#fff6da', '#5f9a7f', '#2f7186'], 'hare-skerry' => ['#6f9fb6', '#f0dcb6', '#f7e6b8', '#4b8084', '#234d66'],
    'great-pellan' => ['#9fb8a0', '#f3ead2', '#fff3cf', '#6d7f4e', '#3a7a7c'], 'vennick' => ['#2b3a5c', '#e79a72', '#ffd9a0', '#463f59', '#243049'],
];

/** A shore, drawn; null of one that nobody has drawn. */
function drawing(string $name): ?string
{
    if (!isset(SCENES[$name])) {
        return null;
    }
    [$top, $low, $sun, $land, $sea] = SCENES[$name];
    $ridge = '';
    for ($x = 0; $x <= 1200; $x += 60) {
        $ridge .= sprintf(' L%d %d', $x, 560 - 60 * sin($x / 170 + drawn("$name shape", 7)) - drawn("$name $x", 90));
    }
    $waves = '';
    for ($row = 0; $row < 7; $row++) {
        $y = 690 + 70 * $row;
        $waves .= sprintf('<path d="M%d %d q60 -22 120 0 t120 0 t120 0"/>', drawn("$name wave $row", 780), $y);
    }

    return '<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="1200" viewBox="0 0 1200 1200"><defs><linearGradient id="s" x1="0" y1="0" x2="0" y2="1">'
        . "<stop offset=\"0\" stop-color=\"$top\"/><stop offset=\"1\" stop-color=\"$low\"/></linearGradient></defs><rect width=\"1200\" height=\"1200\" fill=\"url(#s)\"/>"
        . sprintf('<circle cx="%d" cy="%d" r="80" fill="%s"/>', 250 + drawn("$name sun", 700), 190 + drawn("$name height", 160), $sun)
        . "<path d=\"M0 640$ridge L1200 640 Z\" fill=\"$land\"/><rect y=\"630\" width=\"1200\" height=\"570\" fill=\"$sea\"/>"
        . "<g fill=\"none\" stroke=\"#ffffff\" stroke-opacity=\".25\" stroke-width=\"8\" stroke-linecap=\"round\">$waves</g>"
        . '<g transform="translate(540 700)"><path d="M-110 0 H130 L100 60 H-80 Z" fill="#f7f5ee"/><path d="M-50 0 V-70 H60 V0 Z" fill="#f7f5ee"/>'
        . '<rect x="-36" y="-52" width="20" height="20" fill="#17272e"/>'
        . '<rect x="-4" y="-52" width="20" height="20" fill="#17272e"/><rect x="28" y="-52" width="20" height="20" fill="#17272e"/></g></svg>';
}

function fed(string $feed, \DateTimeImmutable $now): string
{
    return match ($feed) {
        'sailings.json' => (string) json_encode(sailings($now), JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
        'sea-state.json' => (string) json_encode(seaState($now), JSON_UNESCAPED_UNICODE),
        'fares.xlsx' => fares(),
        'notices.xml' => notices($now),
        'quay-events.ics' => events(),
        'day-trips.json' => (string) json_encode(['season' => 'winter', 'trips' => TRIPS], JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
        default => lostProperty(),
    };
}

/** @return array<string, string> what each feed is told to do */
function switches(string $file): array
{
    $kept = is_file($file) ? json_decode((string) file_get_contents($file), true) : null;

    $told = array_filter(is_array($kept) ? $kept : [], static fn (mixed $to): bool => is_string($to) && in_array($to, SWITCHES, true));

    return array_map(strval(...), array_replace(array_fill_keys(array_keys(FEEDS), 'well'), array_intersect_key($told, FEEDS)));
}

$file = (string) getenv('FEEDS_STATE');
$path = ltrim((string) parse_url(is_string($_SERVER['REQUEST_URI']) ? $_SERVER['REQUEST_URI'] : '/', PHP_URL_PATH), '/');
if ($path === 'switches') {
    if ($_SERVER['REQUEST_METHOD'] === 'PUT') {
        $asked = json_decode((string) file_get_contents('php://input'), true);
        $wrong = !is_array($asked) || array_filter($asked, static fn (mixed $to, int|string $feed): bool => !isset(FEEDS[$feed]) || !in_array($to, SWITCHES, true), ARRAY_FILTER_USE_BOTH) !== [];
        if ($wrong) {
            http_response_code(422);
            echo json_encode(['feeds' => array_keys(FEEDS), 'switches' => SWITCHES]);

            return true;
        }
        file_put_contents($file, json_encode($asked + switches($file)));
    }
    header('Content-Type: application/json');
    echo json_encode(switches($file));

    return true;
}
$drawing = preg_match('~^pictures/([a-z-]+)\.svg$~D', $path, $m) === 1 ? drawing($m[1]) : null;
if ($drawing !== null) {
    header('Content-Type: image/svg+xml');
    echo $drawing;

    return true;
}
if (!isset(FEEDS[$path])) {
    http_response_code(404);
    echo 'Here are ' . implode(', ', array_keys(FEEDS)) . ', and /switches.';

    return true;
}
$now = new \DateTimeImmutable('now', new \DateTimeZone('Europe/Lisbon'));
$now = $now->setTime((int) $now->format('H'), (int) $now->format('i'));
$switch = switches($file)[$path];
$body = match ($switch) {
    'empty' => '',
    'broken' => substr(fed($path, $now), 0, (int) (strlen(fed($path, $now)) / 2)),
    'huge' => str_repeat(fed($path, $now), 1 + intdiv(21_000_000, strlen(fed($path, $now)))),
    'stale' => fed($path, $now->modify('-3 days')),
    'other-type' => '<!DOCTYPE html><html><body><h1>We are moving house</h1></body></html>',
    'other-shape' => (string) json_encode(['data' => ['list' => [['destination' => 'Tolm', 'when' => 'soon']]]]),
    default => fed($path, $now),
};
if ($switch === 'failing') {
    http_response_code(503);

    return true;
}
if ($switch === 'slow') {
    sleep(30);
}
$tag = '"' . substr(hash('sha256', $body), 0, 16) . '"';
header('ETag: ' . $tag);
header('Content-Type: ' . FEEDS[$path]);
if (($_SERVER['HTTP_IF_NONE_MATCH'] ?? '') === $tag) {
    http_response_code(304);

    return true;
}
$accepted = $_SERVER['HTTP_ACCEPT_ENCODING'] ?? '';
$isPacked = is_string($accepted) && str_contains($accepted, 'gzip');
if ($isPacked) {
    header('Content-Encoding: gzip');
}
echo $isPacked ? gzencode($body) : $body;

return true;
