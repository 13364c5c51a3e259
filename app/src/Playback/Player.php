<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Playback\Call;
use UpperPane\Core\Playback\Report\Batch;
use UpperPane\Core\Playback\Report\Heard;
use UpperPane\Core\Playback\Report\Report;
use UpperPane\Core\Playback\Report\Trouble;
use UpperPane\Core\Units\Instant;

/**
 * A device that plays on a display, known by the secret in its address. Senses are of its reports.
 *
 * @phpstan-type Senses array{
 *     answers: list<array{map: string, state: string, why: string, since: string}>,
 *     took: list<string>,
 *     heard: list<array{said: array<string, mixed>, last: string, times: int, known: bool}>
 * }
 */
#[ORM\Entity]
#[ORM\Index(columns: ['pointer_due'])]
class Player
{
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $revokedAt = null;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $calledAt = null;

    /** SHA-256 of the release that it says it plays. */
    #[ORM\Column(length: 64, nullable: true)]
    public ?string $playsSha256 = null;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $playsSince = null;

    #[ORM\Column(length: 300, nullable: true)]
    public ?string $trouble = null;

    /** Which of the display's surveyed players it is; null where the survey names none. */
    #[ORM\Column(length: 80, nullable: true)]
    public ?string $part = null;

    /** Build of its page, as it says; null of pages that know none, and read no manifests. */
    #[ORM\Column(length: 64, nullable: true)]
    public ?string $build = null;

    /** How often it says that it calls, s; null where it does not say so. */
    #[ORM\Column(nullable: true)]
    public ?int $reportEveryS = null;

    /** Whether its pointer does not say yet what the database knows (Pointers). */
    #[ORM\Column]
    public bool $pointerDue = true;

