<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Kind\ShowsPicture;
use UpperPane\Core\Media\Media;

/** A picture, or a mark of the house style. */
final readonly class PictureSlot implements Slot
{
    use OpensElement;

    public const KIND = 'picture';

    private function __construct(private SlotHead $head, private string $element, private ?PictureValue $default)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['element' => Field::id()->required(), 'default' => Media::field()]);
    }

    public static function fromNode(Node $node): static
    {
        $head = SlotHead::fromNode($node, self::fields());
        $slot = new self($head, $node->field('element')->id(), null);

        return ($default = $node->optional('default')) === null ? $slot : new self($head, $slot->element, $slot->read($default));
    }

    public function check(array $elements, Node $node): void
    {
        self::opened($elements, $node->field('element'), ShowsPicture::class, 'a picture');
    }

    public function read(Node $node): PictureValue
    {
        $media = Media::fromNode($node);
        if ($media->isFilm()) {
            throw $node->refused(Reason::ValueUnknown, sprintf('is the film "%s"; a picture is right.', $media->name));
        }

        return new PictureValue($this, $this->element, $node->fields());
    }
}
