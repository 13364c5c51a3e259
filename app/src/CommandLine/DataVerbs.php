<?php

declare(strict_types=1);

namespace UpperPane\App\CommandLine;

use UpperPane\App\Media\AlphaHoles;
use UpperPane\App\Media\FilmFacts;
use UpperPane\Core\Data\Feeds;
use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Data\Rows\Table;
use UpperPane\Core\Data\Snapshot;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Data\Ticks;
use UpperPane\Core\Data\Tree\ReadOptions;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Template\FilledRows;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Media\NotAcceptable;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Moment;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Core\Units\WallClock;

/** The verbs of `bin/upperpane` that ask about data. */
final readonly class DataVerbs
{
    /** Of the verbs that look at what tells data. */
    public const FLAGS = ['data', 'options', 'taken', 'tz', 'source', 'media'];

    /** Of the verbs that choose rows of one file of data. */
    public const ROWS = ['data', 'as', 'options', 'at', 'tz', 'source'];

    /** @param \Closure(string): string $bytes of a file */
    public function __construct(private \Closure $bytes)
    {
    }

    /**
     * @param list<string> $words
     * @throws Refused
     */
    public function tree(array $words): mixed
    {
        $arguments = Arguments::of($words, ['FILE'], ['as', 'options', 'at', 'from', 'to', 'tz']);
        [$given, $as] = self::given($arguments);
        $options = ReadOptions::of($given, self::timezone($arguments), self::atMs($arguments));
        if ($arguments->optional('from') !== null || $arguments->optional('to') !== null) {
            $options = $options->within(...TimeVerbs::span($arguments));
        }

        return Trees::read(($this->bytes)($arguments->value(0)), $options, $as);
    }

    /**
     * @param list<string> $words
     * @return array{count: int, rows: list<object>, unreadable: int, changes_at: ?string}
     * @throws Refused
     */
    public function rows(array $words): array
    {
        $arguments = Arguments::of($words, ['ROWS'], self::ROWS);
        $table = $this->table($arguments, Rows::fromFile(Node::fromJson(($this->bytes)($arguments->value(0)))));
        $atMs = self::atMs($arguments);
        $chosen = $table->at($atMs);
        $changes = $table->changesAfter($atMs);

        return [
            'count' => $chosen->count,
            'rows' => array_map(static fn (array $row): object => (object) $row, $chosen->told()),
            'unreadable' => $table->unreadable,
            'changes_at' => $changes === null ? null : (string) Instant::ofMs($changes),
        ];
    }

    /**
     * Many filled in at once.
     *
     * @param array<mixed> $template a layout
     * @return array{filled: list<array<string, mixed>>}
     * @throws Refused
     */
    public function fillRows(Arguments $arguments, array $template): array
    {
        $rows = Rows::fromFile(Node::fromJson(($this->bytes)($arguments->required('rows'))));
        $chosen = $this->table($arguments, $rows)->at(self::atMs($arguments))->rows;
        $many = FilledRows::of(Layout::fromArray($template), Node::at(Node::fromJson($arguments->required('map'))->value, '/map'), $arguments->optional('name'));

        return ['filled' => $many->filled($chosen, new Formats($rows->language(), self::timezone($arguments)), $rows->fallbacks())];
    }

    /** @throws Refused */
    private function table(Arguments $arguments, Rows $rows): Table
    {
        $source = $this->sources($arguments)[$rows->source] ?? null;
        [$timezone, $atMs] = [self::timezone($arguments), self::atMs($arguments)];
        [$given, $as] = self::given($arguments);
        $options = $given === null && $source !== null ? $source->options($timezone, $atMs) : ReadOptions::of($given, $source->zone ?? $timezone, $atMs);
        $tree = Trees::read(($this->bytes)($arguments->required('data')), $options, $as ?? $source?->as);

        return $rows->of($tree, WallClock::in($timezone), $source?->zone);
    }

    /**
     * @param list<string> $words
     * @return array{text: string, missing: list<string>}
     * @throws Refused
     */
    public static function format(array $words): array
    {
        $arguments = Arguments::of($words, ['MESSAGE'], ['row', 'language', 'tz']);
        $row = Node::fromJson($arguments->optional('row') ?? '{}');
        $values = [];
        foreach ($row->members() as $name => $node) {
            $instant = is_array($node->value) ? $node->object('instant')->field('instant') : null;
            $values[$name] = match (true) {
                $instant !== null => Moment::ofRfc3339($instant->text()) ?? throw $instant->refused(Reason::ValueRange, 'is no instant; 2026-06-01T16:05:00Z is right.'),
                is_scalar($node->value), $node->value === null => $node->value,
                default => throw $node->refused(Reason::TypeWrong, 'is neither a text, a number, true, false, null nor {"instant": ...}.'),
            };
        }
        $language = $arguments->optional('language') ?? 'en';
        if (preg_match('/^[A-Za-z]{2,8}(?:[-_][A-Za-z0-9]{1,8})*$/D', $language) !== 1) {
            throw Arguments::wrong(sprintf('--language is "%s"; a language such as en or pt-PT is right.', $language));
        }

        return Message::parse($arguments->value(0))->tell($values, new Formats($language, self::timezone($arguments)))->toArray();
    }

    /**
     * @param list<string> $words
     * @return array{ticks: list<int|float>}
     * @throws Refused
     */
    public static function ticks(array $words): array
    {
        $arguments = Arguments::of($words, [], ['from', 'to', 'count']);
        $figure = static function (string $name) use ($arguments): float {
            $text = trim($arguments->required($name));

            return is_numeric($text) ? (float) $text : throw Arguments::wrong(sprintf('--%s is "%s"; a number is right.', $name, $text));
        };
        $count = $figure('count');
        if (floor($count) !== $count) {
            throw Arguments::wrong(sprintf('--count is %s; a whole number is right.', $count));
        }

        return ['ticks' => Ticks::of($figure('from'), $figure('to'), (int) $count)];
    }

    /**
     * What sources have told, as --data says: SOURCE=FILE, with --options SOURCE=JSON and --taken SOURCE=INSTANT.
     *
     * @throws Refused
     */
    public function feeds(Arguments $arguments, string $timezone, int $atMs, bool $isStrict): Feeds
    {
        $sources = $this->sources($arguments);
        [$options, $taken] = [self::named($arguments, 'options'), self::named($arguments, 'taken')];
        $files = self::named($arguments, 'data');
        foreach (['options' => $options, 'taken' => $taken] as $flag => $given) {
            foreach (array_diff_key($given, $files) as $source => $text) {
                throw Arguments::wrong(sprintf('--%s is of "%s", and no --data %s=FILE is given.', $flag, $source, $source));
            }
        }
        $snapshots = [];
        foreach ($files as $id => $file) {
            $source = $sources[$id] ?? null;
            [$given, $as] = self::readAs($options[$id] ?? null, null);
            $own = $given === null && $source !== null ? $source->options($timezone, $atMs) : ReadOptions::of($given, $source->zone ?? $timezone, $atMs);
            $snapshots[$id] = [new Snapshot(
                Trees::read(($this->bytes)($file), $own, $as ?? $source?->as),
                isset($taken[$id]) ? Instant::parse($taken[$id], '--taken')->ms : $atMs,
                zone: $source?->zone,
                staleAfterMs: $source?->staleAfterS === null ? null : 1000 * $source->staleAfterS,
            )];
        }

        return Feeds::of($snapshots, $isStrict, $this->pictures($arguments));
    }

    /** Who looks through the pictures that are given as files. */
    public function holes(Arguments $arguments): AlphaHoles
    {
        $bytes = [];
        foreach ($arguments->all('media') as $one) {
            $at = (int) strrpos($one, '=');
            $file = substr($one, $at + 1);
            // A media of the library is called as its file is.
            $bytes[substr($one, 0, $at)] = $bytes[basename($file)] = ($this->bytes)($file);
        }

        return new AlphaHoles($bytes);
    }

    /**
     * What values mean as pictures and films: their files, or what a document says of one.
     *
     * @return array<Media> by value
     * @throws Refused
     */
    public function pictures(Arguments $arguments): array
    {
        $pictures = [];
        foreach ($arguments->all('media') as $one) {
            // A value may well be an address with an equals sign in it, a file seldom has one.
            $at = strrpos($one, '=');
            if ($at === false) {
                throw Arguments::wrong(sprintf('--media is "%s"; VALUE=FILE is right.', $one));
            }
            [$value, $file] = [substr($one, 0, $at), substr($one, $at + 1)];
            $bytes = ($this->bytes)($file);
            $header = str_starts_with(ltrim($bytes), '{') ? null : @getimagesizefromstring($bytes);
            $pictures[$value] = match (true) {
                $header === null => Media::fromNode(Node::fromJson($bytes)),
                $header === false => self::film($value, $file, $bytes),
                default => Media::of(basename($file), Size::px(max(1, $header[0]), max(1, $header[1]))),
            };
        }

        return $pictures;
    }

    /** @throws Refused */
    private static function film(string $value, string $file, string $bytes): Media
    {
        $local = (string) tempnam(sys_get_temp_dir(), 'film');
        try {
            file_put_contents($local, $bytes);
            exec(implode(' ', array_map(escapeshellarg(...), [...FilmFacts::COMMAND, $local])) . ' 2>/dev/null', $said);
            $film = FilmFacts::of(implode("\n", $said));
        } catch (NotAcceptable $e) {
            throw Arguments::wrong(sprintf('--media %s: "%s" is neither a picture nor a document of one, {"name", "width", "height"}; as a film it %s', $value, $file, $e->getMessage()));
        } finally {
            unlink($local);
        }

        return Media::of(basename($file), $film->size, $film->lengthMs);
    }

    /**
     * @return array<string, string> what flags of the form NAME=VALUE say, by name
     * @throws Refused
     */
    private static function named(Arguments $arguments, string $flag): array
    {
        $named = [];
        foreach ($arguments->all($flag) as $one) {
            [$name, $value] = explode('=', $one, 2) + [1 => null];
            $named[$name] = $value ?? throw Arguments::wrong(sprintf('--%s is "%s"; SOURCE=... is right.', $flag, $one));
        }

        return $named;
    }

    /**
     * @return array<string, Source> by id
     * @throws Refused
     */
    public function sources(Arguments $arguments): array
    {
        $sources = [];
        foreach ($arguments->all('source') as $file) {
            $source = Source::fromNode(Node::fromJson(($this->bytes)($file)));
            $sources[$source->id] = $source;
        }

        return $sources;
    }

    /** @throws Refused */
    public static function timezone(Arguments $arguments): string
    {
        $timezone = $arguments->optional('tz') ?? 'UTC';

        return UtcOffsets::isKnown($timezone) ? $timezone : throw Arguments::wrong(sprintf('--tz is "%s", which is no time zone; one such as Europe/Lisbon is right.', $timezone));
    }

    /** @throws Refused */
    public static function atMs(Arguments $arguments): int
    {
        return $arguments->optional('at') === null ? 0 : $arguments->instant('at')->ms;
    }

    /**
     * How data are read: --options, in which the format may stand as well, and --as.
     *
     * @return array{?Node, ?string}
     * @throws Refused
     */
    private static function given(Arguments $arguments): array
    {
        return self::readAs($arguments->optional('options'), $arguments->optional('as'));
    }

    /**
     * @param ?string $text JSON
     * @return array{?Node, ?string}
     * @throws Refused
     */
    private static function readAs(?string $text, ?string $as): array
    {
        $options = $text === null ? null : Node::fromJson($text);
        $as ??= $options?->optional('as')?->oneOf(...array_keys(Trees::READERS));

        return [$options === null || !is_array($options->value) ? $options : Node::root(array_diff_key($options->value, ['as' => 1])), $as];
    }
}
