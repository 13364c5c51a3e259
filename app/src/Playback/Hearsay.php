<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Storage\Transaction;

/** What sensors said before a display, as its players tell it: what each of them is called is learnt by acting before it. */
final readonly class Hearsay
{
    public function __construct(
        private Players $players,
        private Displays $displays,
        private Transaction $transaction,
        private EventDispatcherInterface $events,
        private ClockInterface $clock,
    ) {
    }

    /** @return array{learns_until: ?string, heard: list<array<string, mixed>>} until when players tell it at once; and what was heard, the last first */
    public function of(SurveyedDisplay $display): array
    {
        $heard = [];
        foreach ($this->players->on($display) as $player) {
            foreach (Player::senses(['calls' => $player->calls === null ? null : json_encode($player->calls, JSON_THROW_ON_ERROR)]) as $senses) {
                foreach ($senses['heard'] as $one) {
                    $heard[] = $one + ['player' => $player->name];
                }
            }
        }
        usort($heard, static fn (array $a, array $b): int => $b['last'] <=> $a['last']);
        $until = $display->learnsUntil;

        return ['learns_until' => $until !== null && $until > $this->clock->now() ? $until->format('Y-m-d\TH:i:s\Z') : null, 'heard' => $heard];
    }

    /** For a while the players tell at once whatever is said. @param int $minutes with 0 it ends */
    public function learn(SurveyedDisplay $display, int $minutes): void
    {
        $this->transaction->of(function () use ($display, $minutes): void {
            $display = $this->displays->same($display);
            $display->learnsUntil = $minutes === 0 ? null : $this->clock->now()->add(new \DateInterval("PT{$minutes}M"));
            $this->events->dispatch(new DisplaysChanged([$display->id]));
        });
    }
}
