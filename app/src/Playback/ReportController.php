<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Units\Instant;

/** What players say of themselves; the secret of their address is their pass. */
final readonly class ReportController
{
    public function __construct(private Reports $reports)
    {
    }

    #[Route('/api/play/{secret}/report', methods: ['POST'])]
    public function report(string $secret, Request $request): JsonResponse
    {
        $body = Body::of($request)->object('release', 'since', 'trouble', 'output', 'build', 'every_s');
        $given = static function (string $field) use ($body): ?Node {
            $node = $body->optional($field);

            return $node === null || $node->value === null ? null : $node;
        };
        $body->field('release');
        $since = $given('since');
        $trouble = $given('trouble');
        $isKnown = $this->reports->hear($secret, [
            'release' => $given('release')?->text(64, 64),
            'since' => $since === null ? null : (string) Instant::ofMs(1000 * intdiv(Instant::parse($since->text(), '/since')->ms, 1000)),
            'trouble' => $trouble === null ? null : mb_strimwidth($trouble->text(0, 2000), 0, 300, '...'),
            'output' => $given('output')?->int(1, 64),
            'build' => $given('build')?->text(1, 64),
            'every_s' => $given('every_s')?->int(1, 3600, 's'),
        ]);

        return $isKnown ? new JsonResponse(null, 204) : throw Problem::notFound('This player');
    }
}
