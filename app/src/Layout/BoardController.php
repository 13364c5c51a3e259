<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Body;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\MediaAssets;
use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Data\Rows\ChosenRows;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Layout\Kind\Board\ReadyBoards;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Units\UtcOffsets;

/** Boards to begin with. */
final readonly class BoardController
{
    public function __construct(private Feeding $feeding, private MediaAssets $media, private ClockInterface $clock)
    {
    }

    /** What there is to begin with; and what one of them is in a box, with the rows of a source as they are by now. */
    #[Route('/api/boards/ready', methods: ['GET'])]
    #[Needs(Right::Design)]
    public function names(): JsonResponse
    {
        return new JsonResponse(['ready' => ReadyBoards::NAMES]);
    }

    #[Route('/api/boards/ready', methods: ['POST'])]
    #[Needs(Right::Design)]
    public function ready(Request $request): JsonResponse
    {
        $body = Body::of($request)->object('ready', 'rows', 'rect', 'ground', 'timezone');
        $name = $body->field('ready')->oneOf(...array_keys(ReadyBoards::NAMES));
        $given = $body->field('rows');
        $rows = Rows::fromNode($given);
        $now = (int) $this->clock->now()->format('Uv');
        $inTime = $this->feeding->now($now)->rows($rows, ($zone = $body->given('timezone')) ? UtcOffsets::name($zone) : 'UTC')
            ?? throw $given->field('source')->refused(Reason::DataUnknown, sprintf('is "%s", and there is no source of that id.', $rows->source));
        // What a field tells one sees of any row, also where none is chosen just now.
        $chosen = $inTime->at($now);
        $some = $chosen->rows === [] ? new ChosenRows(0, array_slice($inTime->rows(), 0, 50), []) : $chosen;

        return new JsonResponse(['fields' => ReadyBoards::of(
            $name,
            $given->fields(),
            $inTime->table($now)->names,
            $some,
            Rect::fromNode($body->field('rect')),
            ($ground = $body->given('ground')) ? Colour::fromNode($ground) : Colour::black(),
            $this->standby(),
        )]);
    }

    /** The picture that was brought in last stands there until another is chosen. */
    private function standby(): ?Media
    {
        foreach ($this->media->all() as $asset) {
            $media = $asset->state === MediaAsset::READY ? $asset->media() : null;
            if ($media !== null && !$media->isFilm()) {
                return $media;
            }
        }

        return null;
    }
}
