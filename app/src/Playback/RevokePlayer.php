<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;

/** Takes a player's address back: it stops, and the address works no more. */
final readonly class RevokePlayer
{
    public function __construct(private Players $players, private Transaction $transaction, private Record $record, private EventDispatcherInterface $events, private ClockInterface $clock)
    {
    }

    public function of(string $id): Player
    {
        return $this->transaction->of(function () use ($id): Player {
            $player = $this->players->one($id);
            if ($player->revokedAt === null) {
                $player->revokedAt = $this->clock->now();
                $player->pointerDue = true;
                $this->record->note(Did::Revoked, $player->display->about(), ['player' => $player->name]);
                $this->events->dispatch(new DisplaysChanged([$player->display->id]));
            }

            return $player;
        });
    }
}
