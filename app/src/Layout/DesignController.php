<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Deleting;
use UpperPane\App\Storage\Saved;
use UpperPane\Core\Document\Merge;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Time\ItemActs;

/** Layouts, what is filled into them, playlists, schedules, sources, house styles, overlays, triggers and panels: documents with revisions, none of which is ever lost. */
#[Route('/api/{plural}', requirements: ['plural' => 'layouts|filled|playlists|schedules|sources|styles|overlays|triggers|panels'])]
final readonly class DesignController
{
    public function __construct(
        private Designs $designs,
        private DesignForms $forms,
        private Displays $displays,
        private Places $places,
        private SaveDesign $save,
    ) {
    }

    #[Route('', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function list(string $plural, Showing $showing, References $references): JsonResponse
    {
        $standing = $showing->standing();
        $uses = $references->uses();

        return new JsonResponse([$plural => array_map(static fn (array $design): array => $design + [
            'standing' => $standing[$design['id']] ?? ['displays' => 0, 'older' => 0, 'some' => [], 'again' => null],
            'used_in' => $uses[$design['id']] ?? [],
        ], $this->designs->summaries(DesignKind::ofPlural($plural)))]);
    }

    #[Route('', methods: ['POST'])]
    #[Needs(Right::Design, ['filled' => Right::FillIn])]
    public function create(string $plural, Request $request, MakeDesign $make): JsonResponse
    {
        $body = Body::of($request)->object('name', 'document', 'display', 'place');
        $kind = DesignKind::ofPlural($plural);
        $name = $body->field('name')->name();
        $document = Body::document($body->field('document'));
        $display = $this->display($body);
        $named = $body->optional('place');
        $place = $named === null ? null : $this->places->named($named);
        if ($this->forms->of($kind)::rules() && ($display === null) === ($place === null)) {
            throw $body->refused(Reason::FieldMissing, 'names no display and no place, or both; a schedule rules on one of them.');
        }

        return new JsonResponse(self::whole($make->of($kind, $name, $document, $display, $place)), 201);
    }

    #[Route('/{id}', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(string $plural, string $id): JsonResponse
    {
        return new JsonResponse(self::whole($this->design($plural, $id)));
    }

    /** What a list needs to draw the design's true picture: its run sheet and the addresses of its media. */
    #[Route('/{id}/picture', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function picture(string $plural, string $id, Pictures $pictures): JsonResponse
    {
        $design = $this->design($plural, $id);
        $drawn = $this->forms->of($design->kind)->drawn($design->document) ?? throw Problem::notFound('A picture of this');

        return new JsonResponse($pictures->of($drawn, isOfNow: true));
    }

    #[Route('/{id}', methods: ['PUT'])]
    #[Needs(Right::Design, ['filled' => Right::FillIn])]
    public function save(string $plural, string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'document', 'display', 'place', 'note');
        $given = Body::document($body->field('document'));
        $display = $this->display($body);
        $isOpen = $body->has('place') && !$this->forms->of(DesignKind::ofPlural($plural))::rules();
        $place = $isOpen && ($named = $body->given('place')) !== null ? $this->places->named($named) : null;

        return self::told($this->save->of(
            DesignKind::ofPlural($plural),
            $id,
            $body->field('base')->int(1),
            $given,
            $body->optional('note')?->text(1, 200),
            static function (Design $design) use ($body, $display, $isOpen, $place): void {
                $design->placeId = $isOpen ? $place?->id : $design->placeId;
                $design->displayId = $body->has('display') ? $display?->id : $design->displayId;
            },
        ));
    }

    /** Puts an item behind those of a saved playlist, under an id that is free there. */
    #[Route('/{id}/items', methods: ['POST'], requirements: ['plural' => 'playlists'])]
    #[Needs(Right::Design, ['filled' => Right::FillIn])]
    public function append(string $plural, string $id, Request $request): JsonResponse
    {
        $item = Body::of($request)->object('item')->field('item');
        $design = $this->design($plural, $id);
        $written = array_map(static fn (Node $one): array => $one->fields(), Node::root($design->document)->field('items')->items());
        $items = ItemActs::done($written, [], Node::root(['do' => 'add', 'items' => [$item->fields()]]));

        return self::told($this->save->of($design->kind, $id, $design->revision, ['items' => $items] + $design->document));
    }

    /** What somebody else and oneself changed since a revision, part by part, and the design with either's part taken. */
    #[Route('/{id}/compare', methods: ['POST'])]
    #[Needs(Right::Design, ['filled' => Right::FillIn])]
    public function compare(string $plural, string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'document', 'take');
        $design = $this->design($plural, $id);
        $number = $body->field('base')->int(1);
        $base = $this->designs->numbered($id, $number)
            ?? throw $body->field('base')->refused(Reason::RefUnknown, sprintf('is %d, which is no revision of this %s.', $number, $design->kind->value));
        $take = [];
        $given = $body->optional('take')?->value;
        foreach (is_array($given) ? array_keys($given) : [] as $key) {
            $take[(string) $key] = $body->field('take')->field((string) $key)->oneOf('mine', 'theirs');
        }
        $merge = Merge::of($base->document, Body::document($body->field('document')), $design->document);

        return new JsonResponse(['differences' => $merge->differences(), 'document' => $merge->document($take)]);
    }

    #[Route('/{id}/revisions', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function revisions(string $plural, string $id, Showing $showing): JsonResponse
    {
        $revisions = $this->designs->revisions($this->design($plural, $id));
        $handed = $showing->handedOver($id);

        return new JsonResponse(['revisions' => array_map(static fn (array $one): array => $one + ['handed_over' => $handed[$one['number'] ?? 0] ?? null], $revisions)]);
    }

    #[Route('/{id}/revisions/{revision}', methods: ['GET'], requirements: ['revision' => '\d+'])]
    #[Needs(Right::Look)]
    public function revision(string $plural, string $id, int $revision): JsonResponse
    {
        $kept = $this->designs->kept($this->design($plural, $id), $revision);

        return new JsonResponse($kept->summary() + ['document' => $kept->document]);
    }

    /** What a list needs to tell a revision from the others: its true picture, and what is another in it than in the one before. */
    #[Route('/{id}/revisions/{revision}/picture', methods: ['GET'], requirements: ['revision' => '\d+'])]
    #[Needs(Right::Look)]
    public function revisionPicture(string $plural, string $id, int $revision, Pictures $pictures): JsonResponse
    {
        $design = $this->design($plural, $id);
        $kept = $this->designs->kept($design, $revision);
        $before = $this->designs->before($kept);
        try {
            $drawn = $this->forms->of($design->kind)->drawn($kept->document);
        } catch (Refused) {
            // Something in it is there no more.
            $drawn = null;
        }

        return new JsonResponse([
            'changes' => $before === null ? null : Merge::changes($before->document, $kept->document),
            'picture' => $drawn === null ? null : $pictures->of($drawn, isOfNow: true),
        ]);
    }

    /** Makes an earlier state, or one kept aside, the newest revision. */
    #[Route('/{id}/restore', methods: ['POST'])]
    #[Needs(Right::Design, ['filled' => Right::FillIn])]
    public function restore(string $plural, string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('base', 'revision');
        $kept = $this->designs->kept($this->design($plural, $id), $body->field('revision')->int(1));
        $note = $kept->number === null ? 'restored from what was kept aside' : "restored from revision $kept->number";

        return self::told($this->save->of(DesignKind::ofPlural($plural), $id, $body->field('base')->int(1), $kept->document, $note));
    }

    #[Route('/{id}', methods: ['DELETE'])]
    #[Needs(Right::Design, ['filled' => Right::FillIn])]
    public function delete(string $plural, string $id, Deleting $delete): JsonResponse
    {
        $delete->of($this->design($plural, $id));

        return new JsonResponse(null, 204);
    }

    private function design(string $plural, string $id): Design
    {
        return $this->designs->of(DesignKind::ofPlural($plural), $id);
    }

    /** The surveyed display for which a design is made; null for none. */
    private function display(Node $body): ?SurveyedDisplay
    {
        $display = $body->given('display');

        return $display === null ? null : $this->displays->named($display);
    }

    /** @param Saved<Design> $saved */
    private static function told(Saved $saved): JsonResponse
    {
        return new JsonResponse($saved->told(self::whole(...)));
    }

    /** @return array<string, mixed> */
    private static function whole(Design $design): array
    {
        return $design->summary() + ['document' => $design->document];
    }
}
