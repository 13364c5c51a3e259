<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Body;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Geometry\Tracks;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Division\Recipe;
use UpperPane\Core\Layout\Layout;

/** What a designer does with the division of a layout, saved or not: the document comes back, and what changed beside what was asked for. */
final readonly class ArrangementController
{
    #[Route('/api/arrangement', methods: ['POST'])]
    public function arrange(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'act');
        $document = Body::document($body->field('document'));
        $arranged = $this->act(Arrangement::of(Layout::fromArray($document)), $body->field('act'));

        return new JsonResponse(['document' => $arranged->layout->toArray(), 'said' => $arranged->said]);
    }

    /** @throws DocumentRefused */
    private function act(Arrangement $arrangement, Node $act): Arrangement
    {
        $act->object('do', 'raster', 'recipe', 'zone', 'zones', 'into', 'tracks', 'between', 'from', 'along', 'to', 'edge', 'way', 'columns', 'rows', 'gap_x', 'gap_y');
        $zones = static fn (int $least): array => self::zones($act->field('zones'), $least);

        return match ($act->field('do')->oneOf('solve', 'scale', 'start', 'write', 'retell', 'follow', 'shares', 'split', 'join', 'border', 'equalise', 'swap', 'align', 'distribute', 'repeat')) {
            'solve' => $arrangement->solvedFor(Size::fromNode($act->field('raster'))),
            'scale' => $arrangement->scaledTo(Size::fromNode($act->field('raster'))),
            'start' => $arrangement->startedWith(Recipe::fromNode($act->field('recipe'))),
            'write' => $this->written($arrangement, $act->field('recipe')),
            'retell' => $arrangement->retold(),
            'follow' => $arrangement->following(),
            'shares' => $arrangement->inShares(),
            'split' => $arrangement->split($act->field('zone')->id(), self::side($act->field('into')), Tracks::parse($act->field('tracks')->text(1, 2000), '/tracks')),
            'join' => $arrangement->joined($zones(2)),
            'equalise' => $arrangement->equalised($zones(2)),
            'align' => $arrangement->aligned($zones(2), self::edge($act->field('edge'))),
            'distribute' => $arrangement->distributed($zones(3), $act->field('way')->oneOf('across', 'down') === 'across'),
            'repeat' => $arrangement->repeated(
                $zones(1),
                $act->field('columns')->int(1, 500),
                $act->field('rows')->int(1, 500),
                $act->field('gap_x')->int(-Size::LONGEST, Size::LONGEST, 'px'),
                $act->field('gap_y')->int(-Size::LONGEST, Size::LONGEST, 'px'),
            ),
            'swap' => $arrangement->swapped($zones(2)[0], $zones(2)[1]),
            default => $arrangement->withBorder(self::side($act->field('between')), $act->field('from')->int(), $act->field('along')->int(), $act->field('to')->int()),
        };
    }

    private function written(Arrangement $arrangement, Node $recipe): Arrangement
    {
        $recipe->object('columns', 'rows', 'gap', 'margin');

        return $arrangement->written(
            Tracks::parse($recipe->field('columns')->text(1, 2000), '/recipe/columns'),
            Tracks::parse($recipe->field('rows')->text(1, 2000), '/recipe/rows'),
            $recipe->field('gap')->int(0, Size::LONGEST, 'px'),
            $recipe->field('margin')->int(0, Size::LONGEST, 'px'),
        );
    }

    /** @return 'columns'|'rows' */
    private static function side(Node $node): string
    {
        return $node->oneOf('columns', 'rows') === 'columns' ? 'columns' : 'rows';
    }

    /** @return 'left'|'centre'|'right'|'top'|'middle'|'bottom' */
    private static function edge(Node $node): string
    {
        $edge = $node->oneOf('left', 'centre', 'right', 'top', 'middle', 'bottom');

        return match ($edge) {
            'left', 'centre', 'right', 'top', 'middle' => $edge,
            default => 'bottom',
        };
    }

    /** @return list<string> */
    private static function zones(Node $node, int $least): array
    {
        $ids = array_map(static fn (Node $id): string => $id->id(), $node->items(1000));

        return count($ids) >= $least ? $ids : throw $node->refused(Reason::ValueRange, sprintf('names %d zones; at least %d are wanted.', count($ids), $least));
    }
}
