<?php

declare(strict_types=1);

namespace UpperPane\App\Panel;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Panel\Panel;

/** An operator's panel: what its keys do, and what stands because of them. */
final readonly class PanelController
{
    /** Of what comes with a signal. */
    private const MOST_FIELDS = 60;
    private const LONGEST = 2_000;

    public function __construct(private Designs $designs, private Displays $displays, private PanelTold $told, private PutOnDisplay $put, private AskDisplay $ask)
    {
    }

    #[Route('/api/panels/{id}/told', methods: ['GET'])]
    #[Needs(Right::HandOver)]
    public function told(string $id): JsonResponse
    {
        return new JsonResponse($this->told->of($this->panel($id)));
    }

    /** What a key does: it asks its display for a signal, or puts something on it. */
    #[Route('/api/panels/{id}/press', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function press(string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('id', 'key', 'row');
        $panel = $this->panel($id);
        $name = $body->field('key');
        $key = $panel->keys[$name->id()] ?? throw $name->refused(Reason::RefUnknown, sprintf('is "%s", no key of this panel.', $name->id()));
        $display = $this->displays->one($key->display);
        if ($key->signal === null) {
            return new JsonResponse($this->put->put($key, $display)->toArray(), 202);
        }
        $own = $body->field('id');
        if (preg_match('/^[0-9a-z]{26}$/D', $own->text(1, 40)) !== 1) {
            throw $own->refused(Reason::ValueRange, 'is no id of 26 small letters and figures.');
        }
        $row = $body->given('row');
        $this->ask->of($own->text(1, 40), $panel, $display, $key->signal, $row === null ? null : self::row($row));

        return new JsonResponse(null, 204);
    }

    /** Back to the programme. */
    #[Route('/api/panels/{id}/back', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function back(string $id, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('display', 'zone');
        $panel = $this->panel($id);
        $display = $body->field('display');
        $isOfPanel = array_filter($panel->keys, static fn ($key): bool => $key->display === $display->id()) !== [];

        return $isOfPanel
            ? new JsonResponse($this->put->back($this->displays->one($display->id()), $body->given('zone')?->id())->toArray(), 202)
            : throw new Problem(409, 'panel.other', 'No key of this panel is for that display.');
    }

    /**
     * @return array<string, string|int|float|bool|null>
     * @throws Refused
     */
    private static function row(Node $node): array
    {
        $row = [];
        foreach ($node->members(self::MOST_FIELDS) as $name => $value) {
            $row[(string) $name] = match (true) {
                is_string($value->value) => $value->text(0, self::LONGEST),
                is_scalar($value->value), $value->value === null => $value->value,
                default => throw $value->refused(Reason::TypeWrong, 'is no text, figure or truth value.'),
            };
        }

        return $row;
    }

    private function panel(string $id): Panel
    {
        return Panel::fromArray($this->designs->of(DesignKind::Panel, $id)->document);
    }
}
