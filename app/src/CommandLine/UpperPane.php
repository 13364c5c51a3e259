<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\App\Layout\QrCodes;
use UpperPane\App\Text\HarfBuzz;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Colour\Contrast;
use UpperPane\Core\Display\Blanking;
use UpperPane\Core\Display\CustomEdid;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Edid;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Display\Millimetres;
use UpperPane\Core\Display\StandardTimings;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Display\Timing;
use UpperPane\Core\Document\Budget;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Geometry\Fit;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Kind\Board\Boards;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\PlainLayout;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\Overlays;
use UpperPane\Core\Playback\Overlaid;
use UpperPane\Core\Playback\OverlayChecks;
use UpperPane\Core\Playback\OverlayWords;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Setting\Estate;
use UpperPane\Core\Setting\Resolved;
use UpperPane\Core\Text\SetText;
use UpperPane\Core\Time\CycleFigures;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** `bin/upperpane VERB ...`: the core on files. Exit 0 done, 1 done with a stop, 2 input refused. */
final class UpperPane
{
    private const USAGE = <<<'TEXT'
        bin/upperpane VERB ...

          fit --source 1600x900 --box 1344x864 --mode cover [--focus 50,50]
          match LAYOUT DISPLAY
          check LAYOUT [--display DISPLAY] [--at INSTANT] [--overlay OVERLAY] [--triggers MAP [--signals FILE]]
          shown LAYOUT --at 2026-06-01T10:00:12Z [--anchor INSTANT] [--display DISPLAY] [--overlay OVERLAY] [--triggers MAP --signals FILE]
          timeline LAYOUT --from INSTANT --to INSTANT [--anchor INSTANT] [--display DISPLAY]
          page LAYOUT --board ID [--display DISPLAY] [--at INSTANT]
          tracks "7fr 3fr" --length 1920 [--gap 8]
          fill FILLED --with TEMPLATE [--display DISPLAY]
          fill-rows TEMPLATE --rows ROWS --data DATA --map '{"headline": "name", "price": "fare"}' [--name "Offer {name}"]
          resolve ESTATE --at ID
          resolve ESTATE --reach ID --setting timezone
          solve LAYOUT --raster 1366x768
          measure --text "..." --family Inter --size-px 72 [--width 800] [--height 200] [--weight 400] [--line-height 1.2]
          wall DISPLAY
          edid FILE
          edid-for --width 1920 --height 540 --refresh 60 --width-mm 895 --height-mm 252 --name "Deck strip" --year 2026
          timing --width 1920 --height 1080 --refresh 60 [--blanking normal|reduced|reduced2]
          timing --vic 97, timing --dmt 0x51
          loop PLAYLIST
          recur "FREQ=DAILY;COUNT=3" --start 2026-03-28T01:30:00 --tz Europe/Lisbon --from INSTANT --to INSTANT [--exdate LOCAL] [--rdate LOCAL]
          plays SCHEDULE [--display DISPLAY] [--zone ZONE] --from INSTANT --to INSTANT [--overlay OVERLAY]
          legibility --mm-per-px 0.63 --cap-px 34 --distance-mm 10000
          contrast "#777777" "#ffffff"
          react MAP --signals FILE [--display DISPLAY] [--from INSTANT] --until INSTANT
          triggers MAP [--display DISPLAY]
          scxml MAP, scxml --read FILE
          tree DATA [--as json|csv|xlsx|rss|ical] [--options JSON] [--at INSTANT] [--from INSTANT --to INSTANT] [--tz ZONE]
          rows ROWS --data DATA [--as ...] [--options JSON] [--source SOURCE] [--at INSTANT] [--tz ZONE]
          format "{n, plural, one {# place} other {# places}}" --row '{"n": 2}' [--language en] [--tz ZONE]
          ticks --from 0 --to 3.7 --count 5

