<?php

declare(strict_types=1);

namespace UpperPane\App\Estate;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;

/** The tree of places with all displays, as the stations of the desk need it; and how many need somebody, which every page of it shows. */
final readonly class EstateController
{
    private const JSON = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE;

    public function __construct(private EstateReading $estate, private ClockInterface $clock)
    {
    }

    /** All of it, or with `search`, `place`, `orientation` and `kind` (`panel` or `wall`) what fits. Whoever has it already is told that nothing changed. */
    #[Route('/api/estate', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(Request $request): Response
    {
        return self::answer($request, $this->estate->of(EstateFilter::of($request), $this->nowMs()));
    }

    /** How many displays there are, and how many of them stand how. */
    #[Route('/api/estate/counts', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function counts(Request $request): Response
    {
        $all = $this->estate->of(EstateFilter::of($request), $this->nowMs());
        /** @var list<array{standing: int, older?: true}> $displays */
        $displays = $all['displays'];
        /** @var list<array{state: string}> $standings */
        $standings = $all['standings'];

        return self::answer($request, [
            'of' => $all['of'],
            'older' => count(array_filter($displays, static fn (array $display): bool => isset($display['older']))),
            'standing' => (object) array_count_values(array_map(static fn (array $display): string => $standings[$display['standing']]['state'], $displays)),
        ]);
    }

    /** @param array<string, mixed> $body */
    private static function answer(Request $request, array $body): Response
    {
        $json = json_encode($body, self::JSON);
        $response = JsonResponse::fromJsonString($json);
        $response->setEtag(hash('xxh128', $json), true);
        $response->headers->set('Cache-Control', 'private, no-cache');
        $response->isNotModified($request);

        return $response;
    }

    private function nowMs(): int
    {
        return (int) $this->clock->now()->format('Uv');
    }
}
