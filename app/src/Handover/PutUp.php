<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Account\Who;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Overlay\QuickNotice;
use UpperPane\Core\Overlay\Standing;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/**
 * A notice or a takeover in a hurry: what stands on displays stays as it was handed over, and a plane is laid above it, compiled once for all that are alike.
 */
final readonly class PutUp
{
    private const LONGEST_NAME = 80;

    public function __construct(
        private Targets $targets,
        private Programmes $programmes,
        private Compiler $compiler,
        private HandedReleaseRepository $releases,
        private InForce $inForce,
        private Transaction $transaction,
        private EventDispatcherInterface $events,
        private Record $record,
        private Who $who,
    ) {
    }

    /**
     * @param string $id chosen by whoever asks, so that asking twice does it once
     * @param array<string, mixed> $fields of the overlay, but for when
     * @param non-empty-list<string> $displays ids
     * @return array{id: string, displays: int, dark: int} on how many it stands, and on how many nothing stands above which it could lie
     * @throws Refused
     */
    public function of(string $id, array $fields, Node $within, array $displays): array
    {
        if ($this->inForce->kind($id) !== null) {
            return $this->known($id);
        }
        $nowMs = $this->inForce->nowMs();
        $kinds = $this->kinds($displays, ($fields['kind'] ?? null) === 'takeover');
        [$groups, $lastMs, $overlay] = [[], $nowMs, null];
        foreach ($kinds as $alike) {
            $target = $this->targets->display($alike[0]);
            [$document, $untilMs] = $this->document($id, $fields, $within, $target, $nowMs);
            $overlay ??= $document;
            $plane = $this->plane($document, $target, $nowMs, $untilMs);
            $groups[] = ['displays' => $alike, 'until_ms' => $untilMs, 'plane' => $plane];
            $lastMs = max($lastMs, $untilMs);
        }
        if ($overlay === null) {
            throw new Problem(409, 'in-force.dark', 'Nothing was handed over to any of these displays yet: there is nothing above which it could lie.');
        }
        $those = array_merge(...array_column($groups, 'displays'));
        $row = [
            'id' => $id,
            'kind' => is_string($overlay['kind']) ? $overlay['kind'] : '',
            'name' => is_string($overlay['name']) ? $overlay['name'] : '',
            'reason' => is_string($overlay['reason'] ?? null) ? $overlay['reason'] : null,
            'document' => json_encode($overlay, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'place' => mb_strimwidth($this->targets->inWords($those), 0, 1000, '...'),
            'begun_ms' => $nowMs,
            'until_ms' => $lastMs,
            'begun_by' => $this->who->login(),
        ];
        try {
            $this->transaction->of(function () use ($row, $groups, $those): void {
                $this->inForce->keep($row, $groups);
                $this->note(Did::PutUp, $row['id']);
                $this->events->dispatch(new DisplaysChanged($those));
            });
        } catch (UniqueConstraintViolationException) {
            // Asked twice at the same moment.
            return $this->known($id);
        }

        return ['id' => $id, 'displays' => count($those), 'dark' => count($displays) - count($those)];
    }

    /** @return array{id: string, displays: int, dark: int} */
    private function known(string $id): array
    {
        $known = $this->inForce->one($id) ?? throw new Problem(409, 'in-force.taken', 'Something else was put up under this id.');

        return ['id' => $id, 'displays' => is_int($known['displays']) ? $known['displays'] : 0, 'dark' => 0];
    }

    /** Ends it everywhere, before its time. */
    public function end(string $id): void
    {
        $this->transaction->of(function () use ($id): void {
            $displays = $this->inForce->end($id, $this->who->login());
            if ($displays !== []) {
                $this->note(Did::TookDown, $id);
                $this->events->dispatch(new DisplaysChanged($displays));
            }
        });
    }

    /**
     * The overlay as it stands on a display, and until when, Unix ms.
     *
     * @param array<string, mixed> $fields
     * @return array{array<string, mixed>, int}
     * @throws Refused
     */
    public function document(string $id, array $fields, Node $within, SurveyedDisplay $target, int $nowMs): array
    {
        $display = $target->display();
        $clock = WallClock::in($display->timezone);
        try {
            $standing = Standing::fromNode($within, $clock, $nowMs, $target->hours());
        } catch (Refused $e) {
            throw $e->in(sprintf('On "%s": ', $display->name), $e->path);
        }
        $text = $fields['text'] ?? null;
        $text = is_string($text) ? trim($text) : null;
        $place = is_string($fields['place'] ?? null) ? $fields['place'] : 'bottom';
        $looks = ($fields['kind'] ?? null) === 'notice' && $text !== null && !isset($fields['style'])
            ? QuickNotice::on($display->raster(), $this->programmes->surroundings($target), $text, $place)
            : [];
        $name = $fields['name'] ?? mb_strimwidth($text ?? 'Takeover', 0, self::LONGEST_NAME, '…');

        return [
            ['format' => Overlay::FORMAT, 'id' => $id, 'name' => is_string($name) && $name !== '' ? $name : '-', 'created' => (string) Instant::ofMs($nowMs), 'when' => $standing->when()] + $looks
                + ($text === null ? [] : ['text' => $text]) + $fields,
            $standing->untilMs,
        ];
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed>
     * @throws Refused
     */
    private function plane(array $document, SurveyedDisplay $target, int $nowMs, int $untilMs): array
    {
        $isTakeover = $document['kind'] === 'takeover';
        $contents = $isTakeover ? null : $this->releases->contentsOn($target);
        $id = is_string($document['id']) ? $document['id'] : '';
        try {
            $programme = $this->programmes->above($id, $target, $contents)($document)->programme;

            return $this->compiler->above($programme, $id, $nowMs - 60_000, $untilMs + 1_000) + [
                'lies' => Overlay::fromArray($document)->lies(), 'from' => null, 'until' => (string) Instant::ofMs($untilMs),
            ];
        } catch (Refused $e) {
            throw $e->in(sprintf('On "%s": ', $target->display()->name), $e->path);
        }
    }

    /**
     * Those to which something was handed over, together where it looks the same above what stands there.
     *
     * @param list<string> $ids
     * @param bool $isAlone whether what stands there is no matter
     * @return list<non-empty-list<string>>
     */
    private function kinds(array $ids, bool $isAlone): array
    {
        $kinds = [];
        foreach ($this->releases->carriers($ids) as ['id' => $id, 'alike' => $alike, 'release' => $release]) {
            $kinds[$alike . ($isAlone ? '' : $release)][] = $id;
        }

        return array_values($kinds);
    }

    private function note(Did $did, string $id): void
    {
        $this->record->noteSelected(
            "SELECT ? AS who, ? AS did, 'display' AS kind, s.id AS thing_id, s.name, JSON_OBJECT('what', f.name, 'kind', f.kind, 'reason', f.reason) AS more
             FROM in_force_on o JOIN in_force f ON f.id = o.in_force_id JOIN surveyed_display s ON s.id = o.display_id WHERE f.id = ? ORDER BY s.position, s.id",
            [$this->who->login(), $did->value, $id],
        );
    }
}
