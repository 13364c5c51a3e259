<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\HouseStyles;
use UpperPane\App\Layout\MakeDesign;
use UpperPane\App\Layout\Pictures;
use UpperPane\App\Layout\StyleForm;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Style\FoundStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Type\TextStyle;

/** House styles: what their names mean, what can be read on what, what a change reaches, and one made from a layout. */
final readonly class StyleController
{
    public function __construct(
        private Designs $designs,
        private Displays $displays,
        private HouseStyles $styles,
        private StyleForm $form,
        private StyleReach $reach,
        private Surroundings $surroundings,
    ) {
    }

    /** The one in force for what is designed: on a display, else at the first place; sizes on a canvas. */
    #[Route('/api/house-style', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function inForce(Request $request): JsonResponse
    {
        $asked = $request->query;
        $display = $asked->getString('display') === '' ? null : $this->displays->find($asked->getString('display'));
        $around = $this->styles->on($this->surroundings, $display);

        return new JsonResponse(self::told($around->styles, $around, self::canvas($asked->getInt('width'), $asked->getInt('height'))));
    }

    /** What a style says that is being worked on. */
    #[Route('/api/styles/look', methods: ['POST'], priority: 1)]
    #[Needs(Right::Design)]
    public function look(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'display', 'width', 'height');
        $styles = $this->form->styles(Body::document($body->field('document')));
        $id = $body->given('display')?->id();
        $around = $this->styles->on($this->surroundings, $id === null ? null : $this->displays->one($id))->styled($styles);
        $canvas = self::canvas($body->given('width')?->int(1, Size::LONGEST) ?? 0, $body->given('height')?->int(1, Size::LONGEST) ?? 0);

        return new JsonResponse(self::told($styles, $around, $canvas) + ['contrasts' => $styles->contrasts()]);
    }

    /** What saving it would reach, and what the checks would say then. */
    #[Route('/api/styles/{id}/reach', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function reach(string $id, Request $request): JsonResponse
    {
        $style = $this->designs->of(DesignKind::Style, $id);

        return new JsonResponse($this->reach->of($style, $this->written($style, Body::of($request)->object('document'))));
    }

    /** One of the layouts that it reaches, before and after. */
    #[Route('/api/styles/{id}/reach/{layout}', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function pictures(string $id, string $layout, Request $request, Pictures $pictures): JsonResponse
    {
        $style = $this->designs->of(DesignKind::Style, $id);
        $document = $this->written($style, Body::of($request)->object('document'));
        [$before, $after] = $this->reach->pictures($style, $document, $this->designs->played('layout', $layout) ?? throw Problem::notFound('This layout'));
        $picture = static fn (?Composed $one): ?array => $one === null ? null : $pictures->of($one, isOfNow: true);

        return new JsonResponse(['before' => $picture($before), 'after' => $picture($after)]);
    }

    /** A style of what a layout has without saying so. */
    #[Route('/api/styles/of/{layout}', methods: ['POST'], priority: 1)]
    #[Needs(Right::Design)]
    public function ofLayout(string $layout, Request $request, MakeDesign $make): JsonResponse
    {
        $body = Body::of($request)->object('name');
        $found = FoundStyle::in(Layout::fromArray($this->designs->of(DesignKind::Layout, $layout)->document));
        $made = $make->of(DesignKind::Style, $body->field('name')->name(), $found->fields(), null, null);

        return new JsonResponse(['id' => $made->id, 'colours' => count($found->colours), 'faces' => count($found->faces), 'sizes' => count($found->sizes), 'near' => $found->near], 201);
    }

    /**
     * @return array<string, mixed>
     * @throws Refused
     */
    private function written(Design $style, Node $body): array
    {
        $document = ['format' => $style->kind->format(), 'id' => $style->id] + Body::document($body->field('document'));
        $this->form->styles($document);

        return $document;
    }

    private static function canvas(int $width, int $height): Size
    {
        return $width < 1 || $height < 1 ? Size::px(1920, 1080) : Size::px(min($width, Size::LONGEST), min($height, Size::LONGEST));
    }

    /** @return array<string, mixed> what each name means, and which style says so */
    private static function told(Styles $styles, Surroundings $around, Size $canvas): array
    {
        $styling = Styling::on($canvas, $around->styled($styles));
        $from = static fn (string $sort, string $name): array => ['from' => match ($sort) {
            'colours' => $styles->from('colours', $name)?->id,
            'faces' => $styles->from('faces', $name)?->id,
            'sizes' => $styles->from('sizes', $name)?->id,
            default => $styles->from('marks', $name)?->id,
        }];
        $told = ['id' => $styles->rules()?->id, 'name' => $styles->rules()?->name, 'colours' => [], 'faces' => [], 'sizes' => [], 'marks' => []];
        foreach ($styles->names('colours') as $name) {
            $told['colours'][] = ['name' => $name, 'hex' => $styles->colour($name)?->hex] + $from('colours', $name);
        }
        foreach ($styles->names('faces') as $name) {
            $told['faces'][] = ['name' => $name, 'family' => $styles->face($name)?->family, 'weight' => $styles->face($name)?->weight] + $from('faces', $name);
        }
        foreach ($styles->names('sizes') as $name) {
            $size = $styles->size($name);
            $told['sizes'][] = ['name' => $name, 'unit' => $size?->unit, 'value' => $size?->value, 'px' => $styling->sizePx($name, TextStyle::FAMILY, TextStyle::WEIGHT, '')] + $from('sizes', $name);
        }
        foreach ($styles->names('marks') as $name) {
            $told['marks'][] = ['name' => $name, 'media' => $styles->mark($name)?->toArray()] + $from('marks', $name);
        }

        return $told;
    }
}
