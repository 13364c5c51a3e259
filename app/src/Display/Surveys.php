<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Contracts\Service\ResetInterface;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Feed;
use UpperPane\Core\Display\ReadingPlan;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/** Surveys as they are kept: added, copied, told whole. */
final class Surveys implements ResetInterface
{
    /** @var array<string, true> ids given out in this request, which the database may not know yet */
    private array $given = [];
    private ?int $position = null;

    public function __construct(private readonly EntityManagerInterface $entities, private readonly ClockInterface $clock)
    {
    }

    public function reset(): void
    {
        $this->given = [];
        $this->position = null;
    }

    /**
     * @param array<string, mixed> $document its id is made from the name where it has none
     * @throws DocumentRefused
     */
    public function add(Place $place, array $document, ?string $by): SurveyedDisplay
    {
        $name = is_string($document['name'] ?? null) ? $document['name'] : '';
        $id = is_string($document['id'] ?? null) ? $document['id'] : $this->freeId($name);
        $document = ['format' => Display::FORMAT, 'id' => $id] + $document;
        if ($this->isTaken(Display::fromArray($document)->id)) {
            throw DocumentRefused::because(Reason::IdTwice, sprintf('A display "%s" is there already.', $id), '/document/id');
        }
        $display = new SurveyedDisplay($id, $place, $document, $this->nextPosition());
        $display->savedAt = $this->clock->now();
        $display->savedBy = $by;
        $this->given[$id] = true;
        $this->entities->persist($display);
        $this->keep($display, null);

        return $display;
    }

    public function keep(SurveyedDisplay $display, ?string $note): void
    {
        $this->entities->persist(new SurveyRevision($display->id, $display->revision, $display->document, $display->savedAt ?? $this->clock->now(), $display->savedBy, $note));
    }

    /** @return list<SurveyedDisplay> */
    public function copies(SurveyedDisplay $like, int $count, Place $place, ?string $by): array
    {
        $names = array_flip(array_filter($this->entities->getConnection()->fetchFirstColumn("SELECT JSON_VALUE(document, '$.name') FROM surveyed_display"), is_string(...)));
        $name = $like->display()->name;
        $stem = (string) preg_replace('/\s+\d+$/', '', $name);
        $number = preg_match('/\s(\d{1,6})$/', $name, $m) === 1 ? (int) $m[1] : 1;
        $copies = [];
        while (count($copies) < $count) {
            $number++;
            if (isset($names["$stem $number"])) {
                continue;
            }
            /** @var array<string, mixed> $document */
            $document = ['name' => "$stem $number"] + array_diff_key($like->document, ['id' => 1]);
            $copies[] = $this->add($place, $document, $by);
        }

        return $copies;
    }

    /** @return array<string, mixed> */
    public function whole(SurveyedDisplay $surveyed): array
    {
        return [
            'id' => $surveyed->id,
            'place' => $surveyed->place->id,
            'way' => $surveyed->place->way(),
            'revision' => $surveyed->revision,
            'saved_at' => $surveyed->savedAt?->format('Y-m-d\TH:i:s\Z'),
            'saved_by' => $surveyed->savedBy,
            'alignment_until' => $surveyed->alignmentUntil !== null && $surveyed->alignmentUntil > $this->clock->now() ? $surveyed->alignmentUntil->format('Y-m-d\TH:i:s\Z') : null,
            'document' => $surveyed->document,
        ] + $this->said($surveyed->display(), $surveyed->place->zone(), null);
    }

    /** @return array<string, mixed> everything that the core says of it */
    public function said(Display $display, ?string $timezone, ?float $capPx): array
    {
        return [
            'wall' => $display->wall->toArray(),
            'feeds' => array_map(static fn (Feed $feed): array => $feed->toArray($display->bits), Feed::of($display)),
            'processor' => $display->processor === null ? null : ['raster' => $display->processor->raster->toArray()],
            'reading' => ReadingPlan::of($display, $capPx)->toArray(),
        ] + Survey::check($display, $timezone)->toArray();
    }

    private function freeId(string $name): string
    {
        $stem = mb_substr(trim((string) preg_replace('/[^a-z0-9]+/', '-', strtolower((string) iconv('UTF-8', 'ASCII//TRANSLIT//IGNORE', $name))), '-'), 0, 60) ?: 'display';
        for ($number = 1, $id = $stem; $this->isTaken($id); $id = "$stem-" . ++$number) {
        }

        return $id;
    }

    private function isTaken(string $id): bool
    {
        return in_array($id, ['matches', 'from-table'], true) || isset($this->given[$id]) || $this->entities->find(SurveyedDisplay::class, $id) !== null;
    }

    private function nextPosition(): int
    {
        $this->position ??= (int) $this->entities->getRepository(SurveyedDisplay::class)->createQueryBuilder('d')
            ->select('COALESCE(MAX(d.position), 0)')->getQuery()->getSingleScalarResult();

        return ++$this->position;
    }
}