    /** @var array<int, array{at: string, plays: ?string, since: ?string, trouble: ?string, troubles?: list<array<string, string>>, machine?: array<string, int|bool>, senses?: array<string, mixed>, batch?: string}> what each of its outputs said last, by number */
    #[ORM\Column(type: 'json', nullable: true)]
    public ?array $calls = null;

    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\Column(length: 120)]
        public string $name,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false)]
        public SurveyedDisplay $display,
        #[ORM\Column(length: 64, unique: true)]
        public readonly string $secret,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)]
        public \DateTimeImmutable $boundAt,
    ) {
    }

    /** 160 random bits, so that an address cannot be guessed. */
    public static function newSecret(): string
    {
        return bin2hex(random_bytes(20));
    }

    public function address(): string
    {
        return self::addressOf($this->secret);
    }

    /**
     * What each of its outputs answered and heard, of a row of the table.
     *
     * @param array<string, mixed> $row
     * @return list<Senses>
     */
    public static function senses(array $row): array
    {
        $calls = is_string($row['calls']) ? (array) json_decode($row['calls'], true) : [];
        $told = [];
        foreach ($calls as $call) {
            $told[] = self::sensesOf(is_array($call) ? $call : []);
        }

        return $told;
    }

    /**
     * @param array<mixed> $call of an output
     * @return Senses
     */
    private static function sensesOf(array $call): array
    {
        /** @var Senses $senses */
        $senses = (is_array($call['senses'] ?? null) ? $call['senses'] : []) + ['answers' => [], 'took' => [], 'heard' => []];

        return $senses;
    }

    /** @return list<int> numbers of the outputs through which it feeds its display */
    public function outputs(): array
    {
        return self::outputsOf(array_map(static fn (Feed $feed): array => ['player' => $feed->player, 'output' => $feed->output], Feed::of($this->display->display())), $this->part);
    }

    public function call(): Call
    {
        return self::callOf($this->row());
    }

    /** @param array<string, mixed> $row of the table */
    public static function callOf(array $row): Call
    {
        $ms = static fn (mixed $at): ?int => is_string($at) ? 1000 * (int) strtotime("$at UTC") : null;
        $text = static fn (mixed $value): ?string => is_string($value) ? $value : null;

        return new Call($ms($row['bound_at']) ?? 0, $ms($row['called_at']), $text($row['plays_sha256']), $text($row['trouble']), is_int($row['report_every_s']) ? $row['report_every_s'] : null);
    }

    /**
     * Takes what its outputs say, and says of itself what holds of the worst of them.
     *
     * @param array<string, mixed> $row `part`, `calls`, `bound_at` and `build` of its row, and the `feeds` of its display
     * @param non-empty-list<array{int, Report}> $said the oldest first, each with its instant, Unix s
     * @return array{array<string, mixed>, array<int, list<Batch>>} columns of its row, and what was seen, by output; what arrived before already is left out
     */
    public static function heard(array $row, array $said): array
    {
        $json = static fn (mixed $text): array => is_string($text) ? (array) json_decode($text, true) : [];
        $outputs = self::outputsOf(array_values($json($row['feeds'])), is_string($row['part']) ? $row['part'] : null);
        /** @var array<int, array{at: string, plays: ?string, since: ?string, trouble: ?string, troubles?: list<array<string, string>>, machine?: array<string, int|bool>, senses?: array<string, mixed>, batch?: string}> $calls */
        $calls = array_intersect_key($json($row['calls']), array_flip($outputs));
        $batches = [];
        foreach ($said as [$at, $report]) {
            $output = $report->output ?? $outputs[0] ?? 1;
            $arrived = $calls[$output]['batch'] ?? null;
            if ($report->batch !== null && $report->batch->id !== $arrived) {
                $batches[$output][] = $report->batch;
                $arrived = $report->batch->id;
            }
            $calls[$output] = ['at' => gmdate('Y-m-d\TH:i:s\Z', $at), 'plays' => $report->release, 'since' => self::text($report->since), 'trouble' => $report->trouble]
                + array_filter([
                    'troubles' => array_map(static fn (Trouble $one): array => $one->toArray(), $report->troubles),
                    'machine' => $report->machine->toArray(),
                    'senses' => $report->senses(array_map(static fn (array $one): Heard => Heard::read(Node::root($one)), self::sensesOf($calls[$output] ?? [])['heard'])),
                ])
                + ($arrived === null ? [] : ['batch' => $arrived]);
        }
        ksort($calls);
        [, $last] = $said[array_key_last($said)];
        $bound = is_string($row['bound_at']) ? 1000 * (int) strtotime($row['bound_at'] . ' UTC') : 0;
        $together = Call::together(array_map(
            static fn (array $call): Call => new Call($bound, 1000 * (int) strtotime($call['at']), $call['plays'], $call['trouble']),
            $calls,
        ), $outputs);

        return [[
            'calls' => json_encode($calls, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'called_at' => $together->calledMs === null ? null : gmdate('Y-m-d H:i:s', intdiv($together->calledMs, 1000)),
            'plays_sha256' => $together->plays,
            'plays_since' => $last->since === null ? null : strtr(substr((string) $last->since, 0, 19), 'T', ' '),
            'trouble' => $together->trouble === null ? null : mb_strimwidth($together->trouble, 0, 300, '...'),
            'build' => $last->build,
            'report_every_s' => $last->everyS,
        ] + (($row['build'] === null) !== ($last->build === null) ? ['pointer_due' => 1] : []), $batches];
    }

    private static function text(?Instant $instant): ?string
    {
        return $instant === null ? null : (string) $instant;
    }

    /**
     * @param list<mixed> $feeds of its display, `player` and `output` of each
     * @return list<int> numbers of the outputs through which it feeds it
     */
    public static function outputsOf(array $feeds, ?string $part): array
    {
        $numbers = [];
        foreach ($feeds as $feed) {
            if (is_array($feed) && ($part === null || ($feed['player'] ?? null) === null || $feed['player'] === $part)) {
                $numbers[] = is_int($feed['output'] ?? null) ? $feed['output'] : 1;
            }
        }

        return array_values(array_unique($numbers));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return self::told($this->row());
    }

    /**
     * What is said of it, of a row of the table.
     *
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    public static function told(array $row): array
    {
        $written = static fn (mixed $at): ?string => is_string($at) ? strtr($at, ' ', 'T') . 'Z' : null;
        $calls = is_string($row['calls']) ? json_decode($row['calls'], true) : null;

        return [
            'id' => $row['id'],
            'name' => $row['name'],
            'display' => $row['display_id'],
            'address' => $row['revoked_at'] === null && is_string($row['secret']) ? self::addressOf($row['secret']) : null,
            'bound_at' => $written($row['bound_at']),
            'revoked_at' => $written($row['revoked_at']),
            'called_at' => $written($row['called_at']),
            'plays_sha256' => $row['plays_sha256'],
            'plays_since' => $written($row['plays_since']),
            'trouble' => $row['trouble'],
            'part' => $row['part'],
            'build' => $row['build'],
            'outputs' => (object) array_map(static fn (mixed $call): array => is_array($call) ? [
                'called_at' => $call['at'] ?? null,
                'plays_sha256' => $call['plays'] ?? null,
                'trouble' => $call['trouble'] ?? null,
            ] : [], is_array($calls) ? $calls : []),
        ];
    }

    /**
     * What lists say of it, of a row of the table; nothing of what is null. Its address, which is its pass, is not told.
     *
     * @param array<string, mixed> $row
     * @return array<string, mixed>
     */
    public static function inList(array $row): array
    {
        $told = ['id' => $row['id'], 'name' => $row['name']];
        foreach (['part', 'build', 'plays_sha256', 'trouble'] as $column) {
            if ($row[$column] !== null) {
                $told[$column] = $row[$column];
            }
        }
        foreach (['called_at', 'plays_since'] as $column) {
            if (is_string($row[$column])) {
                $told[$column] = strtr($row[$column], ' ', 'T') . 'Z';
            }
        }

        return $told;
    }

    private static function addressOf(string $secret): string
    {
        return "/play/$secret/";
    }

    /** @return array<string, mixed> as it stands in the table */
    private function row(): array
    {
        $written = static fn (?\DateTimeImmutable $at): ?string => $at?->format('Y-m-d H:i:s');

        return [
            'id' => $this->id,
            'name' => $this->name,
            'display_id' => $this->display->id,
            'secret' => $this->secret,
            'bound_at' => $written($this->boundAt),
            'revoked_at' => $written($this->revokedAt),
            'called_at' => $written($this->calledAt),
            'plays_sha256' => $this->playsSha256,
            'plays_since' => $written($this->playsSince),
            'trouble' => $this->trouble,
            'part' => $this->part,
            'build' => $this->build,
            'report_every_s' => $this->reportEveryS,
            'calls' => $this->calls === null ? null : json_encode($this->calls, JSON_THROW_ON_ERROR),
        ];
    }
}
