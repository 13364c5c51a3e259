<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Finding\Explanation;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;

/** What is known of the work that is done behind the desk, as far as something may be wrong with it. */
final readonly class WorkFacts
{
    /** Who works: one looks into media, one makes releases, one hears players and writes pointers, one makes anew what data change and does what is done daily, one fetches data. */
    public const WORKERS = ['probe', 'release', 'keeper', 'renewer', 'fetcher'];

    /** A worker notes every few seconds that it lives. Common practice, no source. */
    private const SILENT_AFTER_MS = 60_000;

    /** A job that nobody takes for so long waits for somebody who is not there. Common practice, no source. */
    private const WAITS_MS = 120_000;

    /** @return list<Explanation> of what is found here */
    public static function explained(): array
    {
        return [
            new Explanation('worker.silent', 'stop', 'a worker was not heard for a minute', 'what it works on waits: media, handovers, pointers or data', 'common practice'),
            new Explanation('job.waits', 'warning', 'a job that is due was taken by nobody for two minutes', 'somebody waits for it', 'common practice'),
            new Explanation('job.failed', 'warning', 'jobs failed for good', 'what they were for is not done', 'arithmetic'),
            new Explanation('chore.failed', 'warning', 'what is done daily failed; says why', 'plans end, or the disk fills up', 'arithmetic'),
        ];
    }

    /**
     * @param array<string, ?int> $heardMs when each worker was heard last, Unix ms; null of one that never was
     * @param ?int $oldestMs since when the oldest job waits that is due and that nobody has in hand, Unix ms
     * @param int $failed how many jobs failed for good
     * @param array<string> $troubles why what is done daily failed, by name
     */
    public function __construct(public array $heardMs, public ?int $oldestMs, public int $failed, public array $troubles)
    {
    }

    /**
     * @param int $nowMs Unix ms
     * @return list<Finding> that concern no single display
     */
    public function findings(int $nowMs): array
    {
        $findings = [];
        foreach ($this->heardMs as $name => $heard) {
            if ($heard === null || abs($nowMs - $heard) > self::SILENT_AFTER_MS) {
                $since = $heard === null ? 'was never heard' : sprintf('was heard last at %s UTC', gmdate('H:i', intdiv($heard, 1000)));
                $findings[] = new Finding('worker.silent', Level::Stop, [], "The worker \"$name\" $since: what it works on waits. Start it with bin/start.");
            }
        }
        if ($this->oldestMs !== null && $nowMs - $this->oldestMs > self::WAITS_MS) {
            $findings[] = new Finding('job.waits', Level::Warning, [], sprintf('A job has waited for %d min.', intdiv($nowMs - $this->oldestMs, 60_000)));
        }
        if ($this->failed > 0) {
            $findings[] = new Finding('job.failed', Level::Warning, [], $this->failed === 1 ? 'A job failed.' : "$this->failed jobs failed.");
        }
        foreach ($this->troubles as $name => $why) {
            $findings[] = new Finding('chore.failed', Level::Warning, [], sprintf('What is done daily failed: %s: %s', $name, $why));
        }

        return $findings;
    }
}
