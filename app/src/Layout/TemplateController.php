<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;

/** A template and all that is filled into it: who goes by which of its revisions, and what a newer one would do to them. */
final readonly class TemplateController
{
    /** So many are taken over in one act. */
    private const MOST = 2_000;

    public function __construct(private Designs $designs, private TakeOver $takeOver, private DesignLibrary $library, private HouseStyles $styles, private Surroundings $surroundings)
    {
    }

    #[Route('/api/layouts/{id}/filled', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function filled(string $id, Showing $showing): JsonResponse
    {
        $template = $this->designs->of(DesignKind::Layout, $id);
        $standing = $showing->standing();

        return new JsonResponse(['filled' => array_map(static fn (Design $one): array => [
            'id' => $one->id,
            'name' => $one->name,
            'revision' => $one->revision,
            'template_revision' => TakeOver::revision($one, $template),
            'is_older' => TakeOver::revision($one, $template) !== $template->revision,
            'displays' => $standing[$one->id]['displays'] ?? 0,
            'saved_at' => $one->savedAt->format('Y-m-d\TH:i:s\Z'),
            'saved_by' => $one->savedBy,
        ], $this->takeOver->filledInto($template))]);
    }

    /** Takes over the template as it is saved by now: all that are named, or none of them. */
    #[Route('/api/layouts/{id}/filled', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function takeOver(string $id, Request $request): JsonResponse
    {
        $ids = array_map(static fn (Node $one): string => $one->id(), Body::of($request)->object('filled')->field('filled')->items(self::MOST));
        $done = $this->takeOver->of($this->designs->of(DesignKind::Layout, $id), array_values(array_unique($ids)));

        return new JsonResponse(['filled' => array_map(static fn (Design $one): array => ['id' => $one->id, 'revision' => $one->revision], $done)]);
    }

    /** What taking over would do to one of them: what it says that no slot takes any more, what is found then and is not by now, and how it looks. */
    #[Route('/api/filled/{id}/newer', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function newer(string $id, Pictures $pictures): JsonResponse
    {
        $filled = $this->designs->of(DesignKind::Filled, $id);
        [$document, $left] = $this->takeOver->newer($filled);
        $around = $this->styles->elsewhere($this->surroundings);
        [$before, $after] = [$this->looked($filled->document, $around, $pictures), $this->looked($document, $around, $pictures)];

        return new JsonResponse([
            'left' => $left,
            'worse' => array_values(array_diff($after['found'], $before['found'])),
            'better' => array_values(array_diff($before['found'], $after['found'])),
            'before' => $before['picture'],
            'after' => $after['picture'],
        ]);
    }

    /**
     * @param array<string, mixed> $document
     * @return array{found: list<string>, picture: ?array<string, mixed>}
     */
    private function looked(array $document, Surroundings $around, Pictures $pictures): array
    {
        try {
            $composer = $this->library->seen($around)->composer($document);
            $filling = $composer->filling(Filled::fromArray($document));
            $composed = $composer->layout($filling->layout($around->speaking));

            return [
                'found' => array_values(array_unique(array_map(static fn (Finding $one): string => $one->message, $filling->looked($composed, $around)->all))),
                'picture' => $pictures->of($composed, isOfNow: true),
            ];
        } catch (Refused $e) {
            return ['found' => [$e->getMessage()], 'picture' => null];
        }
    }
}
