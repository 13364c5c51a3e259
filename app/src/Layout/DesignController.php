<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Deleting;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\Merge;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\ItemActs;

/** Layouts, playlists and schedules: documents with revisions, none of which is ever lost. */
#[Route('/api/{plural}', requirements: ['plural' => 'layouts|playlists|schedules'])]
final readonly class DesignController
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private DesignRepository $designs,
        private DesignForms $forms,
        private Pictures $pictures,
        private Showing $showing,
        private References $references,
        private Deleting $deleting,
        private ClockInterface $clock,
        private Security $security,
    ) {
    }

    #[Route('', methods: ['GET'])]
    public function list(string $plural): JsonResponse
    {
        $handed = $this->showing->currentBySource();
        $uses = $this->references->uses();

        return new JsonResponse([$plural => array_map(static fn (array $design): array => $design + [
            'handed_over' => $handed[$design['id']] ?? [],
            'used_in' => $uses[$design['id']] ?? [],
        ], $this->designs->summaries(DesignKind::ofPlural($plural)))]);
    }

    #[Route('', methods: ['POST'])]
    public function create(string $plural, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('name', 'document', 'display', 'place');
        $kind = DesignKind::ofPlural($plural);
        $name = $body->field('name')->name();
        $id = strtolower((string) new Ulid());
        $document = ['format' => $kind->format(), 'id' => $id, 'name' => $name] + Body::document($body->field('document'));
        $this->check($kind, $document);
        $design = new Design($id, $kind, $name, $document, $this->displayId($body), $this->clock->now(), $this->who(), $this->forms->of($kind)::rules() ? $this->placeId($body) : null);
        try {
            $this->transaction->of(function () use ($design): void {
                $this->entities->persist($design);
                $this->entities->persist(DesignRevision::of($design));
            });
        } catch (UniqueConstraintViolationException) {
            throw new Problem(409, 'schedule.exists', 'Another schedule was made for the same place at this moment; book in that.');
        }

        return new JsonResponse($this->whole($design), 201);
    }

    #[Route('/{id}', methods: ['GET'])]
    public function show(string $plural, string $id): JsonResponse
    {
        return new JsonResponse($this->whole($this->design($plural, $id)));
    }

    /** What a list needs to draw the design's true picture: its run sheet and the addresses of its media. */
    #[Route('/{id}/picture', methods: ['GET'])]
    public function picture(string $plural, string $id): JsonResponse
    {
        $design = $this->design($plural, $id);
        $drawn = $this->forms->of($design->kind)->drawn($design->document) ?? throw Problem::notFound('A picture of this');

        return new JsonResponse($this->pictures->of($drawn));
    }

    #[Route('/{id}', methods: ['PUT'])]
    public function save(string $plural, string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'document', 'display', 'note');
        $given = Body::document($body->field('document'));
        $base = $body->field('base')->int(1);
        $display = $this->displayId($body);

        return $this->write($plural, $id, $base, $given, $body->optional('note')?->text(1, 200), static function (Design $design) use ($body, $display): void {
            $design->displayId = $body->has('display') ? $display : $design->displayId;
        });
    }

    /** Puts an item behind those of a saved playlist, under an id that is free there. */
    #[Route('/{id}/items', methods: ['POST'], requirements: ['plural' => 'playlists'])]
    public function append(string $plural, string $id, Request $request): JsonResponse
    {
        $item = Body::of($request)->object('item')->field('item');
        $design = $this->design($plural, $id);
        $written = array_map(static fn (Node $one): array => $one->fields(), Node::root($design->document)->field('items')->items());
        $items = ItemActs::done($written, [], Node::root(['do' => 'add', 'items' => [$item->fields()]]));

        return $this->write($plural, $id, $design->revision, ['items' => $items] + $design->document, null, static fn (Design $design): null => null);
    }

    /** What somebody else and oneself changed since a revision, part by part, and the design with either's part taken. */
    #[Route('/{id}/compare', methods: ['POST'])]
    public function compare(string $plural, string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'document', 'take');
        $design = $this->design($plural, $id);
        $number = $body->field('base')->int(1);
        $base = $this->entities->getRepository(DesignRevision::class)->findOneBy(['designId' => $id, 'number' => $number])
            ?? throw $body->field('base')->refused(Reason::RefUnknown, sprintf('is %d, which is no revision of this %s.', $number, rtrim($plural, 's')));
        $take = [];
        $given = $body->optional('take')?->value;
        foreach (is_array($given) ? array_keys($given) : [] as $key) {
            $take[(string) $key] = $body->field('take')->field((string) $key)->oneOf('mine', 'theirs');
        }
        $merge = Merge::of($base->document, Body::document($body->field('document')), $design->document);

        return new JsonResponse(['differences' => $merge->differences(), 'document' => $merge->document($take)]);
    }

    #[Route('/{id}/revisions', methods: ['GET'])]
    public function revisions(string $plural, string $id): JsonResponse
    {
        $this->design($plural, $id);
        $revisions = $this->entities->getRepository(DesignRevision::class)->findBy(['designId' => $id], ['id' => 'DESC'], 200);

        return new JsonResponse(['revisions' => array_map(static fn (DesignRevision $r): array => $r->summary(), $revisions)]);
    }

    #[Route('/{id}/revisions/{revision}', methods: ['GET'], requirements: ['revision' => '\d+'])]
    public function revision(string $plural, string $id, int $revision): JsonResponse
    {
        $kept = $this->kept($plural, $id, $revision);

        return new JsonResponse($kept->summary() + ['document' => $kept->document]);
    }

    /** Makes an earlier state, or one kept aside, the newest revision. */
    #[Route('/{id}/restore', methods: ['POST'])]
    public function restore(string $plural, string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'revision');
        $kept = $this->kept($plural, $id, $body->field('revision')->int(1));
        $note = $kept->number === null ? 'restored from what was kept aside' : "restored from revision $kept->number";

        return $this->write($plural, $id, $body->field('base')->int(1), $kept->document, $note, static function (): void {
        });
    }

    #[Route('/{id}', methods: ['DELETE'])]
    public function delete(string $plural, string $id): JsonResponse
    {
        $design = $this->design($plural, $id);
        $this->deleting->of($design->kind->value, $design->id, $design->name, 'design', $this->who());

        return new JsonResponse(null, 204);
    }

    /**
     * @param array<string, mixed> $given
     * @param \Closure(Design): void $alsoSet
     */
    private function write(string $plural, string $id, int $base, array $given, ?string $note, \Closure $alsoSet): JsonResponse
    {
        $kind = DesignKind::ofPlural($plural);
        $known = $this->design($plural, $id);
        $given = ['format' => $kind->format(), 'id' => $known->id] + $given;
        $this->check($kind, $given, $known->document);
        $name = Node::root($given)->field('name')->name();
        $stale = false;
        $design = $this->transaction->of(function () use ($plural, $id, $base, $given, $note, $name, $alsoSet, &$stale): Design {
            $design = $this->design($plural, $id, lock: true);
            if ($this->hasLanded($design, $base, $given)) {
                return $design;
            }
            $stale = $design->revision !== $base;
            if ($stale) {
                $this->entities->persist(new DesignRevision($id, null, $given, $this->clock->now(), $this->who(), "kept aside: based on revision $base"));
            } else {
                $design->document = $given;
                $design->name = $name;
                $design->revision++;
                $design->savedAt = $this->clock->now();
                $design->savedBy = $this->who();
                $alsoSet($design);
                $this->entities->persist(DesignRevision::of($design, $note));
            }

            return $design;
        });
        if ($stale) {
            throw new Problem(409, 'revision.stale', sprintf(
                '"%s" was saved as revision %d by %s while you worked on revision %d. Your version is kept beside it.',
                $design->name,
                $design->revision,
                $design->savedBy ?? 'somebody',
                $base,
            ), more: ['current' => $this->whole($design)]);
        }

        return new JsonResponse($this->whole($design));
    }

    /**
     * Whether this was saved before and its answer was lost on the way: it is asked for again, and is what stands there.
     *
     * @param array<string, mixed> $given
     */
    private function hasLanded(Design $design, int $base, array $given): bool
    {
        return $design->revision === $base + 1 && $design->savedBy === $this->who() && $design->document == $given;
    }

    private function design(string $plural, string $id, bool $lock = false): Design
    {
        $design = $this->entities->find(Design::class, $id, $lock ? LockMode::PESSIMISTIC_WRITE : null);
        if ($design === null || $design->kind !== DesignKind::ofPlural($plural)) {
            throw Problem::notFound('This ' . rtrim($plural, 's'));
        }
        if ($lock) {
            $this->entities->refresh($design);
        }

        return $design;
    }

    /**
     * @param array<string, mixed> $document
     * @param ?array<string, mixed> $stored as it was saved before: what went beyond a bound then may be saved again, as long as it is no worse
     * @throws Refused
     */
    private function check(DesignKind $kind, array $document, ?array $stored = null): void
    {
        try {
            $this->forms->of($kind)->check($document);
        } catch (BudgetExceeded $e) {
            try {
                $stored === null ?: $this->check($kind, $stored);
            } catch (BudgetExceeded $before) {
                if ($e->isNoWorseThan($before)) {
                    return;
                }
            }
            throw $e;
        }
    }

    /** Where a schedule rules: on one display or in one place, which has none yet. */
    private function placeId(Node $body): ?string
    {
        $display = $this->displayId($body);
        $place = $body->optional('place');
        $id = $place?->id();
        if (($display === null) === ($id === null)) {
            throw $body->refused(Reason::FieldMissing, 'names no display and no place, or both; a schedule rules on one of them.');
        }
        if ($place !== null && $this->entities->find(Place::class, $place->id()) === null) {
            throw $place->refused(Reason::RefUnknown, sprintf('is "%s", no place of the estate.', $place->id()));
        }
        $there = $this->designs->findOneBy(['kind' => DesignKind::Schedule] + ($id === null ? ['displayId' => $display] : ['placeId' => $id]));
        if ($there !== null) {
            throw new Problem(409, 'schedule.exists', sprintf('"%s" rules there already; book in that.', $there->name));
        }

        return $id;
    }

    /** The surveyed display for which a design is made; null for none. */
    private function displayId(Node $body): ?string
    {
        if (!$body->has('display') || $body->field('display')->value === null) {
            return null;
        }
        $display = $body->field('display');
        $id = $display->id();
        if ($this->entities->find(SurveyedDisplay::class, $id) === null) {
            throw $display->refused(Reason::RefUnknown, sprintf('is "%s", which is no surveyed display.', $id));
        }

        return $id;
    }

    private function kept(string $plural, string $id, int $revision): DesignRevision
    {
        $this->design($plural, $id);
        $kept = $this->entities->find(DesignRevision::class, $revision);

        return $kept !== null && $kept->designId === $id ? $kept : throw Problem::notFound('This revision');
    }

    /** @return array<string, mixed> */
    private function whole(Design $design): array
    {
        return $design->summary() + ['document' => $design->document];
    }

    private function who(): ?string
    {
        return $this->security->getUser()?->getUserIdentifier();
    }
}
