<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Http\Body;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Playback\Report\Report;

/** What players say of themselves; the secret of their address is their pass. */
final readonly class ReportController
{
    public function __construct(private Reports $reports)
    {
    }

    #[Route('/api/play/{secret}/report', methods: ['POST'])]
    #[Needs(null)]
    public function report(string $secret, Request $request): JsonResponse
    {
        $isKnown = $this->reports->hear($secret, Report::read(Body::of($request)));

        return $isKnown ? new JsonResponse(null, 204) : throw Problem::notFound('This player');
    }
}
