<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use UpperPane\App\Display\SurveyRevision;
use UpperPane\App\Http\Problem;
use UpperPane\App\Jobs\Chore;
use UpperPane\App\Jobs\Owners;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Display;
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
        private HandedReleaseRepository $releases,
        private Transaction $transaction,
        private Compiler $compiler,
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
                $this->renew($release, $nowMs);
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

    private function renew(HandedRelease $release, int $nowMs): void
    {
        $contents = $this->releases->contents($release) ?? throw new Problem(409, 'release.unknown', 'What it was made from was not recorded.');
        $compiled = $this->compiler->release($contents, $this->surveyed($release), ...Planned::span($nowMs));
        $file = $this->compiler->published($compiled);
        $planned = $compiled->planned();
        $connection = $this->entities->getConnection();
        $this->transaction->of(static function () use ($connection, $release, $file, $planned): void {
            $connection->update('handed_release', $file + [
                'manifest' => 1,
                'whole_sha256' => null,
                'planned_until' => $planned === null ? null : gmdate('Y-m-d H:i:s', intdiv($planned->untilMs, 1000)),
                'planned_then' => $planned?->then,
                'plan_trouble' => null,
            ], ['id' => $release->id]);
            $connection->executeStatement('UPDATE player p JOIN surveyed_display s ON s.id = p.display_id SET p.pointer_due = 1 WHERE s.current_id = ? AND p.revoked_at IS NULL', [$release->id]);
        });
    }

    /** The display as it was surveyed when this was handed over: a survey that was changed since is not handed over by itself. */
    private function surveyed(HandedRelease $release): Display
    {
        $then = $release->surveyRevision === null || $release->surveyRevision === $release->display->revision
            ? null
            : $this->entities->getRepository(SurveyRevision::class)->findOneBy(['displayId' => $release->display->id, 'number' => $release->surveyRevision]);
        $display = $then === null ? $release->display->display() : Display::fromArray($then->document);

        return $then !== null || $release->shape === null || $release->shape === $release->display->shape
            ? $display
            : throw new Problem(409, 'display.reshaped', 'The display was surveyed anew since, and how it was then is not known. Hand over again.');
    }
}
