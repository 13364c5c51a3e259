<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Item;

/** What somebody has filled into a template. */
final readonly class Filled
{
    public const FORMAT = 'upper-pane/filled@1';

    /**
     * @param string $template id of the layout
     * @param ?int $revision of the template; null for the latest
     * @param array<string, Node> $values by slot
     * @param array<string, mixed> $given as it was read
     */
    private function __construct(public string $id, public string $name, public string $template, public ?int $revision, public array $values, private array $given)
    {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $text = Field::text(0, TextSlot::LONGEST, Role::Words);

        return $fields ??= Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'template' => Field::id(Role::LayoutId)->required()->saying('the layout whose slots are filled in'),
            'template_revision' => Field::int(1)->saying('of the template; the latest unless stated'),
            'values' => Field::map(Field::either(
                Media::field(),
                Field::list(Field::object(Item::fields())),
                Field::map($text, Languages::MOST, Field::LANGUAGE),
                $text,
                Field::number(),
                Field::bool(),
            ), Slots::MOST)->required()->saying('by slot'),
        ]);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/filled@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        return self::fromNode(Node::root($document));
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $node->format(self::FORMAT);

        return new self(
            $node->field('id')->id(),
            $node->field('name')->name(),
            $node->field('template')->id(),
            $node->optional('template_revision')?->int(1),
            $node->field('values')->members(Slots::MOST),
            $node->fields(),
        );
    }

    /**
     * The revision of a template that a document goes by, found without reading it.
     *
     * @param array<mixed> $document
     * @return ?array{string, int} id and revision; null of what is not filled into a certain revision
     */
    public static function pinned(array $document): ?array
    {
        [$template, $revision] = [$document['template'] ?? null, $document['template_revision'] ?? null];

        return ($document['format'] ?? null) === self::FORMAT && is_string($template) && is_int($revision) ? [$template, $revision] : null;
    }

    /**
     * The same in another revision of its template: what no slot there can take is left out.
     *
     * @return array{array<string, mixed>, list<string>} the document, and what is left out, by slot
     */
    public function takenOver(Layout $template, int $revision): array
    {
        $slots = array_combine(array_map(static fn (Slot $slot): string => $slot->head()->id, $template->slots), $template->slots);
        [$values, $left] = [[], []];
        foreach ($this->values as $id => $node) {
            try {
                $slot = $slots[$id] ?? throw $node->refused(Reason::FieldUnknown, 'is no slot any more.');
                $slot->read($node);
                $values[$id] = $node->value;
            } catch (Refused) {
                $left[] = (string) $id;
            }
        }

        return [['template_revision' => $revision, 'values' => $values === [] ? new \stdClass() : $values] + $this->toArray(), $left];
    }

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        return self::fields()->written($this->given);
    }
}
