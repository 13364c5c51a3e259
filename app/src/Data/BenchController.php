<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Contracts\HttpClient\Exception\ExceptionInterface;
use Symfony\Contracts\HttpClient\HttpClientInterface;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** The Bench's feeds (stand-ins/feeds.php): what each is told to do. They are no part of the desk, and are asked as anybody would. */
final readonly class BenchController
{
    private const PATIENCE_S = 5;

    public function __construct(private HttpClientInterface $client, #[Autowire('%env(UPPER_PANE_FEEDS)%')] private string $feeds)
    {
    }

    #[Route('/api/bench', methods: ['GET'])]
    #[Needs(Right::Design)]
    public function show(): JsonResponse
    {
        return new JsonResponse(['feeds' => $this->asked('GET', null), 'address' => $this->feeds]);
    }

    /** Tells a feed to be well, or to misbehave. */
    #[Route('/api/bench', methods: ['PUT'])]
    #[Needs(Right::Design)]
    public function tell(Request $request): JsonResponse
    {
        $feeds = Body::of($request)->object('feeds')->field('feeds');
        $told = array_map(static fn (Node $one): string => $one->text(1, 40), $feeds->members(50));

        return new JsonResponse(['feeds' => $this->asked('PUT', $told) ?? throw $feeds->refused(Reason::ValueUnknown, 'names a feed or a switch that there is not.'), 'address' => $this->feeds]);
    }

    /**
     * @param ?array<string, string> $told
     * @return ?array<mixed> null where they do not know what they are told
     */
    private function asked(string $method, ?array $told): ?array
    {
        try {
            $response = $this->client->request($method, "$this->feeds/switches", ['timeout' => self::PATIENCE_S, 'max_redirects' => 0] + ($told === null ? [] : ['json' => $told]));

            return $response->getStatusCode() === 422 ? null : $response->toArray();
        } catch (ExceptionInterface) {
            throw new Problem(503, 'bench.away', 'The feeds of the Bench do not answer; bin/start starts them.');
        }
    }
}
