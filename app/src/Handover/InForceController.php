<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** In a hurry: notices and takeovers, from now until stated, and ended before; what stands in force. */
final readonly class InForceController
{
    /** Longer is read by nobody in passing; a notice of 2,000 characters would cover all of it. */
    private const LONGEST = 2_000;

    public function __construct(private InForce $inForce, private PutUp $putUp, private LookAbove $look, private Targets $targets, private Designs $designs, private Who $who)
    {
    }

    #[Route('/api/in-force', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function all(): JsonResponse
    {
        return new JsonResponse(['in_force' => $this->inForce->all()]);
    }

    /** What is laid above what was handed over, by display: for whoever draws what stands there now. */
    #[Route('/api/in-force/planes', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function planes(): JsonResponse
    {
        return new JsonResponse(['planes' => (object) $this->inForce->planes()]);
    }

    /** Where something can be put up in a hurry, and what is prepared for it. */
    #[Route('/api/in-force/where', methods: ['GET'])]
    #[Needs(Right::FillIn)]
    public function where(HurryWhere $where): JsonResponse
    {
        return new JsonResponse($where->told());
    }

    /** Whether something that was asked for is in force: for whoever got no answer. */
    #[Route('/api/in-force/{id}', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function one(string $id): JsonResponse
    {
        return new JsonResponse($this->inForce->one($id) ?? throw Problem::notFound('This'));
    }

    #[Route('/api/notices', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function notice(Request $request): JsonResponse
    {
        $body = Body::of($request);

        return $this->put($body, $this->noticeOf($body));
    }

    /** How it would look on those of its displays that differ most, and what is found; nothing is done. */
    #[Route('/api/notices/look', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function lookAtNotice(Request $request): JsonResponse
    {
        $body = Body::of($request);

        return new JsonResponse($this->look->of($this->noticeOf($body), $body, $this->targets->named($body)));
    }

    #[Route('/api/takeovers', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function takeover(Request $request): JsonResponse
    {
        $body = Body::of($request);

        return $this->put($body, $this->takeoverOf($body));
    }

    #[Route('/api/takeovers/look', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function lookAtTakeover(Request $request): JsonResponse
    {
        $body = Body::of($request);

        return new JsonResponse($this->look->of($this->takeoverOf($body), $body, $this->targets->named($body)));
    }

    #[Route('/api/notices/{id}/end', methods: ['POST'])]
    #[Needs(Right::FillIn)]
    public function endNotice(string $id): JsonResponse
    {
        return $this->ended($id, 'notice');
    }

    #[Route('/api/takeovers/{id}/end', methods: ['POST'])]
    #[Needs(Right::HandOver)]
    public function endTakeover(string $id): JsonResponse
    {
        return $this->ended($id, 'takeover');
    }

    /** @param array<string, mixed> $fields */
    private function put(Node $body, array $fields): JsonResponse
    {
        $id = $body->field('id');
        if (preg_match('/^[0-9a-z]{26}$/D', $id->text(1, 40)) !== 1) {
            throw $id->refused(Reason::ValueRange, 'is no id of 26 small letters and figures.');
        }

        return new JsonResponse($this->putUp->of($id->text(1, 40), $fields, $body, $this->targets->named($body)), 201);
    }

    /**
     * @return array<string, mixed>
     * @throws Refused
     */
    private function noticeOf(Node $body): array
    {
        $body->object('id', 'text', 'place', 'displays', 'places', 'for_min', 'until');
        $text = $body->field('text')->text(1, self::LONGEST);

        return trim($text) === ''
            ? throw $body->field('text')->refused(Reason::ValueRange, 'says nothing.')
            : ['kind' => 'notice', 'text' => $text] + (($place = $body->optional('place')) === null ? [] : ['place' => $place->text(1, 40)]);
    }

    /**
     * What takes over: one that was prepared, or what it plays.
     *
     * @return array<string, mixed>
     * @throws Refused
     */
    private function takeoverOf(Node $body): array
    {
        $body->object('id', 'overlay', 'plays', 'reason', 'displays', 'places', 'for_min', 'until');
        $prepared = $body->optional('overlay');
        $fields = ['fit' => 'contain'];
        if ($prepared !== null) {
            $document = $this->designs->of(DesignKind::Overlay, $prepared->id())->document;
            if (($document['kind'] ?? null) !== 'takeover') {
                throw $prepared->refused(Reason::ValueUnknown, 'is no takeover.');
            }
            $fields = array_diff_key($document, ['format' => 1, 'id' => 1, 'created' => 1, 'when' => 1]);
        }
        $plays = $prepared === null ? $body->field('plays') : $body->optional('plays');

        return ['kind' => 'takeover', 'reason' => $body->field('reason')->name(500)] + ($plays === null ? [] : ['plays' => $plays->fields()]) + $fields;
    }

    private function ended(string $id, string $kind): JsonResponse
    {
        $one = $this->inForce->kind($id) === $kind ? $this->inForce->one($id) : null;
        if ($one === null) {
            throw Problem::notFound("This $kind");
        }
        // Whoever ends it ends it everywhere: so all of it is hers, or she has put it up.
        if ($one['begun_by'] !== $this->who->login() && $one['displays'] !== $this->inForce->displays($id)) {
            throw new Problem(409, 'in-force.wider', 'It also stands at places that are not yours; whoever put it up, or who has the right there, can end it.');
        }
        $this->putUp->end($id);

        return new JsonResponse($this->inForce->one($id));
    }
}
