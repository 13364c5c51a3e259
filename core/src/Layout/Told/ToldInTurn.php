<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Text\FaceMetrics;
use UpperPane\Core\Time\Turns;

/** An element that is told over the first of its rows, or over that of its item: it has rows, what it is in turn, and says whether it tells anything. */
trait ToldInTurn
{
    public function reads(): ?Reading
    {
        return $this->inTurn?->reading;
    }

    public function dataTurns(): ?Turns
    {
        return $this->inLanguages()?->turns() ?? $this->inTurn?->turns();
    }

    public function missing(): ?array
    {
        $reading = $this->inTurn?->reading;

        return $reading?->missing(function (array $row) use ($reading): array {
            $teller = $reading->teller($row);
            $this->told($teller);

            return $teller->missing();
        }, $this->tellsAll());
    }

    public function inTurn(): ?InTurn
    {
        return $this->inTurn;
    }

    public function inLanguages(): ?InLanguages
    {
        return null;
    }

    /**
     * The same told as it is at the instant at which its layout is looked at.
     *
     * @param string $path JSON Pointer to the element
     * @param ?string $language in which it is shown; null where it has one text for all
     * @throws Refused
     */
    private function toldInTurn(Composer $composer, string $path, ?string $language = null): static
    {
        if (!$this->tells()) {
            return $this;
        }
        if ($this->rows === null) {
            return $this->told($composer->row($language));
        }
        $reading = $composer->reading($this->rows, "$path/rows", $this->tellsAll(), $language);
        $at = fn (int $ms): TellsRows => $this->over($reading, $ms);
        $faces = $composer->surroundings->faces;

        return $this->over($reading, $reading->atMs)->in(new InTurn($reading, $at, static fn (TellsRows $told): ?int => $told instanceof self ? $told->lastsMs($faces) : null));
    }

    /** Whether it tells all rows; else the first alone. */
    private function tellsAll(): bool
    {
        return false;
    }

    /** How long it goes through what it says, ms; null without end. */
    private function lastsMs(?FaceMetrics $faces): ?int
    {
        return null;
    }

    /** As it is told at an instant, Unix ms: over the first row. */
    private function over(Reading $reading, int $ms): static
    {
        return $this->told($reading->teller($reading->rowsAt($ms)[0] ?? []));
    }
}
