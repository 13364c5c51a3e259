<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** The tree of places: made, renamed, moved, taken away when nothing hangs there. */
final readonly class PlaceController
{
    public function __construct(private Places $places)
    {
    }

    #[Route('/api/places', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function create(Request $request, AddPlace $add): JsonResponse
    {
        $body = Body::of($request)->object('name', 'parent', 'timezone');

        return new JsonResponse($add->of($body->field('name')->name(120), $this->parent($body), self::zone($body))->toArray(), 201);
    }

    #[Route('/api/places/{id}', methods: ['PUT'])]
    #[Needs(Right::Survey)]
    public function change(string $id, Request $request, ChangePlace $change): JsonResponse
    {
        $body = Body::of($request)->object('name', 'parent', 'timezone');
        $place = $this->places->one($id);
        $parent = $this->parent($body);
        if ($parent?->isIn($place) === true) {
            throw $body->field('parent')->refused(Reason::ValueRange, sprintf('is "%s", which lies in "%s" itself.', $parent->name, $place->name));
        }

        return new JsonResponse($change->of($place, $body->field('name')->name(120), $parent, self::zone($body))->toArray());
    }

    #[Route('/api/places/{id}', methods: ['DELETE'])]
    #[Needs(Right::Survey)]
    public function delete(string $id, RemovePlace $remove): JsonResponse
    {
        $remove->of($this->places->one($id));

        return new JsonResponse(null, 204);
    }

    private function parent(Node $body): ?Place
    {
        $parent = $body->field('parent');

        return $parent->value === null ? null : $this->places->named($parent);
    }

    private static function zone(Node $body): ?string
    {
        $zone = $body->given('timezone');
        if ($zone === null) {
            return null;
        }

        return in_array($zone->text(), \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true)
            ? $zone->text()
            : throw $zone->refused(Reason::ValueUnknown, sprintf('is "%s", no time zone of the tz database; Europe/Lisbon is one.', $zone->text()));
    }
}
