<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Who;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\Refused;

final readonly class MakeDesign
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Designs $designs,
        private DesignForms $forms,
        private Transaction $transaction,
        private Record $record,
        private Who $who,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<string, mixed> $document
     * @param ?SurveyedDisplay $display that it is made for, or rules on
     * @param ?Place $place that it rules in, where its kind rules
     * @throws Refused
     */
    public function of(DesignKind $kind, string $name, array $document, ?SurveyedDisplay $display, ?Place $place): Design
    {
        return $this->like(null, $kind, $name, $document, $display, $place);
    }

    /**
     * The same, where one was made already that differs in nothing that would be refused: that is not looked into again.
     *
     * @param ?Design $checked null where there is none yet
     * @param array<string, mixed> $document
     * @throws Refused
     * @throws Problem where another one rules there
     */
    public function like(?Design $checked, DesignKind $kind, string $name, array $document, ?SurveyedDisplay $display, ?Place $place): Design
    {
        $id = strtolower((string) new Ulid());
        $document = ['format' => $kind->format(), 'id' => $id, 'name' => $name] + $document;
        $checked !== null ?: $this->forms->of($kind)->check($document);
        $design = new Design($id, $kind, $name, $document, $display?->id, $this->clock->now(), $this->who->login(), $place?->id);
        try {
            return $this->transaction->of(function () use ($design): Design {
                if ($this->forms->of($design->kind)::rules() && ($there = $this->designs->ruling($design->kind, $design->displayId, $design->placeId)) !== null) {
                    throw new Problem(409, 'schedule.exists', sprintf('"%s" rules there already; book in that.', $there->name));
                }
                $this->entities->persist($design);
                $this->entities->persist($design->asRevision());
                $this->record->note(Did::Made, $design->about());

                return $design;
            });
        } catch (UniqueConstraintViolationException) {
            throw new Problem(409, 'schedule.exists', 'Another schedule was made for the same place at this moment; book in that.');
        }
    }
}
