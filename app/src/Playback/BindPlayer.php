<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Psr\Clock\ClockInterface;
use Psr\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Display\Displays;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** The player that shows a code plays on a display from now on. */
final readonly class BindPlayer
{
    public function __construct(
        private Players $players,
        private Pairings $pairings,
        private Displays $displays,
        private Transaction $transaction,
        private Record $record,
        private EventDispatcherInterface $events,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param string $code as it was read from its screen
     * @param ?Node $part which surveyed player of the display it is; null for the first that nobody plays yet
     * @throws Problem where no player shows the code, or no longer
     * @throws Refused where the display has no such player
     */
    public function of(string $code, SurveyedDisplay $display, ?string $name, ?Node $part): Player
    {
        $code = strtoupper((string) preg_replace('/[\s-]+/', '', $code));

        return $this->transaction->of(function () use ($code, $display, $name, $part): Player {
            $display = $this->displays->same($display);
            $pairing = $this->pairings->ofCode($code) ?? throw new Problem(422, 'pairing.wrong', sprintf('No player shows the code %s. Read it again from its screen.', $code), '/code');
            if ($pairing->player !== null) {
                throw new Problem(422, 'pairing.used', sprintf('The code %s is used: its player is bound to %s.', $code, $pairing->player->display->display()->name), '/code');
            }
            if ($pairing->endsAt < $this->clock->now()) {
                throw new Problem(422, 'pairing.ended', sprintf('The code %s is older than %d minutes. The player shows a new one by now.', $code, Pairing::MINUTES), '/code');
            }
            $player = new Player(strtolower((string) new Ulid()), $name ?? 'Player of ' . $display->display()->name, $display, Player::newSecret(), $this->clock->now());
            $player->part = $this->part($display, $part);
            $pairing->player = $player;
            $this->players->add($player);
            $this->record->note(Did::Bound, $display->about(), ['player' => $player->name]);
            $this->events->dispatch(new DisplaysChanged([$display->id]));

            return $player;
        });
    }

    private function part(SurveyedDisplay $display, ?Node $asked): ?string
    {
        $parts = array_values(array_unique(array_filter(array_map(static fn (Feed $feed): ?string => $feed->player, Feed::of($display->display())))));
        if ($asked !== null) {
            return in_array($asked->id(), $parts, true)
                ? $asked->id()
                : throw $asked->refused(Reason::RefUnknown, sprintf('is "%s"; the players of this display are %s.', $asked->id(), implode(', ', $parts)));
        }
        $taken = array_map(static fn (Player $player): ?string => $player->part, $this->players->on($display));

        return array_values(array_diff($parts, $taken))[0] ?? $parts[0] ?? null;
    }
}
