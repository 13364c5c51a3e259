<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Display\Displays;
use UpperPane\App\Http\Download;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Csv;
use UpperPane\Core\Playback\Report\Machine;
use UpperPane\Core\Playback\Report\Seen;
use UpperPane\Core\Units\Instant;

/** What was really seen on a display, and what its players say of themselves. */
final readonly class SeenController
{
    public function __construct(private Displays $displays, private Players $players, private SeenThings $seen)
    {
    }

    /** `?day=2026-06-01`, as days are where the display hangs; without it the last of which anything is known. */
    #[Route('/api/displays/{id}/seen', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function show(string $id, Request $request): JsonResponse
    {
        $display = $this->displays->one($id);
        $days = $this->seen->days($id);
        $asked = $request->query->getString('day');
        $day = $asked !== '' ? self::day($asked) : ($days[0]['day'] ?? null);

        return new JsonResponse([
            'display' => ['id' => $id, 'name' => $display->display()->name],
            'timezone' => $display->display()->timezone,
            'days' => $days,
            'day' => $day,
            'things' => $day === null ? [] : array_map(static fn (Seen $one): array => array_diff_key($one->toArray(), ['quarter' => 1]), $this->seen->on($id, $day)),
            'players' => array_merge(...array_map(self::said(...), $this->players->on($display))),
        ]);
    }

    /** The same of one day, for other programs: instants in UTC, ms. */
    #[Route('/api/displays/{id}/seen-{day}.csv', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function table(string $id, string $day): Response
    {
        $display = $this->displays->one($id)->display();
        $rows = array_map(static fn (Seen $one): array => [
            $display->name,
            $day,
            $one->element,
            (string) $one->item,
            (string) $one->media,
            (string) $one->times,
            (string) $one->ms,
            (string) $one->missed,
            (string) $one->missedMs,
            (string) Instant::ofMs($one->firstMs),
            (string) Instant::ofMs($one->lastMs),
        ], $this->seen->on($id, self::day($day)));
        $head = ['display', 'day', 'element', 'item', 'media', 'times', 'ms', 'missed', 'missed_ms', 'first', 'last'];

        return Download::of(Csv::text($head, $rows), 'text/csv; charset=utf-8', "$display->name seen $day.csv");
    }

    private static function day(string $asked): string
    {
        if (preg_match('/^\d{4}-\d{2}-\d{2}$/', $asked) !== 1) {
            throw new Problem(422, 'value.range', sprintf('"%s" is no day; it is written as 2026-06-01.', mb_strimwidth($asked, 0, 40, '...')), '/day');
        }

        return $asked;
    }

    /** @return list<array<string, mixed>> what each of its outputs said last */
    private static function said(Player $player): array
    {
        $said = [];
        foreach ($player->calls ?? [] as $output => $call) {
            $machine = $call['machine'] ?? [];
            $int = static fn (string $of): ?int => is_int($machine[$of] ?? null) ? $machine[$of] : null;
            $persists = $machine['persists'] ?? null;
            $told = new Machine($int('clock_ms'), $int('heap_bytes'), $int('films'), $int('kept_bytes'), $int('room_bytes'), is_bool($persists) ? $persists : null);
            $said[] = [
                'player' => $player->name,
                'output' => count($player->outputs()) > 1 ? $output : null,
                'at' => $call['at'],
                'troubles' => $call['troubles'] ?? ($call['trouble'] === null ? [] : [['of' => 'all', 'says' => $call['trouble']]]),
                'machine' => $told->says(),
            ];
        }

        return $said;
    }
}
