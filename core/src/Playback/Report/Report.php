<?php

declare(strict_types=1);

namespace UpperPane\Core\Playback\Report;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Instant;

/** What a player says of itself, `upper-pane/report@1`: what it plays, what is wrong, how its machine is, and what was really seen. */
final readonly class Report
{
    public const FORMAT = 'upper-pane/report@1';
    public const MOST_TROUBLES = 20;
    public const MOST_TAKEN = 20;
    /** A sentence is told up to here, characters. */
    private const SENTENCE = 300;
    private const BYTES = 1 << 50;
    /** A battery that is empty is decades behind. */
    private const ERA_MS = 10_000_000_000_000;

    /**
     * @param ?string $release SHA-256 of the release that it plays
     * @param ?Instant $since when it began to
     * @param ?string $trouble what is wrong, in a sentence or two
     * @param list<Trouble> $troubles the same one by one
     * @param ?int $everyS how often it says that it is there, s
     * @param ?Batch $batch what was seen since the last batch that arrived
     * @param list<Answered> $answers what its maps of triggers show
     * @param list<string> $took ids of what an operator asked for, as far as it was taken (pointer: said)
     * @param list<Heard> $heard what sensors said, the last first
     */
    public function __construct(
        public ?string $release,
        public ?Instant $since,
        public ?string $trouble,
        public ?int $output,
        public ?string $build,
        public ?int $everyS,
        public array $troubles = [],
        public Machine $machine = new Machine(),
        public ?Batch $batch = null,
        public array $answers = [],
        public array $took = [],
        public array $heard = [],
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields */
        static $fields;

        return $fields ??= Fields::of([
            'format' => Field::constant(self::FORMAT)->saying('absent in reports of pages that were built before it had a name'),
            'release' => Field::pattern('^[0-9a-f]{64}$')->orNull()->required()->saying('SHA-256'),
            'since' => Field::text(1, 40)->orNull()->saying('instant, UTC'),
            'trouble' => Field::text(0, 2000)->orNull()->saying('in a sentence or two'),
            'troubles' => Field::list(Field::object(Trouble::fields()), self::MOST_TROUBLES)->saying('the same one by one'),
            'output' => Field::int(1, 64)->orNull(),
            'build' => Field::text(1, 64)->orNull()->saying('of its page'),
            'every_s' => Field::int(1, 3600)->orNull()->saying('how often it says that it is there'),
            ...Machine::fields()->all(),
            'answers' => Field::list(Field::object(Answered::fields()), Answered::MOST)->saying('what its maps of triggers show'),
            'took' => Field::list(Field::text(1, 40), self::MOST_TAKEN)->saying('ids of what an operator asked for, as far as it was taken; the last first'),
            'heard' => Field::list(Field::object(Heard::fields()), Heard::MOST)->saying('what sensors said, the last first'),
            'batch' => Field::object(Batch::fields())->saying('what was seen since the last batch that arrived'),
        ]);
    }

    /** @throws DocumentRefused */
    public static function read(Node $node): self
    {
        $node->object(...self::fields()->names());
        if ($node->has('format')) {
            $node->format(self::FORMAT);
        }
        $node->field('release');
        $since = $node->given('since');
        $trouble = $node->given('trouble')?->text(0, 2000);
        $troubles = $node->optional('troubles')?->items(self::MOST_TROUBLES) ?? [];
        $batch = $node->given('batch');

        return new self(
            $node->given('release')?->text(64, 64),
            $since === null ? null : Instant::ofMs(1000 * intdiv(Instant::parse($since->text(), $since->path)->ms, 1000)),
            $trouble === null ? null : self::shortened($trouble),
            $node->given('output')?->int(1, 64),
            $node->given('build')?->text(1, 64),
            $node->given('every_s')?->int(1, 3600, 's'),
            array_map(Trouble::read(...), $troubles),
            new Machine(
                $node->given('clock_ms')?->int(-self::ERA_MS, self::ERA_MS, 'ms'),
                $node->given('heap_bytes')?->int(0, self::BYTES, 'bytes'),
                $node->given('films')?->int(0, 1000),
                $node->given('kept_bytes')?->int(0, self::BYTES, 'bytes'),
                $node->given('room_bytes')?->int(0, self::BYTES, 'bytes'),
                $node->given('persists')?->bool(),
            ),
            $batch === null ? null : Batch::read($batch),
            array_map(Answered::read(...), $node->optional('answers')?->items(Answered::MOST) ?? []),
            array_map(static fn (Node $one): string => $one->text(1, 40), $node->optional('took')?->items(self::MOST_TAKEN) ?? []),
            array_map(Heard::read(...), $node->optional('heard')?->items(Heard::MOST) ?? []),
        );
    }

    public static function shortened(string $sentence): string
    {
        return mb_strimwidth($sentence, 0, self::SENTENCE, '...');
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'format' => self::FORMAT,
            'release' => $this->release,
            'since' => $this->since === null ? null : (string) $this->since,
            'trouble' => $this->trouble,
            'troubles' => array_map(static fn (Trouble $one): array => $one->toArray(), $this->troubles),
            'output' => $this->output,
            'build' => $this->build,
            'every_s' => $this->everyS,
        ] + $this->machine->toArray() + $this->senses() + ($this->batch === null ? [] : ['batch' => $this->batch->toArray()]);
    }

    /**
     * @param list<Heard> $before what was heard before, which is remembered
     * @return array<string, mixed> what it answered and heard; nothing where nothing answers
     */
    public function senses(array $before = []): array
    {
        return array_filter([
            'answers' => array_map(static fn (Answered $one): array => $one->toArray(), $this->answers),
            'took' => $this->took,
            'heard' => array_map(static fn (Heard $one): array => $one->toArray(), Heard::together($before, $this->heard)),
        ]);
    }
}
