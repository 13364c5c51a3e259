<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Body;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Arrange\Divisions;
use UpperPane\Core\Layout\Division\Recipe;

/** Divisions to begin with: those of the trade for the shape of a raster, and those that the team keeps. */
#[Route('/api/divisions')]
final readonly class DivisionController
{
    public function __construct(private KeptDivisions $kept, private Displays $displays)
    {
    }

    /** Each with where its areas lie on the raster; one that does not fit says why. With `display`, where that is a wall of this raster, those at its panels first. */
    #[Route('', methods: ['GET'])]
    #[Needs(Right::Design)]
    public function list(Request $request): JsonResponse
    {
        $raster = Size::px($request->query->getInt('width'), $request->query->getInt('height'));
        $asked = $request->query->getString('display');
        $display = $asked === '' ? null : $this->displays->find($asked)?->display();
        $ofWall = $display !== null && (string) $display->raster() === (string) $raster ? Divisions::ofWall($display->wall) : [];
        $divisions = [];
        foreach ([...$ofWall, ...Divisions::for($raster)] as $name => $recipe) {
            $divisions[] = ['id' => null, 'name' => $name] + self::drawn($recipe, $raster);
        }
        foreach ($this->kept->all() as $kept) {
            $divisions[] = ['id' => $kept->id, 'name' => $kept->name, 'saved_by' => $kept->savedBy] + self::drawn(Recipe::fromNode(Node::root($kept->recipe)), $raster);
        }

        return new JsonResponse(['divisions' => $divisions]);
    }

    #[Route('', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function keep(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('name', 'recipe');
        $name = trim($body->field('name')->name());
        $recipe = Recipe::fromNode($body->field('recipe'));
        if ($name === '' || $recipe->areas === []) {
            throw $body->field($name === '' ? 'name' : 'recipe')->refused(Reason::ValueRange, $name === '' ? 'is empty.' : 'names no areas; a division has at least one.');
        }

        return new JsonResponse(['id' => $this->kept->keep($name, $recipe)->id], 201);
    }

    #[Route('/{id}', methods: ['DELETE'])]
    #[Needs(Right::Design)]
    public function remove(string $id): JsonResponse
    {
        $this->kept->remove($id);

        return new JsonResponse(null, 204);
    }

    /** @return array<string, mixed> */
    private static function drawn(Recipe $recipe, Size $raster): array
    {
        $said = ['recipe' => $recipe->toArray()];
        try {
            return $said + ['areas' => (object) array_map(static fn (Rect $rect): array => $rect->toArray(), $recipe->solve($raster))];
        } catch (DocumentRefused $e) {
            return $said + ['trouble' => $e->getMessage()];
        }
    }
}
