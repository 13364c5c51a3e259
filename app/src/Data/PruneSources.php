<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Psr\Clock\ClockInterface;
use UpperPane\App\Jobs\Chore;

/** Forgets what was fetched long ago: the last fetches of each source stay, none older than a fortnight but the last good one. */
final readonly class PruneSources implements Chore
{
    private const DAYS = 14;
    private const FETCHES = 500;

    public function __construct(private SourceStates $states, private SourceFiles $files, private FieldPictures $pictures, private ClockInterface $clock)
    {
    }

    public static function name(): string
    {
        return 'sources';
    }

    public static function everyS(): int
    {
        return 86_400;
    }

    public function run(): void
    {
        $now = $this->clock->now()->getTimestamp();
        $this->pictures->prune(1000 * ($now - self::DAYS * 86_400));
        $this->files->prune($this->states->prune(1000 * ($now - self::DAYS * 86_400), self::FETCHES), $now);
    }
}
