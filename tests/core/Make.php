<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core;

use Random\Engine\Mt19937;
use Random\Randomizer;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Media\Swatches;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;

/**
 * Documents for tests: small, named for what they are, and random ones from a seed.
 *
 * @phpstan-type Doc array<string, mixed>
 */
final class Make
{
    /**
     * @param mixed ...$more further fields by name
     * @return Doc
     */
    public static function picture(string $id = 'i1', int $width = 1600, int $height = 900, int $durationMs = 10_000, mixed ...$more): array
    {
        return ['id' => $id, 'media' => ['name' => "$id.png", 'width' => $width, 'height' => $height], 'duration_ms' => $durationMs] + self::named($more);
    }

    /** @return Doc */
    public static function film(string $id = 'f1', int $lengthMs = 15_000, int $width = 1920, int $height = 1080, mixed ...$more): array
    {
        return ['id' => $id, 'media' => ['name' => "$id.mp4", 'width' => $width, 'height' => $height, 'length_ms' => $lengthMs]] + self::named($more);
    }

    /**
     * @param ?list<Doc> $items
     * @return Doc
     */
    public static function zone(string $id, int $x, int $y, int $width, int $height, ?array $items = null, mixed ...$more): array
    {
        return [
            'id' => $id, 'kind' => 'zone', 'rect' => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height],
            'playlist' => ['items' => $items ?? [self::picture('i1', $width, $height)]],
        ] + self::named($more);
    }

    /**
     * @param list<Doc> $elements
     * @return Doc
     */
    public static function layout(array $elements, int $width = 1920, int $height = 1080, string $id = 'test'): array
    {
        return ['format' => 'upper-pane/layout@1', 'id' => $id, 'name' => "Layout $id", 'canvas' => ['width' => $width, 'height' => $height], 'elements' => $elements];
    }

    /** @return Doc main and side over a footer, as the trade divides a landscape screen */
    public static function harbour(int $footY = 864, int $footHeight = 216): array
    {
        return self::layout([
            self::zone('main', 0, 0, 1344, 864),
            self::zone('side', 1344, 0, 576, 864),
            self::zone('foot', 0, $footY, 1920, $footHeight),
        ]);
    }

    /** @return Doc */
    public static function display(int $width = 1920, int $height = 1080, int $rotation = 0): array
    {
        return [
            'format' => 'upper-pane/display@1', 'id' => 'd', 'name' => 'Check-in 1', 'timezone' => 'Europe/Lisbon',
            'viewing' => ['nearest_mm' => 2000, 'farthest_mm' => 10000],
            'panels' => [[
                'id' => 'p1', 'column' => 0, 'row' => 0, 'native' => ['width' => $width, 'height' => $height],
                'active_mm' => ['width' => 941.2, 'height' => 529.4], 'bezel_mm' => ['left' => 10, 'top' => 10, 'right' => 10, 'bottom' => 10],
                'rotation' => $rotation,
            ]],
        ];
    }

    /**
     * A wall on a grid, its outputs not stated. The Hall wall of the demo by default: 3 x 2, bezels compensated.
     *
     * @param mixed ...$more further fields of the display by name
     * @return Doc
     */
    public static function wall(int $columns = 3, int $rows = 2, int $rotation = 0, int $width = 1920, int $height = 1080, mixed ...$more): array
    {
        $panels = [];
        for ($row = 0; $row < $rows; $row++) {
            for ($column = 0; $column < $columns; $column++) {
                $panels[] = [
                    'id' => chr(65 + $row % 26) . ($column + 1), 'column' => $column, 'row' => $row, 'native' => ['width' => $width, 'height' => $height],
                    'active_mm' => ['width' => $width * 0.63, 'height' => $height * 0.63],
                    'bezel_mm' => ['left' => 1.8, 'top' => 1.8, 'right' => 0.9, 'bottom' => 0.9], 'rotation' => $rotation,
                ];
            }
        }

        return self::named($more) + ['name' => 'Hall wall', 'viewing' => ['nearest_mm' => 2000, 'farthest_mm' => 15_000], 'panels' => $panels] + self::display();
    }

    /**
     * Panels that hang freely, each 960 x 540 px on 960 x 540 mm unless it says otherwise.
     *
     * @param array<string, array<string, mixed>> $panels what is special of each, by id
     * @return Doc
     */
    public static function freeWall(array $panels): array
    {
        $all = [];
        foreach ($panels as $id => $own) {
            $all[] = ['id' => $id] + $own + [
                'origin_mm' => ['x' => 0, 'y' => 0], 'native' => ['width' => 960, 'height' => 540], 'active_mm' => ['width' => 960, 'height' => 540],
                'bezel_mm' => ['left' => 5, 'top' => 5, 'right' => 5, 'bottom' => 5], 'rotation' => 0,
            ];
        }

        return ['panels' => $all] + self::display();
    }

    /**
     * @param array<mixed> $more
     * @return Doc
     */
    private static function named(array $more): array
    {
        return array_filter($more, is_string(...), ARRAY_FILTER_USE_KEY);
    }

    /**
     * What a landscape display plays by a schedule.
     *
     * @param array<string, array<mixed>> $documents layouts, or items that play full screen, by id
     * @param list<Doc> $bookings
     * @param ?array<string, string> $standby
     * @param Doc $more of the schedule
     */
    public static function programme(array $documents, array $bookings, ?array $standby, string $timezone = 'Europe/Lisbon', array $more = []): Programme
    {
        $schedule = Schedule::fromArray($more
            + ['format' => Schedule::FORMAT, 'id' => 's', 'name' => 'S', 'timezone' => 'UTC', 'bookings' => $bookings] + ($standby === null ? [] : ['standby' => $standby]));

        return Programme::scheduled($schedule, Size::px(1920, 1080), $timezone, static function (Played $played, Size $size) use ($documents): Composed {
            $document = $documents[$played->id];

            if (!array_is_list($document)) {
                return self::composed(self::named($document));
            }
            $items = array_values(array_map(self::named(...), array_filter($document, is_array(...))));

            return self::composed(self::layout([self::zone('whole', 0, 0, $size->width, $size->height, $items)], $size->width, $size->height, $played->id));
        });
    }

    /**
     * @param array<string, array{url: string, sha256: string, bytes: int, type: string}> $media by id
     * @param list<array{family: string, weight: int, url: string, sha256: string, bytes: int}> $faces
     */
    public static function release(Display $display, Programme $programme, array $media, array $faces, int $fromMs = 0, int $toMs = 0): Release
    {
        return Release::of($display, $programme, Sheet::each($programme, new Surroundings(), $fromMs, $toMs, 'b1'), $media, $faces, $fromMs, $toMs, 'b1');
    }

    /** Layouts booked at random around the night of October 2026 in which the clocks are set back, also in a zone. */
    public static function bookedAround(Randomizer $random, bool $standby): Programme
    {
        $documents = [];
        for ($n = 0; $n < 4; $n++) {
            $documents["l$n"] = ['id' => "l$n"] + ($n % 2 === 0 ? self::comingAndGoing($random) : self::randomLayout($random, 1));
        }
        $bookings = [];
        for ($n = 0; $n < 10; $n++) {
            $day = $random->getInt(22, 26);
            $hour = $random->getInt(0, 23);
            $bookings[] = array_filter([
                'id' => "b$n",
                'zone' => $n % 3 === 2 ? 'z0' : null,
                'plays' => ['layout' => 'l' . $random->getInt(0, 3)],
                'rank' => ['takeover', 'dated', 'weekly', 'everyday'][$random->getInt(0, 3)],
                'start' => sprintf('2026-10-%02dT%02d:%02d:00', $day, $hour, 5 * $random->getInt(0, 11)),
                'end' => sprintf('2026-10-%02dT%02d:59:17', $day + $random->getInt(0, 1), $random->getInt($hour, 23)),
                'rrule' => [null, 'FREQ=DAILY', 'FREQ=HOURLY;INTERVAL=5'][$random->getInt(0, 2)],
            ], static fn (mixed $value): bool => $value !== null);
        }

        return self::programme($documents, $bookings, $standby ? ['layout' => 'l1'] : null);
    }

    /** @param Doc $document */
    public static function composed(array $document, ?Library $library = null, ?Surroundings $surroundings = null): Composed
    {
        return Composer::compose(Layout::fromArray($document), $library, $surroundings);
    }

    /**
     * A layout of the demo in its house style, with the others that it names, and sources that have told nothing yet.
     *
     * @param Doc $document
     */
    public static function demo(array $document): Composed
    {
        $all = array_map(static fn (string $file): array => (array) json_decode((string) file_get_contents($file), true), glob(__DIR__ . '/../../demo/layouts/*.json') ?: []);

        $style = HouseStyle::fromArray((array) json_decode((string) file_get_contents(__DIR__ . '/../../demo/styles/pellan.json'), true));

        $around = (new Surroundings())->styled(Styles::of($style))->speaking(self::inTheDemo());

        return self::composed($document, Library::of($all), $around->fed(Feeds::asked(static fn (): array => [new Snapshot(null)])));
    }

    /** What its outermost place says of itself. */
    public static function inTheDemo(): Speaking
    {
        $estate = (array) json_decode((string) file_get_contents(__DIR__ . '/../../demo/estate.json'), true);

        return new Speaking(null, [], $estate['places'][0]['settings']['vars']);
    }

    /**
     * A board of one line of text for each row.
     *
     * @param mixed ...$more further fields by name
     * @return Doc
     */
    public static function board(string $text = '{to}', int $height = 400, int $pattern = 100, int $width = 600, mixed ...$more): array
    {
        return ['id' => 'board', 'kind' => 'board', 'rect' => ['x' => 10, 'y' => 20, 'width' => $width, 'height' => $height]] + self::named($more) + [
            'rows' => ['source' => 's'],
            'pattern' => ['size' => ['width' => $width, 'height' => $pattern], 'elements' => [self::told('to', $text, $width, $pattern)]],
        ];
    }

    /**
     * A text that is a message.
     *
     * @param mixed ...$more further fields by name
     * @return Doc
     */
    public static function told(string $id, string $text, int $width = 600, int $height = 100, mixed ...$more): array
    {
        return self::named($more) + ['id' => $id, 'kind' => 'text', 'message' => true, 'rect' => ['x' => 0, 'y' => 0, 'width' => $width, 'height' => $height], 'text' => $text]
            + ['style' => ['family' => Typewriter::FAMILY, 'size_px' => 40]];
    }

    /**
     * What one source, `s`, has told.
     *
     * @param list<array<string, mixed>> $rows
     */
    public static function fed(array $rows, ?int $takenMs = null, ?int $staleAfterMs = null, bool $isStrict = false): Feeds
    {
        return Feeds::of(['s' => [new Snapshot(self::tree($rows), $takenMs, staleAfterMs: $staleAfterMs)]], $isStrict);
    }

    /** What `s` has told, twice or thrice, of rows that come and go around an instant, in half seconds. */
    public static function randomFeeds(Randomizer $random, int $fromMs): Feeds
    {
        $snapshots = [];
        for ($n = 0, $count = $random->getInt(1, 3); $n < $count; $n++) {
            $rows = array_map(static fn (int $row): array => [
                'to' => str_repeat('ab ', $random->getInt(1, 5)) . $row,
                'n' => $random->getInt(-5, 20),
                'at' => (string) Instant::ofMs($fromMs + 500 * $random->getInt(-60, 240)),
            ], range(1, $random->getInt(1, 9)));
            $snapshots[] = new Snapshot(
                self::tree($random->getInt(0, 9) === 0 ? [] : $rows),
                $fromMs + 20_000 * $n,
                $n === 0 ? PHP_INT_MIN : $fromMs + 500 * $random->getInt(40 * $n, 40 * $n + 39),
                staleAfterMs: $random->getInt(0, 1) === 0 ? null : 500 * $random->getInt(10, 100),
            );
        }

        return Feeds::of(['s' => $snapshots]);
    }

    /** @return Doc boards, texts and running text that tell `s`, also in a layout that lasts as long as its board */
    public static function tellingLayout(Randomizer $random, int $depth = 1): array
    {
        $rows = ['source' => 's', 'where' => [['field' => 'at', 'is' => 'upcoming', 'from_min' => -1 / 60, 'to_min' => $random->getInt(10, 90) / 60]]];
        $elements = [];
        foreach (range(0, $random->getInt(0, 2)) as $n) {
            $elements[] = ['id' => "b$n"] + [
                'rows' => $random->getInt(0, 3) === 0 ? ['source' => 's'] : $rows,
                'transition' => [['kind' => 'cut'], ['kind' => 'fade', 'ms' => 400], ['kind' => 'push', 'ms' => 500]][$random->getInt(0, 2)],
                'balance' => $random->getInt(0, 1) === 0,
                ...($random->getInt(0, 1) === 0 ? [] : ['page_ms' => 500 * $random->getInt(2, 9)]),
                ...[[], ['stale' => 'mark'], ['stale' => ['elements' => [self::told('old', '{taken}')]]]][$random->getInt(0, 2)],
                ...($random->getInt(0, 1) === 0 ? [] : ['empty' => ['elements' => [self::told('none', 'none of {count}')]]]),
                ...($random->getInt(0, 1) === 0 ? [] : ['highlight' => [['where' => [['field' => 'at', 'is' => 'upcoming', 'to_min' => 0.2]], 'fill' => '#a3262a']]]),
            ] + self::board('{to}', $random->getInt(150, 320), $random->getInt(40, 110));
        }
        $elements[] = self::told('first', '{to}', rows: $rows);
        $elements[] = self::told('said', 'as', rows: $rows, texts: ['en' => 'as {to}', 'pt' => 'de {n, number, ::.00} {to}'], turn_ms: 500 * $random->getInt(1, 9));
        $elements[] = [
            'kind' => 'ticker', 'texts' => ['en' => 'Back soon', 'pt' => 'Volto já {n}', 'de' => '{to} #'], 'turn_ms' => 500 * $random->getInt(1, 9), 'speed_px_s' => 300,
        ] + self::told('runs', 'x', 300, 50, ...($random->getInt(0, 1) === 0 ? [] : ['rows' => $rows]));
        $elements[] = self::told('while', 'while', message: false, when: ['rows' => $rows, 'at_least' => $random->getInt(1, 3)]);
        $elements[] = [
            'id' => 'chart',
            'kind' => 'chart',
            'rect' => ['x' => 0, 'y' => 0, 'width' => 300, 'height' => 200],
            'rows' => $rows,
            'type' => ['columns', 'line', 'bars'][$random->getInt(0, 2)],
        ]
            + ['value' => 'n', 'category' => 'to', 'style' => ['family' => Typewriter::FAMILY, 'size_px' => 20]];
        $elements[] = ['id' => 'run', 'kind' => 'ticker', 'rect' => ['x' => 0, 'y' => 0, 'width' => 300, 'height' => 50], 'message' => true, 'text' => '{to}', 'rows' => $rows, 'speed_px_s' => 120]
            + ['style' => ['family' => Typewriter::FAMILY, 'size_px' => 20]];
        if ($depth > 0) {
            $elements[] = self::zone('z', 0, 0, 640, 360, [
                ['id' => 'i', 'layout' => self::tellingLayout($random, $depth - 1)] + ($random->getInt(0, 1) === 0 ? [] : ['duration_ms' => 500 * $random->getInt(4, 30)]),
                self::picture('p', durationMs: 3000),
                self::picture('w', durationMs: 2500, when: ['rows' => $rows]),
                ['id' => 'e', 'each' => $rows, 'duration_ms' => 500 * $random->getInt(1, 9), 'layout' => self::layout([self::told('one', '{to}'), self::told('all', '{n}', rows: $rows)], id: 'each')],
            ]);
        }

        return self::layout($elements, 1280, 720, "telling$depth");
    }

    /** @param list<array<string, mixed>> $rows */
    public static function tree(array $rows): mixed
    {
        return json_decode((string) json_encode($rows));
    }

    /** @param Doc $document a playlist over a whole canvas */
    public static function list(array $document, ?Library $library = null): Composed
    {
        return Composer::over($library)->playlist(Playlist::fromNode(Node::root($document)));
    }

    /** @param Doc $document */
    public static function arranged(array $document): Arrangement
    {
        return Arrangement::of(Layout::fromArray($document));
    }

    /** A layout for ever. */
    public static function shownAt(Composed $layout, int $anchorMs = 0, ?Surroundings $surroundings = null): ShownAt
    {
        return ShownAt::of(Programme::endless($layout, $surroundings->timezone ?? 'UTC', $anchorMs), $surroundings);
    }

    /** @return Doc of a layout for ever */
    public static function runSheet(Composed $layout, int $anchorMs = 0, ?Surroundings $surroundings = null, int $fromMs = 0, int $toMs = 0): array
    {
        return RunSheet::of(Programme::endless($layout, $surroundings->timezone ?? 'UTC', $anchorMs), $surroundings, $fromMs, $toMs);
    }

    public static function checked(Composed $layout, ?Display $display = null, ?FaceMetrics $faces = null, ?Swatches $swatches = null): Findings
    {
        return Checks::run($layout, (new Surroundings('UTC', $faces, null, $swatches))->on($display));
    }

    /** @param Doc $document checked, with cures that have been tried */
    public static function cured(array $document, ?Surroundings $surroundings = null, ?Library $library = null): Findings
    {
        $layout = Layout::fromArray($document);
        $composer = Composer::over($library);

        return Checks::curing($layout, $composer->layout($layout), $composer, $surroundings ?? new Surroundings());
    }

    /** How many random cases are tried: so many, or with UPPER_PANE_LONG=1 ten times as many. */
    public static function rounds(int $count): int
    {
        return getenv('UPPER_PANE_LONG') === '1' ? 10 * $count : $count;
    }

    /** Random cases, the same in every run; others with UPPER_PANE_SEED, which is printed so that a run can be done again. */
    public static function random(int $seed): Randomizer
    {
        static $shift = null;
        if ($shift === null) {
            $said = getenv('UPPER_PANE_SEED');
            $shift = is_string($said) && $said !== '' ? (int) $said : 0;
            $shift === 0 ?: fwrite(STDERR, "Random cases of UPPER_PANE_SEED=$shift\n");
        }

        return new Randomizer(new Mt19937($seed + (int) $shift));
    }

    /** @return Doc a layout of some zones with fades, films, endless items, followers and nested layouts */
    public static function randomLayout(Randomizer $random, int $depth = 0): array
    {
        $elements = [];
        $count = $random->getInt(1, 4);
        for ($z = 0; $z < $count; $z++) {
            $items = [];
            for ($i = 0, $n = $random->getInt(0, 4); $i < $n; $i++) {
                $items[] = self::randomItem("i$i", $random, $depth);
            }
            $follows = $z > 0 && $depth === 0 && $random->getInt(0, 3) === 0 ? ['follows' => 'z0'] : [];
            $elements[] = self::zone("z$z", $random->getInt(-50, 900), $random->getInt(-50, 500), $random->getInt(1, 900), $random->getInt(1, 500), $items, ...$follows);
            if ($random->getInt(0, 3) === 0) {
                $extras = [self::randomItem('x0', $random, 2), self::randomItem('x1', $random, 2)];
                $elements[$z]['playlist']['interleave'] = ['every' => $random->getInt(1, 3), 'items' => array_slice($extras, 0, $random->getInt(1, 2))];
            }
        }
        $elements[] = ['id' => 'words', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 10, 'height' => 10], 'text' => 'x', 'style' => ['size_px' => 20]];

        return self::layout($elements, 1280, 720, "random$depth");
    }

    /** @return Doc a random layout in which about half of the items come and go around the night on which Europe's clocks go back in 2026 */
    public static function comingAndGoing(Randomizer $random): array
    {
        $layout = self::randomLayout($random, 1);
        foreach ($layout['elements'] as $place => &$element) {
            if ($place > 0 && $element['kind'] === 'zone' && $random->getInt(0, 2) === 0) {
                $element['follows'] = 'z0';
            }
            foreach (array_keys($element['playlist']['items'] ?? []) as $index) {
                $item = &$element['playlist']['items'][$index];
                if ($random->getInt(0, 1) === 0) {
                    $item['valid'] = self::randomValidity($random);
                }
                if (isset($item['media']['length_ms'])) {
                    $item += (int) $index % 2 === 0 ? ['volume' => 40] : ['volume' => 40, 'levels' => [['hours' => ['01:00', '02:30'], 'volume' => 5], ['hours' => ['22:00', '02:00'], 'volume' => 0]]];
                }
                // Once in a while inside a nested layout as well.
                if (isset($item['layout']['elements'][0]['playlist']['items'][0])) {
                    $item['layout']['elements'][0]['playlist']['items'][0]['valid'] = self::randomValidity($random);
                }
                unset($item);
            }
        }

        return $layout;
    }

    /** @return Doc */
    private static function randomValidity(Randomizer $random): array
    {
        $time = static fn (): string => sprintf('%02d:%02d', $random->getInt(0, 23), $random->getInt(0, 59));

        return match ($random->getInt(0, 3)) {
            0 => ['from' => sprintf('2026-10-%02dT%s:00', $random->getInt(24, 25), $time())],
            1 => ['until' => sprintf('2026-10-%02dT%s:00', $random->getInt(24, 25), $time())],
            2 => ['hours' => [[$time(), '24:00'], ['00:00', '0' . $random->getInt(1, 9) . substr($time(), 2)]]],
            default => ['days' => ['SU', 'TU'], 'hours' => [['22:30', '03:15']]],
        };
    }

    /** @return Doc a layout of zones, and of clocks, running text and shapes that fill up with them */
    public static function livelyLayout(Randomizer $random, int $depth = 1): array
    {
        $layout = self::randomLayout($random, $depth);
        $rect = static fn (): array => [
            'x' => $random->getInt(-50, 900), 'y' => $random->getInt(-50, 500), 'width' => $random->getInt(1, 900), 'height' => $random->getInt(1, 500),
        ];
        $pick = static fn (string ...$of): string => $of[$random->getInt(0, count($of) - 1)];
        $style = ['family' => Typewriter::FAMILY, 'size_px' => 20];
        for ($i = 0; $i < 3; $i++) {
            $told = $random->getInt(0, 1) === 0
                ? ['pattern' => $pick('HH:mm:ss', "h 'o' a", 'EEEE d MMMM yyyy', 'dd.MM.yy k')]
                : ['until' => '2026-10-25T01:30:00Z', 'pattern' => $pick('d H', 'mm:ss', "s 's'")] + ($pick('yes', 'no') === 'no' ? [] : ['after' => 'now']);
            $layout['elements'][] = $told + [
                'id' => "c$i", 'kind' => 'clock', 'rect' => $rect(), 'style' => $style,
                'locale' => $pick('en', 'pt-PT', 'ar-EG', 'el'), 'timezone' => $pick('Europe/Lisbon', 'Atlantic/Azores', 'Australia/Lord_Howe'),
            ];
            $layout['elements'][] = [
                'id' => "n$i", 'kind' => 'ticker', 'rect' => $rect(), 'style' => $style,
                'text' => str_repeat('word ', $random->getInt(0, 20)), 'speed_px_s' => $random->getInt(1, 400), 'way' => $pick('left', 'right'),
            ];
            $layout['elements'][] = [
                'id' => "p$i", 'kind' => 'shape', 'rect' => $rect(), 'fill' => '#102030',
                'progress' => ['zone' => 'z0', 'of' => $pick('item', 'loop'), 'from' => $pick('left', 'right', 'top', 'bottom')],
            ];
        }
        $layout['elements'][] = ['id' => 'd', 'kind' => 'clock', 'rect' => $rect(), 'dial' => ['color' => '#ffffff']];

        return $layout;
    }

    /** @return Doc */
    private static function randomItem(string $id, Randomizer $random, int $depth): array
    {
        $kind = ['cut', 'fade', 'push', 'wipe'][$random->getInt(0, 3)];
        $side = in_array($kind, ['push', 'wipe'], true) ? ['from' => ['left', 'right', 'top', 'bottom'][$random->getInt(0, 3)]] : [];
        $fade = ['transition' => ['kind' => $kind, 'ms' => $random->getInt(0, 100)] + $side, 'weight' => max(1, $random->getInt(-3, 3)), 'tied' => $random->getInt(0, 5) === 0];

        return match ($random->getInt(0, $depth < 2 ? 7 : 5)) {
            0, 1, 2 => self::picture($id, 100, 80, $random->getInt(100, 4000), ...$fade),
            3 => self::film($id, $random->getInt(100, 4000), 64, 64, ...$fade),
            4 => self::picture($id, 100, 80, $random->getInt(100, 4000), enabled: false),
            5 => $random->getInt(0, 9) === 0 ? ['lasts' => 'endless'] + self::film($id) : self::film($id, 900, 64, 64, duration_ms: 500),
            default => ['id' => $id, 'layout' => self::randomLayout($random, $depth + 1), 'duration_ms' => $random->getInt(100, 9000), 'fit' => 'cover'] + $fade,
        };
    }
}