        LAYOUT of check, shown and timeline may be one that was filled in (FILLED), with its template in --with.
        LAYOUT, PLAYLIST, SCHEDULE, DISPLAY, OVERLAY, ROWS and SOURCE are JSON files (docs/formats), DATA and an EDID are their bytes; - is standard input.
        --with FILE (repeatable) gives the layouts and playlists that refs mean, --media ID=FILE (repeatable) pictures and films.
        MAP is of triggers, the FILE of --signals a list of what happened; --triggers MAP (repeatable) as the display lists them, the last one on top.
        --overlay FILE (repeatable) lays one above; with --estate those of them that its settings put there.
        check, shown, timeline, page, loop and plays take --data SOURCE=DATA for each source that is told, with --options SOURCE=JSON, --taken SOURCE=INSTANT,
        --source SOURCE, --tz ZONE, and --media VALUE=FILE for what a value means as a picture.
        check, shown, timeline, page and loop take --language pt (in which messages are told, and texts shown that stand in several), and --languages pt,en (those of the place).
        fill, check, shown, timeline, page and plays take --estate ESTATE: the settings of the display's id in it.

        TEXT;

    /** Of the verbs that look at what a place tells, and how. */
    private const SPEAKING = ['language', 'languages', 'estate'];

    /**
     * @param resource $in
     * @param resource $out
     * @param resource $err
     */
    public function __construct(private $in, private $out, private $err, private readonly HarfBuzz $faces)
    {
    }

