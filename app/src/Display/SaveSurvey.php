<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\EventDispatcher\EventDispatcherInterface;
use UpperPane\App\Storage\Saved;
use UpperPane\App\Storage\Saving;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Refused;

final readonly class SaveSurvey
{
    public function __construct(private Displays $displays, private Saving $saving, private EventDispatcherInterface $events)
    {
    }

    /**
     * @param array<string, mixed> $document
     * @return Saved<SurveyedDisplay>
     * @throws Refused
     */
    public function of(string $id, int $base, array $document, ?string $note): Saved
    {
        $document = ['format' => Display::FORMAT, 'id' => $this->displays->one($id)->id] + $document;
        Display::fromArray($document);

        return $this->saving->of(fn (): SurveyedDisplay => $this->displays->locked($id), $base, $document, $note, fn () => $this->events->dispatch(new DisplaysChanged([$id])));
    }
}
