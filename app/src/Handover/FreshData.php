<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use UpperPane\App\Data\FieldPictures;
use UpperPane\App\Data\SourceFeeds;
use UpperPane\App\Data\SourceStates;
use UpperPane\App\Http\Problem;
use UpperPane\App\Jobs\Errand;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\Designs;
use UpperPane\App\Layout\References;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

/** Brings what sources tell to the displays that tell it, without a new handover: compiled once for all that are alike. */
final readonly class FreshData implements Errand
{
    public function __construct(
        private EntityManagerInterface $entities,
        private SourceStates $states,
        private SourceFeeds $feeds,
        private FieldPictures $pictures,
        private Designs $designs,
        private Renewal $renewal,
        private ClockInterface $clock,
        private LoggerInterface $logger,
    ) {
    }

    public static function isQuick(): bool
    {
        return false;
    }

    public function allDue(): void
    {
    }

    /** Those that could not be compiled keep what they have. */
    public function doDue(): int
    {
        $done = 0;
        foreach ($this->states->untold() as $id) {
            $this->pictures->reset();
            // What was read for the source before may have been saved anew since.
            $this->entities->clear();
            $state = $this->states->of($id);
            $design = $this->designs->those([$id])[0] ?? null;
            if ($state === null || $design === null || $design->kind !== DesignKind::Source) {
                continue;
            }
            $source = Source::fromNode(Node::root($design->document));
            $takenMs = $this->feeds->takenMs($source, $state, (int) $this->clock->now()->format('Uv'));
            if ($state->toldMs === null || $state->toldSha256 !== $state->sha256 || ($source->staleAfterS !== null && $takenMs !== $state->toldMs)) {
                $this->states->telling($id);
                $done += $this->tell($id);
                $this->states->told($id, $takenMs, $state);
            }
        }

        return $done;
    }

    private function tell(string $source): int
    {
        $nowMs = (int) $this->clock->now()->format('Uv');
        $done = 0;
        foreach ($this->telling($source) as $alike) {
            $release = $this->entities->find(HandedRelease::class, $alike[0]);
            if ($release === null) {
                continue;
            }
            try {
                $done += $this->renewal->of($release, $alike, $nowMs, $this->newFromMs($source, $nowMs)) ? 1 : 0;
            } catch (Refused | Problem $e) {
                $this->logger->error('What "{source}" tells cannot be shown by release {release}: {why}', ['source' => $source, 'release' => $alike[0], 'why' => $e->getMessage()]);
            }
            $this->entities->clear();
        }

        return $done;
    }

    /**
     * Releases that stand on displays and tell it, those together that are made of the same for displays that are alike.
     *
     * @return list<non-empty-list<int>>
     */
    private function telling(string $source): array
    {
        $rows = $this->entities->getConnection()->fetchAllNumeric(
            "SELECT CONCAT_WS(' ', r.source_kind, r.source_id, r.made_of, r.sha256, s.alike), r.settings, r.id FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id
             WHERE r.made_of IN (
                SELECT p.made_of FROM reference f JOIN release_part p ON p.design_id = f.design_id AND p.revision = f.revision WHERE f.kind = ? AND f.thing_id = ?
             ) ORDER BY r.id",
            [References::DESIGN, $source],
        );
        $alike = [];
        foreach ($rows as [$key, $settings, $id]) {
            if (is_string($key) && is_int($id)) {
                $alike[$key . (is_string($settings) ? $settings : '')][] = $id;
            }
        }

        return array_values($alike);
    }

    private function newFromMs(string $source, int $nowMs): int
    {
        return ($this->states->lastRead($source)[0]['at_ms'] ?? $nowMs) + SourceFeeds::ON_ITS_WAY_MS;
    }
}
