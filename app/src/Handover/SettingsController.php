<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\ChangeSettings;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\Places;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Body;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Setting\Resolved;
use UpperPane\Core\Setting\Settings;

/** Settings of places and displays: what each states, what holds there, where it comes from, and what a change would reach. */
final readonly class SettingsController
{
    public function __construct(private Places $places, private Displays $displays, private Designs $designs)
    {
    }

    /** All places with what they state and what holds in them; displays that state something themselves; how many displays lie in each. */
    #[Route('/api/settings', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function all(): JsonResponse
    {
        [$places, $displays] = [[], []];
        foreach ($this->displays->stating() as $display) {
            $displays[] = ['id' => $display->id, 'name' => $display->about()->name, 'place' => $display->place->id] + self::told($display->settings, $display->resolved());
        }
        $all = $this->places->all();
        $count = $this->displays->countsWithin($all);
        foreach ($all as $place) {
            $places[] = ['id' => $place->id, 'name' => $place->name, 'parent' => $place->parent?->id, 'way' => $place->way(), 'displays' => $count[$place->id] ?? 0]
                + self::told($place->settings, $place->resolved());
        }

        return new JsonResponse(['places' => $places, 'displays' => $displays, 'timezones' => \DateTimeZone::listIdentifiers()]);
    }

    #[Route('/api/{kind}/{id}/settings', methods: ['GET'], requirements: ['kind' => 'places|displays'])]
    #[Needs(Right::Look)]
    public function at(string $kind, string $id): JsonResponse
    {
        $at = $this->one($kind, $id);

        return new JsonResponse(self::told($at->settings, $at->resolved()));
    }

    /** States one, or leaves it to what comes from above (null). */
    #[Route('/api/{kind}/{id}/settings', methods: ['PUT'], requirements: ['kind' => 'places|displays'])]
    #[Needs(Right::Design)]
    public function change(string $kind, string $id, Request $request, ChangeSettings $change): JsonResponse
    {
        $at = $this->one($kind, $id);
        [$name, $value] = $this->asked($request);
        $change->of($at, $name, $value);

        return new JsonResponse(self::told($at->settings, $at->resolved()));
    }

    /** On which displays something else would hold then, and what stands there, before and after; nothing is done. */
    #[Route('/api/{kind}/{id}/settings/reach', methods: ['POST'], requirements: ['kind' => 'places|displays'])]
    #[Needs(Right::Design)]
    public function reach(string $kind, string $id, Request $request, SettingsReach $reach): JsonResponse
    {
        $at = $this->one($kind, $id);
        [$name, $value] = $this->asked($request);

        return new JsonResponse(['displays' => $reach->of($at, $name, $value)]);
    }

    /** What stands on one of them, before and after. */
    #[Route('/api/{kind}/{id}/settings/reach/{display}', methods: ['POST'], requirements: ['kind' => 'places|displays'])]
    #[Needs(Right::Design)]
    public function pictures(string $kind, string $id, string $display, Request $request, SettingsReach $reach): JsonResponse
    {
        $at = $this->one($kind, $id);
        [$name, $value] = $this->asked($request);

        return new JsonResponse($reach->pictures($at, $name, $value, $this->displays->one($display)));
    }

    private function one(string $kind, string $id): Place|SurveyedDisplay
    {
        return $kind === 'places' ? $this->places->one($id) : $this->displays->one($id);
    }

    /**
     * @return array{string, Node}
     * @throws Refused
     */
    private function asked(Request $request): array
    {
        $body = Body::of($request)->object('setting', 'value');
        $name = $body->field('setting')->text(1, 200);
        if (!Settings::knows($name)) {
            throw $body->field('setting')->refused(Reason::ValueUnknown, sprintf('is "%s", which is no setting.', mb_strimwidth($name, 0, 80, '…')));
        }
        $value = $body->field('value');
        if ($name === Settings::STYLE && $value->value !== null && $this->designs->find($value->id())?->kind !== DesignKind::Style) {
            throw $value->refused(Reason::RefUnknown, sprintf('is "%s", and there is no house style of that id.', $value->id()));
        }
        $listed = $name === Settings::TRIGGERS ? DesignKind::Trigger : DesignKind::Overlay;
        foreach (in_array($name, Settings::LISTS, true) && is_array($value->value) ? $value->members() : [] as $list) {
            foreach (is_array($list->value) ? $list->items() : [] as $id) {
                $this->designs->find($id->id())?->kind === $listed
                    ?: throw $id->refused(Reason::RefUnknown, sprintf('is "%s", and there is no %s of that id.', $id->id(), $listed->value));
            }
        }
        if ($name === Settings::STANDBY && is_array($value->value)) {
            foreach ($value->members() as $kind => $ref) {
                $kind === 'media' || $this->designs->find($ref->id())?->kind->value === $kind
                    ?: throw $ref->refused(Reason::RefUnknown, sprintf('is "%s", and there is no %s of that id.', $ref->id(), $kind));
            }
        }

        return [$name, $value];
    }

    /**
     * @param array<string, mixed> $settings
     * @return array{settings: object, resolved: object}
     */
    private static function told(array $settings, Resolved $resolved): array
    {
        return ['settings' => (object) $settings, 'resolved' => (object) $resolved->toArray()];
    }
}
