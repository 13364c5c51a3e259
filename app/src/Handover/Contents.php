<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use UpperPane\Core\Document\Node;

/** What plays on a display, down to the revision of every design in it: whenever it is compiled, it is the same. */
final readonly class Contents
{
    /**
     * @param Playable $source what was chosen
     * @param array<int> $parts revision of every design that is in it, by id
     * @param ?list<string> $ruling ids of the schedules that rule, the nearest first; null where that was not recorded
     * @param ?array<mixed> $document of the source, where a release kept it and not its revision
     * @param array<string, mixed> $settings what holds there, as far as it decides how this looks (SurveyedDisplay::$settled)
     */
    public function __construct(public Playable $source, public array $parts, public ?array $ruling = [], public ?array $document = null, public array $settings = [])
    {
    }

    /** The same for all that play the same. */
    public function key(): string
    {
        return json_encode([$this->source->kind, $this->source->id, $this->parts, $this->ruling, $this->document, $this->settings], JSON_THROW_ON_ERROR);
    }

    /** @return array<string, mixed> as a handing keeps it */
    public function toArray(): array
    {
        return ['source' => $this->source->toArray(), 'parts' => (object) $this->parts, 'ruling' => $this->ruling, 'document' => $this->document, 'settings' => (object) $this->settings];
    }

    public static function fromNode(Node $node): self
    {
        $source = $node->field('source');
        $revision = $source->field('revision');
        $parts = $node->field('parts')->value;
        $ruling = $node->field('ruling')->value;
        $document = $node->field('document')->value;

        return new self(
            Playable::kept(
                $source->field('kind')->text(),
                $source->field('id')->id(),
                $revision->value === null ? null : $revision->int(1),
                $source->field('name')->text(),
            ),
            array_filter(is_array($parts) ? $parts : [], is_int(...)),
            is_array($ruling) ? array_values(array_filter($ruling, is_string(...))) : null,
            is_array($document) ? $document : null,
            $node->given('settings')?->fields() ?? [],
        );
    }
}
