<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;

/** For a while the players of a display show who they are, instead of what is handed over. */
final readonly class AlignDisplay
{
    public function __construct(
        private Displays $displays,
        private Transaction $transaction,
        private Record $record,
        private EventDispatcherInterface $events,
        private ClockInterface $clock,
    ) {
    }

    /** @param int $minutes with 0 it ends */
    public function of(SurveyedDisplay $display, int $minutes): SurveyedDisplay
    {
        return $this->transaction->of(function () use ($display, $minutes): SurveyedDisplay {
            $display = $this->displays->same($display);
            $display->alignmentUntil = $minutes === 0 ? null : $this->clock->now()->add(new \DateInterval("PT{$minutes}M"));
            $this->record->note(Did::Aligned, $display->about(), ['minutes' => $minutes]);
            $this->events->dispatch(new DisplaysChanged([$display->id]));

            return $display;
        });
    }
}
