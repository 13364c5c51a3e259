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
use UpperPane\Core\Data\Stress;
use UpperPane\Core\Data\Tree\Trees;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Arrange\Arrangement;
use UpperPane\Core\Layout\Arrange\Border;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Described;
use UpperPane\Core\Layout\Division\Sum;
use UpperPane\Core\Layout\Division\Sums;
use UpperPane\Core\Layout\Kind\Board\Boards;
use UpperPane\Core\Layout\Kind\Zone\PlayingZone;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Matching;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Slots;
use UpperPane\Core\Layout\Type\AsSeen;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Text\TimePattern;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\TypedFigure;
use UpperPane\Core\Units\UtcOffsets;

/** Everything the core says about a layout that is being worked on, saved or not. */
final readonly class AnalysisController
{
    public function __construct(
        private DesignLibrary $library,
        private Displays $displays,
        private Pictures $pictures,
        private Surroundings $surroundings,
        private Feeding $feeding,
        private PlaysRowByRow $rowByRow,
        private HouseStyles $styles,
        private ClockInterface $clock,
    ) {
    }

    /** Looked at from `at` on, or from now; cures are asked for apart (cures). With `"light": true` without timing and pictures, for a hand that moves things about: neither changes by that. */
    #[Route('/api/analysis', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function analyse(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'variant', 'display', 'light', 'at', 'stress');
        // What goes beyond a bound is told beside all else, so that it can be made smaller.
        $written = self::written($body);
        $surroundings = $this->surroundings($body);
        [$composer, $over] = $this->rowByRow->composer($written->id, $this->library->seen($surroundings)->composer($written->toArray()));
        [$layout, $beyond] = $composer->bounded($written);
        $display = $surroundings->display;

        $match = $display === null ? null : Matching::of($layout->canvas, $display->raster());

        $mmPerPx = $display === null ? null : $match?->mmPerCanvasPx($display->pxPerMm());
        $subject = Subject::of($layout, $surroundings);
        $said = Checks::of($subject)->withoutCures()->and($beyond)->toArray() + [
            'match' => $match?->toArray(),
            'mm_per_px' => $mmPerPx,
            'sums' => array_map(static fn (Sum $sum): array => $sum->toArray() + ['behind_frames' => $subject->behindFrames($sum)], Sums::of($subject->layout)),
            'says' => (object) ($surroundings->faces === null ? [] : Described::of($layout, $surroundings->faces, $mmPerPx)),
            'shares' => (object) $layout->shares(),
            'arguments' => (object) Slots::arguments($written->elements),
            'boards' => (object) Boards::told($layout, $surroundings),
            'told_over' => $over,
            'borders' => array_map(static fn (Border $border): array => $border->toArray(), Arrangement::borders($layout)),
            'tracks' => $layout->recipe?->edges($layout->canvas) ?? ['columns' => [], 'rows' => []],
        ];
        if ($body->optional('light')?->bool() === true) {
            return new JsonResponse($said);
        }

        return new JsonResponse($said + [
            'playing' => (object) array_map(static fn (PlayingZone $zone): array => $zone->playing($layout->loops[$zone->id()]), $layout->zones),
            'loops' => (object) array_map(static fn ($loop): ?int => $loop->periodMs, $layout->loops),
            'meets_every_ms' => $layout->meetsEveryMs(),
        ] + $this->pictures->of($layout, $display->timezone ?? 'UTC'));
    }

    /** What is found, each with a cure that has been tried and makes no other finding, if there is one. */
    #[Route('/api/cures', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function cures(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'variant', 'display', 'at', 'stress');
        $layout = self::written($body);
        $surroundings = $this->surroundings($body);
        [$composer] = $this->rowByRow->composer($layout->id, $this->library->seen($surroundings)->composer($layout->toArray()));
        [$composed, $beyond] = $composer->bounded($layout);
        $found = $beyond === [] ? Checks::curing($layout, $composed, $composer, $surroundings) : Checks::run($composed, $surroundings)->withoutCures()->and($beyond);

        return new JsonResponse($found->toArray());
    }

    /** A figure as designers type it, in px of the canvas. */
    #[Route('/api/figure', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function figure(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('text', 'side_px', 'mm_per_px');
        $mm = $body->given('mm_per_px')?->positive('mm');

        return new JsonResponse(['px' => TypedFigure::px($body->field('text')->text(0, 200), $body->field('side_px')->int(1, Size::LONGEST, 'px'), $mm)]);
    }

    /** What a clock says at an instant: so that a pattern is looked at before it is taken. */
    #[Route('/api/clock', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function clock(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('pattern', 'locale', 'timezone', 'until', 'at');
        $at = Instant::parse($body->field('at')->text(), '/at')->ms;
        $locale = ($language = $body->optional('locale')) ? TimePattern::locale($language) : 'en';
        $until = ($end = $body->optional('until')) ? Instant::parse($end->text(), '/until')->ms : null;
        $timezone = ($zone = $body->optional('timezone')) ? UtcOffsets::name($zone) : 'UTC';
        $pattern = $body->field('pattern');

        return new JsonResponse(['says' => $until === null
            ? TimePattern::ofClock($pattern, $locale)->at($at + UtcOffsets::of($timezone)->at($at))
            : TimePattern::ofTimeLeft($pattern, $locale)->left($until - $at)]);
    }

    /** As viewers see it: its size from where they stand, the angle and the contrast of each text. */
    #[Route('/api/as-seen', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function asSeen(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'variant', 'display');

        $surroundings = $this->surroundings($body);

        return new JsonResponse(AsSeen::of($this->layout($body, $surroundings), $surroundings));
    }

    /** The tide table of a span. */
    #[Route('/api/timeline', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function timeline(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'variant', 'from', 'to');
        $from = Instant::parse($body->field('from')->text(), '/from')->ms;
        $to = Instant::parse($body->field('to')->text(), '/to')->ms;
        if ($to < $from || $to - $from > 86_400_000) {
            throw $body->field('to')->refused(Reason::ValueRange, 'lies before "from", or more than a day behind it.');
        }

        return new JsonResponse(Timeline::of($this->layout($body), $from, $to));
    }

    #[Route('/api/shown', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function shown(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('document', 'variant', 'at');
        $at = Instant::parse($body->field('at')->text(), '/at')->ms;

        return new JsonResponse(ShownAt::of(Programme::endless($this->layout($body)), $this->surroundings)->at($at)->toArray());
    }

    private function layout(Node $body, ?Surroundings $surroundings = null): Composed
    {
        $layout = self::written($body);
        $library = $surroundings === null ? $this->library : $this->library->seen($surroundings);

        return $library->composer($layout->toArray())->layout($layout);
    }

    /** The layout that is asked about: itself, or one of its variants. */
    private static function written(Node $body): Layout
    {
        $layout = Layout::fromArray(Body::document($body->field('document')));
        $variant = $body->given('variant')?->id();

        return $variant === null ? $layout : $layout->seenAs($variant);
    }

    /** Seen on the display that is asked about, if one is, at the instant that is asked about, or now. */
    private function surroundings(Node $body): Surroundings
    {
        $id = $body->given('display')?->id();
        $display = $id === null ? null : $this->displays->one($id);
        $at = $body->optional('at');

        $now = (int) $this->clock->now()->format('Uv');
        $atMs = $at === null ? $now : Instant::parse($at->text(), '/at')->ms;
        $feeds = $this->feeding->now($now);
        $stress = $body->given('stress');
        $seen = match (true) {
            $stress === null => $feeds,
            is_int($stress->value) => $feeds->from($stress->int(1, Trees::MOST_ROWS), $atMs),
            default => $feeds->under(Stress::from($stress->oneOf(...array_column(Stress::cases(), 'value'))), $atMs),
        };

        return $this->styles->on($this->surroundings->at($atMs)->fed($seen), $display);
    }
}
