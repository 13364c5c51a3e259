<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\App\Storage\Deleting;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Rotation;
use UpperPane\Core\Display\SurveyActs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Units\UtcOffsets;

/** Displays: surveyed, copied, moved, taken away. */
final readonly class DisplayController
{
    private const MOST_COPIES = 200;
    private const MOST_MOVED = 10_000;
    /** Panels in a row or a column of a display that is begun. */
    private const MOST_SIDE = 32;

    public function __construct(private Displays $displays, private Places $places, private Surveys $surveys)
    {
    }

    /** Surveyed already, or begun: panels of a class of sizes on a grid, in the time zone of its place, or in that of whoever asks. */
    #[Route('/api/displays', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function create(Request $request, AddDisplay $add): JsonResponse
    {
        $body = Body::of($request)->object('place', 'document', 'begin');
        $place = $this->places->named($body->field('place'));
        $begin = $body->optional('begin');
        $document = $begin === null ? Body::document($body->field('document')) : array_diff_key($this->begun($begin, $place)->toArray(), ['id' => 1]);

        return new JsonResponse($this->surveys->whole($add->of($place, $document)), 201);
    }

    #[Route('/api/displays/{id}', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(string $id): JsonResponse
    {
        return new JsonResponse($this->surveys->whole($this->displays->one($id)));
    }

    /** What a hand does to a survey, saved or not. */
    #[Route('/api/displays/act', methods: ['POST'], priority: 1)]
    #[Needs(Right::Survey)]
    public function act(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'act');

        return new JsonResponse(['document' => SurveyActs::done(Display::fromArray(Body::document($body->field('document'))), $body->field('act'))->toArray()]);
    }

    #[Route('/api/displays/{id}', methods: ['PUT'])]
    #[Needs(Right::Survey)]
    public function save(string $id, Request $request, SaveSurvey $save): JsonResponse
    {
        $body = Body::of($request)->object('base', 'document', 'note');
        $saved = $save->of($id, $body->field('base')->int(1), Body::document($body->field('document')), $body->optional('note')?->text(1, 200));

        return new JsonResponse($saved->told($this->surveys->whole(...)));
    }

    #[Route('/api/displays/{id}/revisions', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function revisions(string $id): JsonResponse
    {
        $revisions = $this->displays->revisions($this->displays->one($id));

        return new JsonResponse(['revisions' => array_map(static fn (SurveyRevision $revision): array => $revision->toArray(), $revisions)]);
    }

    /** At the same place or another. */
    #[Route('/api/displays/{id}/copies', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function copy(string $id, Request $request, CopyDisplay $copy): JsonResponse
    {
        $body = Body::of($request)->object('count', 'place');
        $like = $this->displays->one($id);
        $place = $body->optional('place');
        $copies = $copy->of($like, $body->field('count')->int(1, self::MOST_COPIES), $place === null ? $like->place : $this->places->named($place));

        return new JsonResponse(['displays' => array_map(static fn (SurveyedDisplay $one): array => ['id' => $one->id, 'name' => $one->display()->name], $copies)], 201);
    }

    #[Route('/api/displays/move', methods: ['POST'], priority: 1)]
    #[Needs(Right::Survey)]
    public function move(Request $request, MoveDisplays $move): JsonResponse
    {
        $body = Body::of($request)->object('displays', 'place');
        $move->of(array_map($this->displays->named(...), $body->field('displays')->items(self::MOST_MOVED)), $this->places->named($body->field('place')));

        return new JsonResponse(null, 204);
    }

    /** For so many minutes its players show who they are, instead of what is handed over; with 0 that ends. */
    #[Route('/api/displays/{id}/alignment', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function align(string $id, Request $request, AlignDisplay $align): JsonResponse
    {
        $minutes = Body::of($request)->object('minutes')->field('minutes')->int(0, 240, 'min');

        return new JsonResponse($this->surveys->whole($align->of($this->displays->one($id), $minutes)));
    }

    #[Route('/api/displays/{id}', methods: ['DELETE'])]
    #[Needs(Right::Survey)]
    public function delete(string $id, Deleting $delete): JsonResponse
    {
        $delete->of($this->displays->one($id));

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
}
