<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Role;
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

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        return self::fields()->written($this->given);
    }
}
