<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\ORM\Events;
use Psr\Clock\ClockInterface;
use UpperPane\App\Layout\DesignRevision;
use UpperPane\Core\Data\Source;

/** A source that was saved is fetched at once: it may come from elsewhere, or be read otherwise. */
#[AsEntityListener(event: Events::postPersist, method: 'noted', entity: DesignRevision::class)]
final readonly class SourceDue
{
    public function __construct(private SourceStates $states, private ClockInterface $clock)
    {
    }

    public function noted(DesignRevision $revision): void
    {
        if ($revision->number !== null && ($revision->document['format'] ?? null) === Source::FORMAT) {
            $this->states->changed($revision->designId);
            $isFetched = is_array($revision->document['from'] ?? null) && isset($revision->document['from']['address']);
            $nowMs = (int) $this->clock->now()->format('Uv');
            $this->states->due($revision->designId, $isFetched ? $nowMs : null);
            if (is_array($revision->document['from'] ?? null) && isset($revision->document['from']['table'])) {
                $this->states->typed($revision->designId, $nowMs);
            }
        }
    }
}
