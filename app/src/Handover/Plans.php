<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Http\Problem;
use UpperPane\App\Jobs\Chore;
use UpperPane\App\Jobs\Owners;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\Planned;

/**
 * Plans what was handed over for the days to come: the same revisions, for the same survey, well before the plan ends.
 *
 * No display falls to its standby because nobody handed over for three months.
 */
final readonly class Plans implements Chore
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Renewal $renewal,
        private ClockInterface $clock,
    ) {
    }

    public static function name(): string
    {
        return 'plans';
    }

    public static function everyS(): int
    {
        return 86_400;
    }

    /** One that cannot be planned keeps what it has, and says why. */
    public function run(): void
    {
        $nowMs = 1000 * $this->clock->now()->getTimestamp();
        foreach ($this->due($nowMs) as $id) {
            $release = $this->entities->find(HandedRelease::class, $id);
            if ($release === null) {
                continue;
            }
            try {
                $this->renewal->of($release, [$id], $nowMs);
            } catch (Refused | Problem $e) {
                $this->entities->getConnection()->update('handed_release', ['plan_trouble' => Owners::why($e)], ['id' => $id]);
            }
            $this->entities->clear();
        }
    }

    /**
     * Of what stands on displays: plans that are to be made anew, those that are alike side by side; and what is in one piece from before there
     * were manifests, since nobody noted then whether anything in it comes and goes.
     *
     * @return list<int>
     */
    private function due(int $nowMs): array
    {
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            'SELECT r.id, r.planned_until, r.manifest FROM handed_release r JOIN surveyed_display s ON s.current_id = r.id
             WHERE r.manifest = 0 OR r.planned_until IS NOT NULL ORDER BY r.source_id, r.made_of, s.alike, r.id',
        );
        $due = [];
        foreach ($rows as ['id' => $id, 'planned_until' => $until, 'manifest' => $manifest]) {
            if (is_int($id) && ($manifest === 0 || (is_string($until) && (new Planned(1000 * (int) strtotime("$until UTC"), null))->isToBeRenewed($nowMs)))) {
                $due[] = $id;
            }
        }

        return $due;
    }
}
