<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Reach;
use UpperPane\App\Account\Who;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Http\Problem;
use UpperPane\App\Jobs\Owner;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\Planned;

/**
 * Notes what is to be handed over, and hands it over in a job.
 *
 * Whatever is killed in between: what was noted is worked on again from its beginning, and in one transaction every display
 * has its release and every pointer is due, or none.
 */
final readonly class Handings implements Owner
{
    private const CHUNK = 500;
    /** A display that is surveyed anew while its release is compiled is compiled for again, so often. */
    private const TRIES = 3;
    /** So many are told. */
    private const MOST = 50;

    public function __construct(
        private EntityManagerInterface $entities,
        private Transaction $transaction,
        private Compiler $compiler,
        private Targets $targets,
        private MadeOf $madeOf,
        private EventDispatcherInterface $events,
        private MessageBusInterface $jobs,
        private Record $record,
        private Who $who,
        private Reach $reach,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Notes it, with its job, in one transaction.
     *
     * @param list<Order> $orders
     */
    public function begin(string $name, array $orders): Handing
    {
        $handing = new Handing(
            strtolower((string) new Ulid()),
            $name,
            array_map(static fn (Order $order): array => $order->toArray(), $orders),
            array_sum(array_map(static fn (Order $order): int => count($order->displays), $orders)),
            $this->clock->now(),
            $this->who->login(),
        );
        $this->transaction->of(function () use ($handing): void {
            $this->entities->persist($handing);
            $this->entities->flush();
            $this->jobs->dispatch(new HandOver($handing->id));
            foreach ($handing->sources() as [$thing, $displays]) {
                $this->record->note(Did::HandedOver, $thing, ['where' => $this->targets->inWords($displays)]);
            }
        });

        return $handing;
    }

    /** One that somebody began himself, or that brings something to one of his displays. */
    public function one(string $id): Handing
    {
        [$within, $values] = $this->within();
        $isThere = $this->entities->getConnection()->fetchOne("SELECT 1 FROM handing h WHERE $within AND h.id = ?", [...$values, $id]) !== false;

        return ($isThere ? $this->entities->find(Handing::class, $id) : null) ?? throw Problem::notFound('This handover');
    }

    /** @return array{string, list<?string>} condition on `h`, and its values */
    private function within(): array
    {
        $condition = $this->reach->condition('display', 's.id');

        return $condition === Reach::ALL ? [$condition, []] : [
            "(h.begun_by = ? OR EXISTS (SELECT 1 FROM surveyed_display s WHERE JSON_CONTAINS(h.displays, JSON_QUOTE(s.id)) AND $condition))",
            [$this->who->login()],
        ];
    }

    /** Tries one again that failed. */
    public function retried(string $id): Handing
    {
        return $this->transaction->of(function () use ($id): Handing {
            $handing = $this->one($id);
            if ($handing->state !== Handing::FAILED) {
                throw new Problem(409, 'handing.not-failed', 'It has not failed; there is nothing to try again.');
            }
            $this->again(new HandOver($id));
            foreach ($handing->sources() as [$thing]) {
                $this->record->note(Did::TriedAgain, $thing);
            }

            return $handing;
        });
    }

    /** @return list<array<string, mixed>> the newest first */
    public function latest(): array
    {
        [$within, $values] = $this->within();

        return array_map(Handing::told(...), $this->entities->getConnection()->fetchAllAssociative(
            "SELECT h.id, h.name, h.state, h.done, h.of, h.displays, h.trouble, h.begun_at, h.begun_by, h.ended_at FROM handing h
             WHERE $within ORDER BY h.begun_at DESC, h.id DESC LIMIT " . self::MOST,
            $values,
        ));
    }

    #[AsMessageHandler]
    public function work(HandOver $job): void
    {
        $handing = $this->entities->find(Handing::class, $job->handingId);
        if ($handing === null || in_array($handing->state, [Handing::DONE, Handing::FAILED], true)) {
            return;
        }
        try {
            for ($try = 1; $handing->state !== Handing::HANDED; $try++) {
                $handing->state = Handing::WORKING;
                $this->entities->flush();
                $this->handOver($handing, $this->compiled($handing), $try === self::TRIES);
            }
        } catch (Refused | Problem $e) {
            $this->ended($handing, Handing::FAILED, mb_strimwidth($e->getMessage(), 0, 1000, '...'));

            return;
        }
        $this->ended($handing, Handing::DONE, null);
    }

    public static function job(): string
    {
        return HandOver::class;
    }

    public function gaveUp(object $job, string $why): void
    {
        $handing = $this->of($job);
        if ($handing !== null && in_array($handing->state, [Handing::WAITING, Handing::WORKING], true)) {
            $this->ended($handing, Handing::FAILED, $why);
        }
    }

    public function again(object $job): void
    {
        $handing = $this->of($job) ?? throw Problem::notFound('This handover');
        $handing->state = Handing::WAITING;
        $handing->trouble = $handing->endedAt = null;
        $this->entities->flush();
        $this->jobs->dispatch(new HandOver($handing->id));
    }

    public function says(object $job): string
    {
        $handing = $this->of($job);

        return $handing === null ? 'A handover' : sprintf('Handing over "%s" to %d %s', $handing->name, $handing->of, $handing->of === 1 ? 'display' : 'displays');
    }

    private function of(object $job): ?Handing
    {
        return $job instanceof HandOver ? $this->entities->find(Handing::class, $job->handingId) : null;
    }

    /**
     * Every release that is needed, compiled and published: until a pointer names it nobody plays it.
     *
     * @return list<array{array<string, mixed>, array<int>, array<string>, array<int>}> the columns of its releases, the numbers of those that it puts back and what each display is like, by id, and
     *         the revisions that they are made of
     */
    private function compiled(Handing $handing): array
    {
        $span = Planned::span(1000 * $this->clock->now()->getTimestamp());
        $handing->done = 0;
        $compiled = [];
        foreach ($handing->orders() as $order) {
            foreach ($this->kinds($order->displays) as $like => $ids) {
                $columns = $order->contents === null ? $this->asItWas($order) : $this->made($order->contents, $this->targets->display($ids[0])->display(), ...$span);
                $compiled[] = [$columns, $order->putsBack, array_fill_keys($ids, (string) $like), $order->contents->parts ?? []];
                $handing->done += count($ids);
                $this->entities->flush();
            }
        }

        return $compiled;
    }

    /**
     * @param int $fromMs Unix ms
     * @return array<string, mixed> columns of a release
     */
    private function made(Contents $contents, Display $display, int $fromMs, int $toMs): array
    {
        try {
            $release = $this->compiler->release($contents, $display, $fromMs, $toMs);
        } catch (Refused $e) {
            throw $e->in(sprintf('On "%s": ', $display->name), $e->path);
        }
        $planned = $release->planned();

        return $this->compiler->published($release) + [
            'manifest' => 1,
            'source_kind' => $contents->source->kind,
            'source_id' => $contents->source->id,
            'source_revision' => $contents->source->revision,
            'name' => $contents->source->name,
            'document' => $contents->document === null ? null : json_encode($contents->document, JSON_THROW_ON_ERROR),
            'made_of' => MadeOf::key($contents->parts),
            'ruling' => json_encode($contents->ruling, JSON_THROW_ON_ERROR),
            'settings' => json_encode((object) $contents->settings, JSON_THROW_ON_ERROR),
            'planned_until' => $planned === null ? null : gmdate('Y-m-d H:i:s', intdiv($planned->untilMs, 1000)),
            'planned_then' => $planned?->then,
        ];
    }

    /** @return array<string, mixed> columns of a release that is as an earlier one was */
    private function asItWas(Order $order): array
    {
        $was = $this->entities->getConnection()->fetchAssociative(
            'SELECT file, sha256, bytes, manifest, source_kind, source_id, source_revision, name, document, made_of, ruling, settings, planned_until, planned_then FROM handed_release WHERE id = ?',
            [$order->asItWas],
        );

        return $was === false ? throw Problem::notFound('The release that is to be put back') : $was;
    }

    /**
     * @param list<string> $ids
     * @return array<non-empty-list<string>> those that are alike in all but their names, by what they are like
     */
    private function kinds(array $ids): array
    {
        $kinds = [];
        foreach ($this->likes($ids, '') as $id => $like) {
            $kinds[$like][] = (string) $id;
        }

        return count(array_merge(...array_values($kinds), ...[[]])) === count($ids) ? $kinds : throw Problem::notFound('A display that this is to be handed over to');
    }

    /**
     * @param list<string> $ids
     * @return array<string> what each display is like, by id
     */
    private function likes(array $ids, string $lock): array
    {
        $likes = [];
        // In one order, so that nobody waits for somebody who waits for him.
        sort($ids, SORT_STRING);
        foreach (array_chunk($ids, self::CHUNK) as $chunk) {
            $rows = $this->entities->getConnection()->fetchAllKeyValue("SELECT id, alike FROM surveyed_display WHERE id IN (?) ORDER BY id $lock", [$chunk], [ArrayParameterType::STRING]);
            $likes += array_filter($rows, is_string(...));
        }

        return $likes;
    }

    /**
     * @param list<array{array<string, mixed>, array<int>, array<string>, array<int>}> $compiled
     * @param bool $last whether it fails where a display was surveyed anew meanwhile
     */
    private function handOver(Handing $handing, array $compiled, bool $last): void
    {
        $connection = $this->entities->getConnection();
        $this->transaction->of(function () use ($connection, $handing, $compiled, $last): void {
            $want = array_replace(...array_column($compiled, 2), ...[[]]);
            if ($connection->fetchOne('SELECT state FROM handing WHERE id = ? FOR UPDATE', [$handing->id]) !== Handing::WORKING) {
                // Another worker that was given this job, since this one seemed dead, has done it.
                $handing->state = Handing::HANDED;

                return;
            }
            if ($this->likes(array_map(strval(...), array_keys($want)), 'FOR UPDATE') != $want) {
                if ($last) {
                    throw new Problem(409, 'display.changing', 'A display is being surveyed anew at this moment. Nothing was handed over; try again.');
                }

                return;
            }
            $about = ['handing_id' => $handing->id, 'handed_over_at' => $this->clock->now()->format('Y-m-d H:i:s'), 'handed_over_by' => $handing->begunBy];
            foreach ($compiled as [$columns, $back, $likes, $parts]) {
                $this->madeOf->keep($parts);
                $byNumber = [];
                foreach (array_keys($likes) as $id) {
                    $byNumber[$back[$id] ?? 0][] = (string) $id;
                }
                foreach ($byNumber as $number => $ids) {
                    self::insert($connection, $columns + $about + ['puts_back' => $number === 0 ? null : $number], $ids);
                }
            }
            $connection->executeStatement('UPDATE surveyed_display s JOIN handed_release r ON r.display_id = s.id SET s.current_id = r.id WHERE r.handing_id = ?', [$handing->id]);
            $this->record->noteSelected(
                "SELECT ? AS who, IF(r.puts_back IS NULL, ?, ?) AS did, 'display' AS kind, s.id AS thing_id, s.name,
                    JSON_OBJECT('what', r.name, 'release', r.number, 'back', r.puts_back) AS more
                 FROM handed_release r JOIN surveyed_display s ON s.id = r.display_id WHERE r.handing_id = ? ORDER BY s.position, s.id",
                [$handing->begunBy, Did::HandedOver->value, Did::PutBack->value, $handing->id],
            );
            $connection->update('handing', ['state' => Handing::HANDED], ['id' => $handing->id]);
            $handing->state = Handing::HANDED;
            $this->events->dispatch(new DisplaysChanged(array_map(strval(...), array_keys($want))));
        });
    }

    /**
     * A release for each of these displays.
     *
     * @param array<string, mixed> $columns
     * @param list<string> $displays
     */
    private static function insert(Connection $connection, array $columns, array $displays): void
    {
        $sql = sprintf(
            'INSERT INTO handed_release (display_id, number, shape, survey_revision, %s)
             SELECT s.id, COALESCE((SELECT MAX(x.number) FROM handed_release x WHERE x.display_id = s.id), 0) + 1, s.shape, s.revision, %s FROM surveyed_display s WHERE s.id IN (?)',
            implode(', ', array_keys($columns)),
            implode(', ', array_fill(0, count($columns), '?')),
        );
        foreach (array_chunk($displays, self::CHUNK) as $chunk) {
            $connection->executeStatement($sql, [...array_values($columns), $chunk], [count($columns) => ArrayParameterType::STRING]);
        }
    }

    private function ended(Handing $handing, string $state, ?string $trouble): void
    {
        // A transaction that was done again has let go of what was known before it.
        $handing = $this->entities->find(Handing::class, $handing->id) ?? $handing;
        $handing->state = $state;
        $handing->trouble = $trouble;
        $handing->endedAt = $this->clock->now();
        $this->entities->flush();
    }
}
