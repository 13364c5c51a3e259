<?php

declare(strict_types=1);

namespace UpperPane\App\Panel;

use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Account\Who;
use UpperPane\App\Display\DisplaysChanged;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\App\Trigger\OperatorSignals;
use UpperPane\Core\Panel\Panel;

/** Asks the players of a display for a signal: they hear of it by their pointers, and say when they took it. */
final readonly class AskDisplay
{
    public function __construct(
        private PanelTold $told,
        private OperatorSignals $signals,
        private Transaction $transaction,
        private EventDispatcherInterface $events,
        private Record $record,
        private Who $who,
    ) {
    }

    /**
     * @param string $id chosen by whoever asks, so that asking twice does it once
     * @param ?array<string, string|int|float|bool|null> $row that comes with it
     * @throws Problem where no triggers that were handed over there know it
     */
    public function of(string $id, Panel $panel, SurveyedDisplay $display, string $signal, ?array $row): void
    {
        if ($this->told->hears($display, $signal) === null) {
            throw new Problem(409, 'panel.signal', sprintf('No triggers that were handed over to "%s" know the signal "%s".', $display->about()->name, $signal));
        }
        $this->transaction->of(function () use ($id, $panel, $display, $signal, $row): void {
            $this->signals->say($id, $display->id, $signal, $row, $this->who->login());
            $this->record->note(Did::Asked, $display->about(), ['signal' => $signal, 'panel' => $panel->name]);
            $this->events->dispatch(new DisplaysChanged([$display->id]));
        });
    }
}
