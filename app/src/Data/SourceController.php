<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Http\Upload;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Data\NetworkCost;
use UpperPane\Core\Data\Outline;
use UpperPane\Core\Data\PictureAddress;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Data\SourceStatus;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\LocalTime;
use UpperPane\Core\Units\Moment;
use UpperPane\Core\Units\Unit;
use UpperPane\Core\Units\UtcOffsets;
use UpperPane\Core\Units\WallClock;

/** Sources of data: how they stand, what is in them, and which rows are chosen of them. */
final readonly class SourceController
{
    /** So many rows are told of an answer that has more. */
    private const MOST_ROWS = 200;
    private const MOST_FETCHES = 100;

    public function __construct(private Designs $designs, private SourceStates $states, private Snapshots $snapshots, private FieldPictures $pictures, private ClockInterface $clock)
    {
    }

    /** How all of them stand, and what fetching them costs. */
    #[Route('/api/data', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function all(): JsonResponse
    {
        $states = $this->states->all();
        $bytes = $this->states->costs();
        $sources = [];
        $costs = [];
        foreach ($this->designs->all(DesignKind::Source) as $design) {
            $source = self::read($design);
            $costs[] = $cost = NetworkCost::of($source?->everyMs(), $bytes[$design->id] ?? 0.0);
            $sources[] = $this->told($design, $source, $states[$design->id] ?? null, $cost);
        }

        return new JsonResponse([
            'sources' => $sources,
            'cost' => NetworkCost::sum(...$costs)->toArray(),
            'findings' => array_values(array_filter(array_column($sources, 'finding'))),
            'units' => Unit::kinds(),
        ]);
    }

    #[Route('/api/sources/{id}/state', methods: ['GET'])]
    #[Needs(Right::Design)]
    public function state(string $id): JsonResponse
    {
        $design = $this->design($id);
        $source = self::read($design);

        return new JsonResponse($this->told($design, $source, $this->states->of($id), NetworkCost::of($source?->everyMs(), $this->states->costs()[$id] ?? 0.0)) + [
            'pictures' => $this->pictures->told($id),
            'fetches' => array_map(static fn (array $one): array => ['at' => (string) Instant::ofMs($one['at_ms'])] + $one, $this->states->fetches($id, self::MOST_FETCHES)),
        ]);
    }

    /** Asks for it to be fetched at once, by who fetches. */
    #[Route('/api/sources/{id}/fetch', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function fetch(string $id): JsonResponse
    {
        $design = $this->design($id);
        if (self::read($design)?->address() === null) {
            throw new Problem(409, 'source.not-fetched', sprintf('"%s" comes from no address; there is nothing to fetch.', $design->name));
        }
        $this->states->due($id, $this->nowMs());

        return new JsonResponse(null, 202);
    }

    #[Route('/api/sources/{id}/file', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function file(string $id, Request $request): JsonResponse
    {
        $design = $this->design($id);
        $upload = Upload::of($request);
        if (!isset(self::read($design)?->from['file'])) {
            throw new Problem(409, 'source.no-file', sprintf('"%s" comes from no file. Say in it that it does, then bring one in.', $design->name));
        }
        if ((int) $upload->file->getSize() > Trees::LARGEST) {
            throw new Problem(413, 'data.too-large', sprintf('"%s" has %s bytes; at most %s are read.', $upload->name, number_format((int) $upload->file->getSize()), number_format(Trees::LARGEST)));
        }
        $bytes = (string) file_get_contents($upload->file->getPathname());
        $why = $this->snapshots->take($design->document, new Fetched(null, $bytes, strlen($bytes), 0), $upload->name);

        return $why === null ? $this->state($id) : throw new Problem(422, 'data.unread', sprintf('"%s" is not taken: %s', $upload->name, $why));
    }

    #[Route('/api/sources/{id}/headers', methods: ['PUT'])]
    #[Needs(Right::Design)]
    public function headers(string $id, Request $request, SourceHeaders $headers): JsonResponse
    {
        return new JsonResponse(['sealed' => $headers->of($this->design($id), Body::of($request)->object('headers')->field('headers'))]);
    }

    /** What is in it, level by level. */
    #[Route('/api/sources/{id}/outline', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function outline(string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('at', 'timezone', 'fetch', 'source');
        $snapshot = $this->snapshot($id, $body);

        return new JsonResponse(['outline' => $snapshot === null ? null : Outline::of($snapshot['tree']), 'taken_at' => self::instant($snapshot['taken_ms'] ?? null)]);
    }

    /** The rows that are chosen at an instant, and when other ones are. */
    #[Route('/api/rows', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function rows(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('rows', 'at', 'timezone', 'fetch', 'source');
        $given = $body->field('rows');
        $rows = Rows::fromNode($given);
        $design = $this->designs->find($rows->source);
        if ($design === null || $design->kind !== DesignKind::Source) {
            throw $given->field('source')->refused(Reason::DataUnknown, sprintf('is "%s", and there is no source of that id.', $rows->source));
        }
        $snapshot = $this->snapshot($rows->source, $body);
        if ($snapshot === null) {
            $none = ['at' => self::instant($this->at($body)), 'count' => 0, 'rows' => [], 'spans' => [], 'unreadable' => 0, 'changes_at' => null]
                + ['fields' => [], 'pictures' => [], 'nodes' => 0, 'taken_at' => null];

            return new JsonResponse($none);
        }
        $at = $this->at($body);
        $table = $rows->of($snapshot['tree'], WallClock::in(self::timezone($body)), $snapshot['zone']);
        $chosen = $table->at($at);
        $changes = $table->changesAfter($at);

        return new JsonResponse([
            'at' => self::instant($at),
            'count' => $chosen->count,
            'rows' => array_map(static fn (array $row): object => (object) $row, array_slice($chosen->told(), 0, self::MOST_ROWS)),
            'spans' => array_map(static fn (array $span): array => array_map(self::instant(...), $span), array_slice($chosen->spans, 0, self::MOST_ROWS)),
            'unreadable' => $table->unreadable,
            'changes_at' => self::instant($changes),
            'fields' => $table->names,
            'pictures' => PictureAddress::fields($table->names, array_slice($chosen->rows, 0, self::MOST_ROWS)),
            'nodes' => $table->nodes,
            'taken_at' => self::instant($snapshot['taken_ms']),
        ]);
    }

    /**
     * @return array{tree: mixed, taken_ms: ?int, zone: ?string}|null
     * @throws Refused
     */
    private function snapshot(string $id, Node $body): ?array
    {
        $design = $this->design($id);
        $typed = $body->given('source');
        // As it is being typed, where it is.
        $source = Source::fromNode($typed === null ? Node::root($design->document) : Node::root(['id' => $design->id] + Body::document($typed)));
        $snapshot = $this->snapshots->of($source, self::timezone($body), $this->at($body), $body->given('fetch')?->int(1));

        return $snapshot === null ? null : $snapshot + ['zone' => $source->zone];
    }

    /** @return array<string, mixed> */
    private function told(Design $design, ?Source $source, ?SourceState $state, NetworkCost $cost): array
    {
        $isTable = isset($source->from['table']);
        $taken = $isTable ? $this->nowMs() : $state?->takenMs;
        $status = $source === null ? SourceStatus::Failing : SourceStatus::of($source, $taken, $state?->failingSinceMs, $this->nowMs());

        return [
            'id' => $design->id,
            'name' => $design->name,
            'from' => $source === null ? null : array_key_first($source->from),
            'address' => $source?->address(),
            'status' => $status->value,
            'finding' => $source === null ? null : $status->finding($source, $taken, $state?->failingSinceMs, $state?->why, $this->nowMs())?->toArray(),
            'taken_at' => $isTable ? $design->savedAt->format('Y-m-d\TH:i:s\Z') : self::instant($taken),
            'failing_since' => self::instant($state?->failingSinceMs),
            'why' => $state?->why,
            'due_at' => self::instant($state?->dueMs),
            'file' => $state?->file,
            'bytes' => $state?->bytes,
            'sealed' => $state->sealed ?? [],
            'every_s' => $source?->everyMs() === null ? null : intdiv($source->everyMs(), 1000),
            'cost' => $cost->toArray(),
        ];
    }

    private function design(string $id): Design
    {
        return $this->designs->of(DesignKind::Source, $id);
    }

    private static function read(Design $design): ?Source
    {
        try {
            return Source::fromNode(Node::root($design->document));
        } catch (Refused) {
            return null;
        }
    }

    /** An instant, or a time on the clock of the zone that is asked for: one that it leaves out is read with the offset before, of two the first. */
    private function at(Node $body): int
    {
        $at = $body->given('at');
        if ($at === null) {
            return $this->nowMs();
        }

        return Moment::ofRfc3339($at->text())->ms ?? 1000 * WallClock::in(self::timezone($body))->utcOrBefore(LocalTime::fromNode($at)->seconds);
    }

    private static function timezone(Node $body): string
    {
        $timezone = $body->given('timezone');

        return $timezone === null ? 'UTC' : UtcOffsets::name($timezone);
    }

    private function nowMs(): int
    {
        return (int) $this->clock->now()->format('Uv');
    }

    private static function instant(?int $ms): ?string
    {
        return $ms === null ? null : (string) Instant::ofMs($ms);
    }
}
