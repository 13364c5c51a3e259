<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Playback;

use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Playback\Drawing\Drawer;
use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Playback\Placing;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\SearchTarget;
use UpperPane\Core\Playback\Stretch;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Playback\Track;
use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\WallClock;

/** A track for the tests: a layout that lies above all that plays. All that is asked of it, it knows from what is there. */
final readonly class NightSign implements Track
{
    public function __construct(private string $id, private Composed $sign, private string $timezone)
    {
    }

    public function id(): string
    {
        return $this->id;
    }

    public function name(): string
    {
        return $this->sign->name;
    }

    public function layers(Surroundings $surroundings): array
    {
        $clock = WallClock::in($this->timezone);

        return (new Drawer($surroundings, $clock))->layout($this->sign, Placing::outermost(), $this->sign->turns($clock, 0));
    }

    public function contents(): array
    {
        return [$this->sign];
    }

    public function stretches(int $fromMs, int $toMs, bool $items): array
    {
        $stretches = [];
        foreach (Timeline::of($this->sign, $fromMs, $toMs, 0, $this->timezone)['zones'][0]['segments'] as $segment) {
            if ($segment['item'] !== null) {
                [$from, $to] = [Instant::parse($segment['from'])->ms, Instant::parse($segment['to'])->ms];
                // Its picture goes round and round: that is one stretch.
                $since = $stretches !== [] && end($stretches)->toMs === $from ? array_pop($stretches)->fromMs : $from;
                $stretches[] = new Stretch($since, $to, $this->id, 'layout', $this->sign->id, $this->sign->name, null, 'it lies above');
            }
        }

        return $stretches;
    }

    public function firstShown(SearchTarget $target, int $nowMs): ?FirstShown
    {
        return FirstShown::of($this->alone(), $target, $nowMs);
    }

    public function changesFrom(?Track $before): array
    {
        return $before instanceof self ? $this->alone()->changesFrom($before->alone()) : [sprintf('"%s" lies above.', $this->sign->name)];
    }

    private function alone(): Programme
    {
        return Programme::endless($this->sign, $this->timezone);
    }
}
