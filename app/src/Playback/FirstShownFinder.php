<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\HandedRelease;
use UpperPane\App\Handover\HandedReleaseRepository;
use UpperPane\App\Handover\Playable;
use UpperPane\App\Handover\Programmes;
use UpperPane\App\Http\Problem;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\References;
use UpperPane\App\Time\Schedules;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\NeverShown;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Playback\SearchTarget;

/** Where and when something saved is next seen, over all displays; or why it never is. */
final readonly class FirstShownFinder
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Designs $designs,
        private Programmes $programmes,
        private Schedules $schedules,
        private HandedReleaseRepository $releases,
        private References $references,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param 'layout'|'filled'|'playlist'|'media'|'schedule' $kind
     * @return array{seen: list<array<string, mixed>>, never: ?string, says: string}
     */
    public function of(string $kind, string $id): array
    {
        $search = match ($kind) {
            'layout', 'filled' => SearchTarget::layout($id),
            'playlist' => SearchTarget::playlist($id),
            'media' => SearchTarget::media($id),
            'schedule' => null,
        };
        $users = $this->references->usersOfAll($kind === 'media' ? References::MEDIA : References::DESIGN, $id);
        [$seen, $unseen] = $this->standing($search, [$id => true] + $users);
        usort($seen, static fn (array $a, array $b): int => [$a['at'], $a['name']] <=> [$b['at'], $b['name']]);

        return match (true) {
            $seen !== [] => ['seen' => $seen, 'never' => null, 'says' => ''],
            default => ['seen' => []] + ($unseen === null ? $this->notHandedOver($search, $id, $kind, $users) : NeverShown::standing($unseen))->toArray(),
        };
    }

    /**
     * On the displays on which one of these designs stands.
     *
     * @param ?SearchTarget $search null for a schedule, which plays as a whole
     * @param array<mixed> $sources by id
     * @return array{list<array{display: string, name: string, timezone: string, at: ?string, why: string, older: bool}>, ?FirstShown}
     */
    private function standing(?SearchTarget $search, array $sources): array
    {
        $older = $this->releases->older();
        [$seen, $unseen, $known] = [[], null, []];
        $ruled = array_flip(array_filter($this->entities->getConnection()->fetchFirstColumn("SELECT display_id FROM design WHERE kind = 'schedule'"), is_string(...)));
        /** @var list<SurveyedDisplay> $displays */
        $displays = $this->entities->createQuery(
            'SELECT d FROM ' . SurveyedDisplay::class . ' d JOIN ' . HandedRelease::class . ' r WITH r.id = d.currentId WHERE r.sourceId IN (:sources) ORDER BY d.position, d.id',
        )->setParameter('sources', array_map(strval(...), array_keys($sources)))->getResult();
        foreach ($displays as $target) {
            $source = $this->programmes->standing($target);
            if ($source === null) {
                continue;
            }
            $display = $target->display();
            // On alike displays the same is seen; of those with a schedule, where they hang in the same place and none of their own rules.
            $alike = $source->kind !== 'schedule' ? '' : (isset($ruled[$target->id]) ? $target->id : $target->place->id);
            $key = "$source->id $alike $display->timezone {$display->raster()->width} {$display->raster()->height}";
            $found = $known[$key] ??= [$this->found($search, $source, $target)];
            if ($found[0]?->atMs !== null) {
                $seen[] = ['display' => $target->id, 'name' => $display->name, 'timezone' => $display->timezone, 'older' => isset($older[$target->id])] + $found[0]->toArray();
            }
            $unseen ??= $found[0]?->atMs === null ? $found[0] : null;
        }

        return [$seen, $unseen];
    }

    private function found(?SearchTarget $search, Playable $source, SurveyedDisplay $target): ?FirstShown
    {
        $now = 1000 * $this->clock->now()->getTimestamp();
        if ($search === null) {
            return FirstShown::now($now);
        }

        try {
            return FirstShown::of($this->programmes->of($this->programmes->now($source, $target), $target->display()), $search, $now);
        } catch (Refused | Problem) {
            // One document that cannot be worked out by now never hides where else it is seen.
            return null;
        }
    }

    /**
     * Why it is seen nowhere, where it stands on no display.
     *
     * @param array<DesignKind> $users
     */
    private function notHandedOver(?SearchTarget $search, string $id, string $kind, array $users): NeverShown
    {
        $schedules = $kind === 'schedule' ? [$id] : array_keys(array_filter($users, static fn (DesignKind $one): bool => $one === DesignKind::Schedule));
        foreach ($schedules as $one) {
            $design = $this->designs->find((string) $one);
            $target = $design === null ? null : $this->schedules->displays($design)[0] ?? null;
            if ($design === null || $target === null) {
                continue;
            }
            $name = $target->display()->name;
            $found = $search === null ? null : $this->found($search, $this->programmes->source(Node::root(['kind' => 'schedule', 'id' => (string) $one])), $target);
            if ($search === null || $found !== null) {
                return $found === null ? NeverShown::schedule($name) : NeverShown::bySchedule($design->name, $name, $found);
            }
        }
        if ($kind === 'schedule') {
            return NeverShown::schedule(null);
        }

        return NeverShown::usedIn(array_map(fn (string|int $user): string => $this->designs->find((string) $user)->name ?? (string) $user, array_keys($users)));
    }
}
