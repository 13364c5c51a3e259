<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Display\Blanking;
use UpperPane\Core\Display\CustomEdid;
use UpperPane\Core\Display\Edid;
use UpperPane\Core\Display\Link;
use UpperPane\Core\Display\Sensor;
use UpperPane\Core\Display\SizeClasses;
use UpperPane\Core\Display\StandardTimings;
use UpperPane\Core\Display\Timing;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Kind\Kinds;

/** What a survey is typed from: labels, EDIDs, classes of sizes, tables. */
final readonly class SurveyController
{
    private const MOST_TOLD = 500;

    public function __construct(private Displays $displays, private BulkSurvey $bulk, private ClockInterface $clock)
    {
    }

    #[Route('/api/survey/sizes', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function sizes(): JsonResponse
    {
        return new JsonResponse([
            'sizes' => SizeClasses::all(),
            'links' => Link::names(),
            'timezones' => \DateTimeZone::listIdentifiers(),
            'columns' => SurveyTable::COLUMNS,
            'kinds' => Kinds::known(),
            'sensors' => Sensor::KINDS,
        ]);
    }

    /** The bytes of an EDID, and what they say. */
    #[Route('/api/survey/edid', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function edid(Request $request): JsonResponse
    {
        $edid = Edid::fromBytes(substr($request->getContent(), 0, 32_768));
        $vics = array_map(static fn (int $vic): ?Timing => StandardTimings::vic($vic), $edid->vics);

        return new JsonResponse($edid->toArray() + [
            'vic_timings' => array_map(static fn (Timing $timing): array => $timing->raster->toArray() + $timing->toArray(), array_values(array_filter($vics))),
        ]);
    }

    /** An EDID of our own for a panel, as the file that a player or a box in its cable takes. */
    #[Route('/api/displays/{id}/panels/{panel}/edid', methods: ['GET'])]
    #[Needs(Right::Survey)]
    public function write(string $id, string $panel): Response
    {
        $display = $this->displays->one($id)->display();
        $placed = $display->wall->panel($panel) ?? throw Problem::notFound('This panel');
        $native = $placed->panel->native;
        if (min($native->width, $native->height) < Timing::LEAST_SIDE) {
            throw new Problem(422, 'edid.range', sprintf('No timing is calculated for %s px; %d px each way are the least.', $native, Timing::LEAST_SIDE));
        }
        $name = substr(trim((string) preg_replace('/[^\x20-\x7E]/', '', $display->isWall() ? "$display->name $panel" : $display->name)), 0, 13);
        $bytes = CustomEdid::bytes(
            Timing::cvt(Size::px($native->width, $native->height), $display->refreshHz, Blanking::Reduced),
            $placed->panel->active,
            $name === '' ? 'Panel' : $name,
            (int) $this->clock->now()->format('Y'),
            $display->bits,
        );

        return new Response($bytes, 200, ['Content-Type' => 'application/octet-stream', 'Content-Disposition' => sprintf('attachment; filename="%s-%s.edid"', $id, $panel)]);
    }

    /** A table of surveys: what it would change, and with `?apply=1` changing it. */
    #[Route('/api/survey/table', methods: ['POST'])]
    #[Needs(Right::Survey)]
    public function table(Request $request): JsonResponse
    {
        $table = SurveyTable::read($request->getContent());
        $preview = $this->bulk->preview($table);
        $apply = $request->query->getBoolean('apply');
        if ($apply) {
            $this->bulk->apply($preview['changes']);
        }
        $new = count(array_filter($preview['changes'], static fn (array $change): bool => $change['known'] === null));

        return new JsonResponse([
            'applied' => $apply,
            'encoding' => $table->encoding,
            'separator' => [',' => 'commas', ';' => 'semicolons', "\t" => 'tabs'][$table->separator] ?? $table->separator,
            'new' => $new,
            'changed' => count($preview['changes']) - $new,
            'unchanged' => $preview['unchanged'],
            'bad' => $preview['bad'],
            'changes' => array_map(
                static fn (array $change): array => ['line' => $change['line'], 'id' => $change['id'], 'name' => $change['name'], 'place' => $change['place']->name, 'changes' => $change['changes']],
                array_slice($preview['changes'], 0, self::MOST_TOLD),
            ),
        ]);
    }
}