    /** @param list<string> $words */
    public function run(array $words): int
    {
        try {
            $verb = array_shift($words);
            if (in_array($verb, ['help', '--help', '-h'], true)) {
                fwrite($this->out, self::USAGE);

                return 0;
            }
            [$result, $code] = match ($verb) {
                'fit' => [$this->fit($words), 0],
                'match' => [$this->match($words), 0],
                'check' => $this->check($words),
                'page' => [$this->page($words), 0],
                'fill' => $this->fill($words),
                'resolve' => [$this->resolve($words), 0],
                'fill-rows' => [$this->fillRows($words), 0],
                'shown' => [$this->shown($words), 0],
                'timeline' => [$this->timeline($words), 0],
                'edid' => [Edid::fromBytes($this->bytes(Arguments::of($words, ['FILE'], [])->value(0)))->toArray(), 0],
                'edid-for' => [$this->edidFor($words), 0],
                'timing' => [$this->timing($words), 0],
                'tracks' => [$this->tracks($words), 0],
                'solve' => [$this->solve($words), 0],
                'measure' => [$this->measure($words), 0],
                'wall' => $this->wall($words),
                'loop' => [$this->loop($words), 0],
                'recur' => [TimeVerbs::recur($words), 0],
                'plays' => [$this->plays($words), 0],
                'legibility' => [$this->legibility($words), 0],
                'contrast' => [$this->contrast($words), 0],
                'react' => [$this->triggers()->react($words), 0],
                'triggers' => $this->triggers()->found($words),
                'scxml' => [$this->triggers()->scxml($words), 0],
                'tree' => [$this->data()->tree($words), 0],
                'rows' => [$this->data()->rows($words), 0],
                'format' => [DataVerbs::format($words), 0],
                'ticks' => [DataVerbs::ticks($words), 0],
                default => throw Arguments::wrong(sprintf(
                    '%s is no verb; fit, match, check, shown, timeline, tracks, solve, measure, wall, edid, edid-for, timing, loop, recur, plays, legibility, contrast, '
                        . 'tree, rows, format, page, fill, fill-rows, resolve, react, triggers, scxml and ticks are.',
                    $verb === null ? 'Nothing' : "\"$verb\"",
                )),
            };
            is_string($result) ? fwrite($this->out, $result) : JsonWriter::write($this->out, $result);

            return $code;
        } catch (Refused $e) {
            JsonWriter::write($this->err, $e->toArray());

            return 2;
        }
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function fit(array $words): array
    {
        $arguments = Arguments::of($words, [], ['source', 'box', 'mode', 'focus']);
        $mode = FitMode::tryFrom($arguments->required('mode'))
            ?? throw Arguments::wrong('--mode is one of ' . implode(', ', FitMode::names()) . '.');
        $focus = $arguments->optional('focus') ?? '50,50';
        if (preg_match('/^(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)$/D', $focus, $m) !== 1 || (float) $m[1] > 100 || (float) $m[2] > 100) {
            throw Arguments::wrong(sprintf('--focus is "%s"; two figures from 0 to 100 such as 50,50 are right.', $focus));
        }

        return Fit::of($arguments->size('source'), $arguments->size('box'), $mode, (float) $m[1], (float) $m[2])->toArray();
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function match(array $words): array
    {
        $arguments = Arguments::of($words, ['LAYOUT', 'DISPLAY'], ['with', 'style']);

        $raster = $this->display($arguments->value(1))->raster();

        return Matching::of($this->layout($arguments, (new Surroundings())->styled($this->styles($arguments)))->for($raster)->canvas, $raster)->toArray();
    }

    /**
     * @param list<string> $words
     * @return array{array<string, mixed>, int}
     */
    private function check(array $words): array
    {
        $arguments = Arguments::of($words, ['LAYOUT'], ['display', 'with', 'style', 'at', 'overlay', 'triggers', 'signals', ...self::SPEAKING, ...DataVerbs::FLAGS]);
        $display = $arguments->optional('display') === null ? null : $this->display($arguments->required('display'));
        $surroundings = $this->surroundings($arguments, $display, isStrict: false);
        $whole = $this->written($arguments, $surroundings->speaking);
        $layout = $display === null ? $whole : $whole->for($display->raster());
        $composer = Composer::over($this->library($arguments), $surroundings);
        $composer->layout($whole);
        $findings = Checks::curing($layout, $composer->layout($layout), $composer, $surroundings);
        $findings = $display === null ? $findings : $findings->and(array_values([...Survey::zone($display, $this->settings($arguments, $display)?->timezone())]));
        if ($arguments->optional('overlay') !== null) {
            $findings = $findings->and($this->overlayFindings($arguments, $layout, $surroundings));
        }
        if ($arguments->optional('triggers') !== null) {
            $findings = $findings->and($this->triggers()->above($arguments, $whole, $surroundings));
        }

        return [$findings->toArray(), $findings->stopsHandover() ? 1 : 0];
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function shown(array $words): array
    {
        $arguments = Arguments::of($words, ['LAYOUT'], ['at', 'anchor', 'with', 'style', 'display', 'overlay', 'triggers', 'signals', ...self::SPEAKING, ...DataVerbs::FLAGS]);
        $at = $arguments->instant('at')->ms;
        $display = $arguments->optional('display') === null ? null : $this->display($arguments->required('display'));
        $surroundings = $this->surroundings($arguments, $display);
        if ($arguments->optional('overlay') !== null) {
            return $this->overlaid($arguments, $surroundings)->at($at)->toArray();
        }
        $programme = Programme::endless($this->layout($arguments, $surroundings), $surroundings->timezone, $this->anchorMs($arguments));

        return ShownAt::of($this->reacting($programme, $arguments, $surroundings), $surroundings)->at($at)->toArray();
    }

    /**
     * @return list<Finding> what is wrong with what lies above a layout on the display
     * @throws Refused
     */
    private function overlayFindings(Arguments $arguments, Layout $layout, Surroundings $surroundings): array
    {
        $display = $surroundings->display ?? throw Arguments::wrong('What overlays cover is looked for on a display; --display says on which.');
        $atMs = $arguments->instant('at')->ms;
        $overlays = $this->overlays($arguments, $display);
        $overlaid = $this->overlaid($arguments, $surroundings);
        $clock = WallClock::in($surroundings->timezone);
        $words = new OverlayWords($overlaid, $overlays, $layout, Composer::over($this->library($arguments), $surroundings), $display, $clock);

        return [...OverlayChecks::run($overlaid, $overlays, $clock, $atMs)->all, ...$words->findings($atMs)];
    }

    /** What is shown with all that lies above it, on the canvas of the display; without one on that of the layout. */
    private function overlaid(Arguments $arguments, Surroundings $surroundings): Overlaid
    {
        $display = $surroundings->display;
        $library = $this->library($arguments);
        $layout = Composer::compose($this->written($arguments, $surroundings->speaking), $library, $surroundings);
        $layout = $display === null ? $layout : $layout->for($display->raster());
        $programme = $this->reacting(Programme::endless($layout, $surroundings->timezone, $this->anchorMs($arguments)), $arguments, $surroundings);

        $overlaid = Overlaid::of($programme, $this->overlays($arguments, $display), Composer::over($library, $surroundings), $display?->raster() ?? $layout->canvas, $this->data()->holes($arguments));
        $overlaid->check();

        return $overlaid;
    }

    /** With what is shown up to the instant in question because something happened before the display. */
    private function reacting(Programme $programme, Arguments $arguments, Surroundings $surroundings): Programme
    {
        return $arguments->optional('triggers') === null ? $programme : $programme->reacting($this->triggers()->reactions($arguments, $surroundings, $programme->base));
    }

    /**
     * Those that are given; with an estate those of them that its settings put on the display.
     *
     * @throws Refused
     */
    private function overlays(Arguments $arguments, ?Display $display): Overlays
    {
        $given = array_map(fn (string $file): Overlay => Overlay::fromArray($this->read($file)), $arguments->all('overlay'));
        $wanted = $this->settings($arguments, $display)?->overlays();
        if ($wanted === null) {
            return Overlays::of(...$given);
        }
        $known = array_combine(array_map(static fn (Overlay $one): string => $one->id, $given), $given);
        foreach (array_diff($wanted, array_map(strval(...), array_keys($known))) as $id) {
            throw DocumentRefused::because(
                Reason::RefUnknown,
                sprintf('The settings of the display name the overlay "%s"; --overlay gives %s.', $id, implode(', ', array_keys($known)) ?: 'none'),
                '',
            );
        }

        return Overlays::of(...array_values(array_intersect_key($known, array_flip($wanted))));
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function timeline(array $words): array
    {
        $arguments = Arguments::of($words, ['LAYOUT'], ['from', 'to', 'at', 'anchor', 'with', 'style', 'display', ...self::SPEAKING, ...DataVerbs::FLAGS]);
        [$from, $to] = TimeVerbs::span($arguments);
        $surroundings = $this->surroundings($arguments, $arguments->optional('display') === null ? null : $this->display($arguments->required('display')), atMs: $from);

        return Timeline::of($this->layout($arguments, $surroundings), $from, $to, $this->anchorMs($arguments), $surroundings->timezone);
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function page(array $words): array
    {
        $arguments = Arguments::of($words, ['LAYOUT'], ['board', 'display', 'with', 'style', 'at', ...self::SPEAKING, ...DataVerbs::FLAGS]);
        $display = $arguments->optional('display') === null ? null : $this->display($arguments->required('display'));
        $surroundings = $this->surroundings($arguments, $display);
        $layout = $this->layout($arguments, $surroundings);
        $layout = $display === null ? $layout : $layout->for($display->raster());
        $id = $arguments->required('board');

        $boards = Boards::of($layout, $surroundings);

        return $boards[$id] ?? throw Arguments::wrong(sprintf(
            '--board is "%s"; the boards of this layout are %s.',
            $id,
            implode(', ', array_keys($boards)) ?: 'none',
        ));
    }

    /**
     * @param list<string> $words
     * @return array{array<string, mixed>, int}
     */
    private function fill(array $words): array
    {
        $arguments = Arguments::of($words, ['FILLED'], ['display', 'with', 'style', ...self::SPEAKING]);
        $display = $arguments->optional('display') === null ? null : $this->display($arguments->required('display'));
        $settings = $this->settings($arguments, $display);
        $surroundings = (new Surroundings('UTC', $this->faces))->on($display)->styled($this->styles($arguments, $settings))->speaking($this->speaking($arguments, $settings));
        $surroundings = $surroundings->in($settings?->timezone() ?? $surroundings->timezone);
        $filled = Filled::fromArray($this->read($arguments->value(0)));
        $filling = $this->library($arguments)->filledIn($filled);
        $filling->checkNames($surroundings);
        foreach ($arguments->all('with') as $file) {
            $document = $this->read($file);
            // Their names would still stand in what a ref to them means.
            ($document['id'] ?? null) === $filled->template ? null : PlainLayout::checkPlain($document);
        }
        $findings = $filling->findings($surroundings);

        return [['layout' => PlainLayout::of($filling->layout($surroundings->speaking), $surroundings)] + $findings->toArray(), $findings->stopsHandover() ? 1 : 0];
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function resolve(array $words): array
    {
        $arguments = Arguments::of($words, ['ESTATE'], ['at', 'reach', 'setting']);
        $estate = Estate::fromArray($this->read($arguments->value(0)));
        $reach = $arguments->optional('reach');
        if ($reach !== null && $arguments->optional('at') !== null) {
            throw Arguments::wrong('--at and --reach are two questions; one of them is right.');
        }

        return $reach === null
            ? ['settings' => (object) $estate->at($arguments->required('at'))->toArray()]
            : ['displays' => $estate->reach($reach, $arguments->required('setting'))];
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function fillRows(array $words): array
    {
        $arguments = Arguments::of($words, ['TEMPLATE'], ['rows', 'map', 'name', 'style', ...DataVerbs::ROWS]);
        $this->styles($arguments);

        return $this->data()->fillRows($arguments, $this->read($arguments->value(0)));
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function loop(array $words): array
    {
        $arguments = Arguments::of($words, ['PLAYLIST'], ['with', 'style', 'at', 'language', 'languages', ...DataVerbs::FLAGS]);
        $node = Node::root($this->read($arguments->value(0)));
        $node->format(Playlist::FORMAT);
        $zone = Composer::over($this->library($arguments), $this->surroundings($arguments, null))->playlist(Playlist::fromNode($node))->zones['whole'];

        return CycleFigures::of($zone->loop(null), $zone->list->all(), $zone->playlist->enabled());
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function plays(array $words): array
    {
        $above = ['overlay', 'triggers', 'signals', 'with', 'style', 'language', 'languages'];
        $arguments = Arguments::of($words, ['SCHEDULE'], ['display', 'estate', 'zone', 'from', 'to', 'at', ...$above, ...DataVerbs::FLAGS]);
        $schedule = Schedule::fromArray($this->read($arguments->value(0)));
        $display = $arguments->optional('display') === null ? null : $this->display($arguments->required('display'));
        $settings = $this->settings($arguments, $display);
        $schedule = $settings?->standby() === null ? $schedule : $schedule->standingBy($settings->standby());
        $timezone = match (true) {
            $arguments->optional('tz') !== null => DataVerbs::timezone($arguments),
            $display !== null => $settings?->timezone() ?? $display->timezone,
            default => $schedule->timezone,
        };
        if ($schedule->looksAtData()) {
            $atMs = $arguments->instant($arguments->optional('at') === null ? 'from' : 'at')->ms;
            $schedule = Composer::over(null, (new Surroundings($timezone))->at($atMs)->fed($this->data()->feeds($arguments, $timezone, $atMs, true)))->schedule($schedule);
        }

        return TimeVerbs::plays(
            $schedule,
            $timezone,
            $arguments,
            $arguments->optional('overlay') === null ? null : $this->overlays($arguments, $display),
            $arguments->optional('triggers') === null ? null : $this->triggers()->states($arguments, $display, $timezone),
        );
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function measure(array $words): array
    {
        $arguments = Arguments::of($words, [], ['text', 'family', 'size-px', 'width', 'height', 'weight', 'line-height']);
        $family = $arguments->required('family');
        if (!$this->faces->knows($family)) {
            throw Arguments::wrong(sprintf('--family is "%s"; the faces of the house are %s.', $family, implode(', ', $this->faces->families())));
        }
        $text = $arguments->required('text');
        if (!mb_check_encoding($text, 'UTF-8')) {
            throw Arguments::wrong('--text is no UTF-8.');
        }
        [$width, $height] = array_map(
            static fn (string $side): float => $arguments->optional($side) === null ? INF : $arguments->figure($side, 1, Size::LONGEST, 'px'),
            ['width', 'height'],
        );
        $set = SetText::of(
            $text,
            $this->faces,
            $family,
            $arguments->optional('weight') === null ? 400 : (int) $arguments->figure('weight', 100, 900, 'as a weight'),
            $arguments->figure('size-px', 1.0, 100_000.0, 'px'),
            $arguments->optional('line-height') === null ? 1.2 : $arguments->figure('line-height', 0.5, 5.0, 'times the size'),
            $width,
        );

        return $set->toArray() + ['overflow' => $set->overflows($width, $height)];
    }

    /**
     * @param list<string> $words
     * @return array{tracks: list<array{start: int, size: int}>}
     */
    private function tracks(array $words): array
    {
        $arguments = Arguments::of($words, ['TRACKS'], ['length', 'gap']);

        return ['tracks' => Tracks::parse($arguments->value(0))->solve(
            (int) $arguments->figure('length', 1, Size::LONGEST, 'px'),
            $arguments->optional('gap') === null ? 0 : (int) $arguments->figure('gap', 0, Size::LONGEST, 'px'),
        )];
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function solve(array $words): array
    {
        $arguments = Arguments::of($words, ['LAYOUT'], ['raster', 'with', 'style']);

        $layout = Layout::fromArray($this->read($arguments->value(0)));
        Composer::compose($layout, $this->library($arguments), (new Surroundings())->styled($this->styles($arguments)));

        return Arrangement::of($layout)->solvedFor($arguments->size('raster'))->layout->toArray();
    }

    /**
     * @param list<string> $words
     * @return array<string, int|float>
     */
    private function timing(array $words): array
    {
        $arguments = Arguments::of($words, [], ['width', 'height', 'refresh', 'blanking', 'vic', 'dmt']);
        foreach (['vic' => StandardTimings::vic(...), 'dmt' => StandardTimings::dmt(...)] as $table => $timing) {
            if (($code = $arguments->optional($table)) !== null) {
                $number = preg_match('/^(0x[0-9a-f]{1,2}|\d{1,3})$/Di', $code) === 1 ? intval($code, 0) : -1;
                $found = $timing($number) ?? throw Arguments::wrong(sprintf('--%s is "%s", the number of no progressive timing that is known.', $table, $code));

                return $found->raster->toArray() + $found->toArray();
            }
        }
        $blanking = Blanking::tryFrom($arguments->optional('blanking') ?? 'normal')
            ?? throw Arguments::wrong('--blanking is one of normal, reduced, reduced2.');
        $raster = Size::px(
            (int) $arguments->figure('width', Timing::LEAST_SIDE, Timing::LONGEST_SIDE, 'px'),
            (int) $arguments->figure('height', Timing::LEAST_SIDE, Timing::LONGEST_SIDE, 'px'),
        );

        return Timing::cvt($raster, $arguments->figure('refresh', Timing::LEAST_HZ, Timing::MOST_HZ, 'Hz'), $blanking)->toArray();
    }

    /**
     * @param list<string> $words
     * @return array{array<string, mixed>, int}
     */
    private function wall(array $words): array
    {
        $display = $this->display(Arguments::of($words, ['DISPLAY'], [])->value(0));
        $findings = Survey::check($display);

        return [$display->wall->toArray() + [
            'processor' => $display->processor === null ? null : [
                'player' => $display->processor->player,
                'output' => $display->processor->output,
                'raster' => $display->processor->raster->toArray(),
                'factor' => $display->processor->factor($display->raster()),
            ],
        ] + $findings->toArray(), $findings->stopsHandover() ? 1 : 0];
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function edidFor(array $words): array
    {
        $arguments = Arguments::of($words, [], ['width', 'height', 'refresh', 'width-mm', 'height-mm', 'name', 'year', 'bits']);
        $raster = Size::px((int) $arguments->figure('width', Timing::LEAST_SIDE, 4095, 'px'), (int) $arguments->figure('height', Timing::LEAST_SIDE, 4095, 'px'));
        $bytes = CustomEdid::bytes(
            Timing::cvt($raster, $arguments->figure('refresh', Timing::LEAST_HZ, Timing::MOST_HZ, 'Hz'), Blanking::Reduced),
            Millimetres::of($arguments->figure('width-mm', 1.0, 4095.0, 'mm'), $arguments->figure('height-mm', 1.0, 4095.0, 'mm')),
            $arguments->required('name'),
            (int) $arguments->figure('year', 1990, 2245, 'as a year'),
            $arguments->optional('bits') === null ? 8 : (int) $arguments->figure('bits', 6, 16, 'bit'),
        );

        return ['hex' => bin2hex($bytes)] + Edid::fromBytes($bytes)->toArray();
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function legibility(array $words): array
    {
        $arguments = Arguments::of($words, [], ['mm-per-px', 'cap-px', 'distance-mm']);

        return Legibility::of(
            $arguments->figure('mm-per-px', 0.001, 1000.0, 'mm'),
            $arguments->figure('cap-px', 0.01, 1e6, 'px'),
            $arguments->figure('distance-mm', 1.0, 1e8, 'mm'),
        );
    }

    /**
     * @param list<string> $words
     * @return array<string, mixed>
     */
    private function contrast(array $words): array
    {
        $arguments = Arguments::of($words, ['TEXT', 'GROUND'], []);

        return Contrast::of(Colour::of($arguments->value(0)), Colour::of($arguments->value(1)))->toArray();
    }

    private function data(): DataVerbs
    {
        return new DataVerbs($this->bytes(...));
    }

    private function triggers(): TriggerVerbs
    {
        return new TriggerVerbs(
            $this->bytes(...),
            $this->library(...),
            fn (Arguments $arguments, ?Display $display): Surroundings => $this->surroundings($arguments, $display, isStrict: false),
        );
    }

    private function anchorMs(Arguments $arguments): int
    {
        $anchor = $arguments->optional('anchor');

        return $anchor === null ? 0 : Instant::parse($anchor)->ms;
    }

    private function layout(Arguments $arguments, ?Surroundings $surroundings = null): Composed
    {
        return Composer::compose($this->written($arguments, $surroundings->speaking ?? new Speaking()), $this->library($arguments), $surroundings);
    }

    /** A layout, or one that was filled in: then the layout that it is. */
    private function written(Arguments $arguments, Speaking $speaking): Layout
    {
        $document = $this->read($arguments->value(0));
        $layout = ($document['format'] ?? null) === Filled::FORMAT
            ? $this->library($arguments)->filledIn(Filled::fromArray($document))->layout($speaking)
            : Layout::fromArray($document);
        Budget::ofElements(count($layout->elements), '/elements');

        return $layout;
    }

    /**
     * @param bool $isStrict whether a source that is not there is refused, and not told as a finding
     * @param int $atMs Unix ms, unless --at says otherwise
     */
    private function surroundings(Arguments $arguments, ?Display $display, bool $isStrict = true, int $atMs = 0): Surroundings
    {
        $settings = $this->settings($arguments, $display);
        $timezone = $arguments->optional('tz') === null ? $settings?->timezone() ?? $display->timezone ?? 'UTC' : DataVerbs::timezone($arguments);
        $atMs = $arguments->optional('at') === null ? $atMs : $arguments->instant('at')->ms;

        return (new Surroundings($timezone, $this->faces, new QrCodes()))->at($atMs)->on($display)->in($timezone)
            ->fed($this->data()->feeds($arguments, $timezone, $atMs, $isStrict))->styled($this->styles($arguments, $settings))
            ->speaking($this->speaking($arguments, $settings));
    }

    /**
     * The settings of the display, as --estate says; null where it is not given.
     *
     * @throws Refused
     */
    private function settings(Arguments $arguments, ?Display $display): ?Resolved
    {
        $file = $arguments->optional('estate');
        if ($file === null) {
            return null;
        }

        return Estate::fromArray($this->read($file))->at($display->id ?? throw Arguments::wrong('--estate has the settings of a display; --display says of which.'));
    }

    /** In which languages the place is spoken to, and what it says of itself. */
    private function speaking(Arguments $arguments, ?Resolved $settings): Speaking
    {
        $tag = static fn (string $name, string $language): string => preg_match('/' . Field::LANGUAGE . '/D', $language) === 1
            ? $language
            : throw Arguments::wrong(sprintf('--%s is "%s"; a language such as en or pt-PT is right.', $name, $language));
        $languages = $arguments->optional('languages');

        return new Speaking(
            ($language = $arguments->optional('language')) === null ? null : $tag('language', $language),
            $languages === null ? $settings?->languages() ?? [] : array_map(static fn (string $one): string => $tag('languages', trim($one)), explode(',', $languages)),
            $settings?->vars() ?? [],
        );
    }

    /** The house style, as --style says: the one of the display's settings rules, else the first; the others are there for those that it extends. */
    private function styles(Arguments $arguments, ?Resolved $settings = null): Styles
    {
        $styles = array_map(fn (string $file): HouseStyle => HouseStyle::fromArray($this->read($file)), $arguments->all('style'));
        usort($styles, static fn (HouseStyle $a, HouseStyle $b): int => ($b->id === $settings?->style()) <=> ($a->id === $settings?->style()));

        return $styles === [] ? new Styles() : Styles::of(...$styles);
    }

    private function library(Arguments $arguments): Library
    {
        return Library::of(array_map(fn (string $file): array => $this->read($file), $arguments->all('with')), $this->data()->pictures($arguments));
    }

    private function display(string $file): Display
    {
        return Display::fromArray($this->read($file));
    }

    /**
     * @return array<mixed>
     * @throws DocumentRefused
     */
    private function read(string $file): array
    {
        $node = Node::fromJson($this->bytes($file));

        return is_array($node->value) ? $node->value : throw $node->refused(Reason::TypeWrong, 'is no JSON object.');
    }

    /** @throws DocumentRefused */
    private function bytes(string $file): string
    {
        $bytes = $file === '-' ? stream_get_contents($this->in) : (is_file($file) ? file_get_contents($file) : false);

        return $bytes !== false ? $bytes : throw DocumentRefused::because(Reason::FileMissing, sprintf('The file "%s" cannot be read.', $file), '');
    }
}
