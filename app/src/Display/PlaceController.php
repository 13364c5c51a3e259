<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** The tree of places: made, renamed, moved, taken away when nothing hangs there. */
final readonly class PlaceController
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    #[Route('/api/places', methods: ['POST'])]
    public function create(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('name', 'parent', 'timezone');
        $place = new Place(strtolower((string) new Ulid()), $body->field('name')->name(120), $this->parent($body), $this->entities->getRepository(Place::class)->count(), self::zone($body));
        $this->entities->persist($place);
        $this->entities->flush();

        return new JsonResponse($place->toArray(), 201);
    }

    #[Route('/api/places/{id}', methods: ['PUT'])]
    public function change(string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('name', 'parent', 'timezone');
        $place = $this->place($id);
        $parent = $this->parent($body);
        if ($parent?->isIn($place) === true) {
            throw $body->field('parent')->refused(Reason::ValueRange, sprintf('is "%s", which lies in "%s" itself.', $parent->name, $place->name));
        }
        $place->name = $body->field('name')->name(120);
        $place->parent = $parent;
        $place->timezone = self::zone($body);
        // What is found of displays in it depends on its time zone.
        foreach ($this->entities->getRepository(SurveyedDisplay::class)->findAll() as $display) {
            if ($display->place->isIn($place)) {
                $display->surveyed();
            }
        }
        $this->entities->flush();

        return new JsonResponse($place->toArray());
    }

    #[Route('/api/places/{id}', methods: ['DELETE'])]
    public function delete(string $id): JsonResponse
    {
        $place = $this->place($id);
        $displays = $this->entities->getRepository(SurveyedDisplay::class)->count(['place' => $place]);
        $places = $this->entities->getRepository(Place::class)->count(['parent' => $place]);
        if ($displays + $places > 0) {
            throw new Problem(409, 'place.used', sprintf('"%s" has %d displays and %d places in it. Move them first.', $place->name, $displays, $places));
        }
        $this->entities->remove($place);
        $this->entities->flush();

        return new JsonResponse(null, 204);
    }

    private function place(string $id): Place
    {
        return $this->entities->find(Place::class, $id) ?? throw Problem::notFound('This place');
    }

    private function parent(Node $body): ?Place
    {
        $parent = $body->field('parent');

        return $parent->value === null ? null : $this->entities->find(Place::class, $parent->id())
            ?? throw $parent->refused(Reason::RefUnknown, sprintf('is "%s", no place of the estate.', $parent->id()));
    }

    private static function zone(Node $body): ?string
    {
        $zone = $body->optional('timezone');
        if ($zone === null || $zone->value === null) {
            return null;
        }

        return in_array($zone->text(), \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true)
            ? $zone->text()
            : throw $zone->refused(Reason::ValueUnknown, sprintf('is "%s", no time zone of the tz database; Europe/Lisbon is one.', $zone->text()));
    }
}
