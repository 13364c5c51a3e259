<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Layout\Template\Sample;
use UpperPane\Core\Layout\Template\Slot;
use UpperPane\Core\Layout\Told\Speaking;

/** Templates: what they look like before anybody fills them in, and what the core says of what is being filled in, saved or not. */
final readonly class FillingController
{
    public function __construct(
        private DesignLibrary $library,
        private Designs $designs,
        private Displays $displays,
        private HouseStyles $styles,
        private Pictures $pictures,
        private PlaysRowByRow $rowByRow,
        private Surroundings $surroundings,
        private Feeding $feeding,
        private ClockInterface $clock,
    ) {
    }

    /** On a display, or by itself: what is seen there, what is wrong with it, and for how much more there is room. */
    #[Route('/api/filling', methods: ['POST'])]
    #[Needs(Right::Look)]
    public function look(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'display', 'language');
        $document = Body::document($body->field('document'));
        $this->designs->reaches($document);
        $id = $body->given('display')?->id();
        $language = $body->given('language')?->text(1, 80);
        $surroundings = $this->around($id);
        [$filling, $told] = $this->seen($document, $surroundings);
        // Whatever language is looked at, what is wrong in another one is told.
        $spoken = new Speaking($language, $surroundings->speaking->languages, $surroundings->speaking->vars);
        [, $seen] = $language === null ? [$filling, $told] : $this->seen($document, $surroundings->speaking($spoken));
        $match = $surroundings->display === null ? null : Matching::of($seen->canvas, $surroundings->display->raster());

        return new JsonResponse($filling->looked($told, $surroundings)->toArray() + [
            'room' => (object) array_map(static fn (array $room): object => (object) $room, $filling->room($surroundings)),
            'slots' => self::slots($filling->template, $seen),
            'template' => ['id' => $filling->template->id, 'name' => $filling->template->name, 'newest' => $this->designs->find($filling->template->id)?->revision],
            'match' => $match?->toArray(),
        ] + $this->pictures->of($seen, $surroundings->timezone));
    }

    /**
     * @param array<string, mixed> $document
     * @return array{Filling, Composed}
     */
    private function seen(array $document, Surroundings $surroundings): array
    {
        $composer = $this->library->seen($surroundings)->composer($document);
        $filling = $composer->filling(Filled::fromArray($document));
        $layout = $filling->layout($surroundings->speaking);
        [$composer] = $this->rowByRow->composer($layout->id, $composer);
        $composed = $composer->layout($layout);

        return [$filling, $surroundings->display === null ? $composed : $composed->for($surroundings->display->raster())];
    }

    /** A template with its defaults, with the least and with the most that can be filled in, in one of its variants. */
    #[Route('/api/templates/{sample}', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function sample(string $sample, Request $request): JsonResponse
    {
        $sample = Sample::tryFrom($sample) ?? throw Problem::notFound('This sample');
        $body = Body::of($request)->object('document', 'variant', 'display');
        $document = Body::document($body->field('document'));
        $variant = $body->given('variant')?->id();
        $template = Layout::fromArray($document);
        $surroundings = $this->around($body->given('display')?->id());
        $filling = Filling::sample($template, $sample, $surroundings, $variant);
        $layout = $filling->layout($surroundings->speaking);
        $composed = $this->library->seen($surroundings)->composer($document)->layout($layout);

        return new JsonResponse($filling->looked($composed, $surroundings)->toArray() + $this->pictures->of($composed, $surroundings->timezone, isOfNow: true));
    }

    private function around(?string $display): Surroundings
    {
        $now = (int) $this->clock->now()->format('Uv');

        return $this->styles->on($this->surroundings->at($now)->fed($this->feeding->now($now)), $display === null ? null : $this->displays->one($display));
    }

    /** @return list<array<string, mixed>> as they stand in the template, each with where its element is seen */
    private static function slots(Layout $template, Composed $seen): array
    {
        /** @var list<array<string, mixed>> $given */
        $given = $template->toArray()['slots'] ?? [];

        return array_map(static fn (array $told, Slot $slot): array => $told + [
            'places' => array_values(array_filter(array_map(static fn (string $id): ?array => $seen->element($id)?->rect()->toArray(), $slot->elements()))),
        ], $given, $template->slots);
    }
}
