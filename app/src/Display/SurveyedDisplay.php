<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\ORM\Mapping as ORM;
use UpperPane\App\Estate\Place;
use UpperPane\App\Handover\HandedRelease;
use UpperPane\Core\Display\Display;

/** A display as it was surveyed, the place where it hangs, and what is handed over to it. */
#[ORM\Entity]
class SurveyedDisplay
{
    #[ORM\ManyToOne(cascade: ['persist'])]
    public ?HandedRelease $current = null;

    /** @param array<mixed> $document in the format `upper-pane/display@1` */
    public function __construct(
        #[ORM\Id]
        #[ORM\Column(length: 80)]
        public readonly string $id,
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false)]
        public Place $place,
        #[ORM\Column(type: 'json')]
        public array $document,
        #[ORM\Column]
        public int $position = 0,
    ) {
    }

    public function display(): Display
    {
        return Display::fromArray($this->document);
    }
}
