<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Deleting;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Rotation;
use UpperPane\Core\Display\SurveyActs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Units\UtcOffsets;

/** Displays: surveyed, copied, moved, taken away; and whatever the core says of one. */
final readonly class DisplayController
{
    private const MOST_COPIES = 200;
    /** Panels in a row or a column of a display that is begun. */
    private const MOST_SIDE = 32;

    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private Surveys $surveys,
        private Deleting $deleting,
        private EventDispatcherInterface $events,
        private ClockInterface $clock,
        private Security $security,
    ) {
    }

    /** Surveyed already, or begun: panels of a class of sizes on a grid, in the time zone of its place, or in that of whoever asks. */
    #[Route('/api/displays', methods: ['POST'])]
    public function create(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('place', 'document', 'begin');
        $place = $this->place($body);
        $begin = $body->optional('begin');
        $document = $begin === null ? Body::document($body->field('document')) : array_diff_key($this->begun($begin, $place)->toArray(), ['id' => 1]);
        $display = $this->surveys->add($place, $document, $this->who());
        $this->entities->flush();

        return new JsonResponse($this->surveys->whole($display), 201);
    }

    #[Route('/api/displays/{id}', methods: ['GET'])]
    public function show(string $id): JsonResponse
    {
        return new JsonResponse($this->surveys->whole($this->display($id)));
    }

    /** What a hand does to a survey, saved or not. */
    #[Route('/api/displays/act', methods: ['POST'], priority: 1)]
    public function act(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'act');

        return new JsonResponse(['document' => SurveyActs::done(Display::fromArray(Body::document($body->field('document'))), $body->field('act'))->toArray()]);
    }

    #[Route('/api/displays/{id}', methods: ['PUT'])]
    public function save(string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'document', 'note');
        $base = $body->field('base')->int(1);
        $document = ['format' => Display::FORMAT, 'id' => $id] + Body::document($body->field('document'));
        Display::fromArray($document);
        $stale = false;
        $display = $this->transaction->of(function () use ($id, $base, $document, $body, &$stale): SurveyedDisplay {
            $display = $this->display($id);
            $this->entities->refresh($display, LockMode::PESSIMISTIC_WRITE);
            $stale = $display->revision !== $base;
            if ($stale) {
                $this->entities->persist(new SurveyRevision($id, null, $document, $this->clock->now(), $this->who(), "kept aside: based on revision $base"));
            } else {
                $display->survey($document, $this->clock->now(), $this->who());
                $this->surveys->keep($display, $body->optional('note')?->text(1, 200));
                $this->events->dispatch(new DisplaysChanged([$id]));
            }

            return $display;
        });
        if ($stale) {
            throw new Problem(409, 'revision.stale', sprintf(
                '"%s" was surveyed anew as revision %d by %s while you worked on revision %d. Your figures are kept beside it.',
                $display->display()->name,
                $display->revision,
                $display->savedBy ?? 'somebody',
                $base,
            ), more: ['current' => $this->surveys->whole($display)]);
        }

        return new JsonResponse($this->surveys->whole($display));
    }

    #[Route('/api/displays/{id}/revisions', methods: ['GET'])]
    public function revisions(string $id): JsonResponse
    {
        $this->display($id);
        $revisions = $this->entities->getRepository(SurveyRevision::class)->findBy(['displayId' => $id], ['id' => 'DESC'], 100);

        return new JsonResponse(['revisions' => array_map(static fn (SurveyRevision $revision): array => $revision->toArray(), $revisions)]);
    }

    /** "Four more like this": the same survey, numbered on, at the same place or another. */
    #[Route('/api/displays/{id}/copies', methods: ['POST'])]
    public function copy(string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('count', 'place');
        $like = $this->display($id);
        $place = $body->optional('place') === null ? $like->place : $this->place($body);
        $copies = $this->surveys->copies($like, $body->field('count')->int(1, self::MOST_COPIES), $place, $this->who());
        $this->entities->flush();

        return new JsonResponse(['displays' => array_map(static fn (SurveyedDisplay $copy): array => ['id' => $copy->id, 'name' => $copy->display()->name], $copies)], 201);
    }

    #[Route('/api/displays/move', methods: ['POST'], priority: 1)]
    public function move(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('displays', 'place');
        $place = $this->place($body);
        foreach ($body->field('displays')->items(10_000) as $node) {
            $display = $this->entities->find(SurveyedDisplay::class, $node->id()) ?? throw $node->refused(Reason::RefUnknown, sprintf('is "%s", no display of the estate.', $node->id()));
            $display->hang($place);
        }
        $this->entities->flush();

        return new JsonResponse(null, 204);
    }

    /** For so many minutes its players show who they are, instead of what is handed over; with 0 that ends. */
    #[Route('/api/displays/{id}/alignment', methods: ['POST'])]
    public function align(string $id, Request $request): JsonResponse
    {
        $minutes = Body::of($request)->object('minutes')->field('minutes')->int(0, 240, 'min');
        $display = $this->display($id);
        $display->alignmentUntil = $minutes === 0 ? null : $this->clock->now()->add(new \DateInterval("PT{$minutes}M"));
        $this->transaction->of(fn () => $this->events->dispatch(new DisplaysChanged([$display->id])));

        return new JsonResponse($this->surveys->whole($display));
    }

    #[Route('/api/displays/{id}', methods: ['DELETE'])]
    public function delete(string $id): JsonResponse
    {
        $display = $this->display($id);
        $this->deleting->of('display', $display->id, $display->display()->name, 'surveyed_display', $this->who());

        return new JsonResponse(null, 204);
    }

    private function begun(Node $begin, Place $place): Display
    {
        $begin->object('name', 'timezone', 'size', 'columns', 'rows', 'rotation');
        $rotation = $begin->field('rotation');

        return SurveyActs::begun(
            'new',
            $begin->field('name')->name(),
            $place->zone() ?? UtcOffsets::name($begin->field('timezone')),
            $begin->field('size'),
            $begin->field('columns')->int(1, self::MOST_SIDE),
            $begin->field('rows')->int(1, self::MOST_SIDE),
            Rotation::tryFrom($rotation->int()) ?? throw $rotation->refused(Reason::ValueUnknown, 'is none of 0, 90, 180, 270.'),
        );
    }

    private function display(string $id): SurveyedDisplay
    {
        return $this->entities->find(SurveyedDisplay::class, $id) ?? throw Problem::notFound('This display');
    }

    private function place(Node $body): Place
    {
        $place = $body->field('place');

        return $this->entities->find(Place::class, $place->id()) ?? throw $place->refused(Reason::RefUnknown, sprintf('is "%s", no place of the estate.', $place->id()));
    }

    private function who(): ?string
    {
        return $this->security->getUser()?->getUserIdentifier();
    }
}
