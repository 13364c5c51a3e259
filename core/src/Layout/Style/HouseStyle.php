<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Style;

use UpperPane\Core\Colour\Colour;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Media\Media;

/** Named colours, type faces, sizes and marks, to which layouts refer; of what it does not say itself, another style may say it. */
final readonly class HouseStyle
{
    public const FORMAT = 'upper-pane/style@1';

    /** Names of one sort. */
    public const MOST_NAMES = 500;

    /**
     * @param ?string $extends id of the style whose entries hold where this one has none
     * @param array<string, Colour> $colours by name
     * @param array<string, NamedFace> $faces
     * @param array<string, NamedSize> $sizes
     * @param array<string, Media> $marks
     * @param array<string, mixed> $given as it was read
     */
    private function __construct(
        public string $id,
        public string $name,
        public ?string $extends,
        public array $colours,
        public array $faces,
        public array $sizes,
        public array $marks,
        private array $given,
    ) {
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;
        $map = static fn (Field $each): Field => Field::map($each, self::MOST_NAMES, '^' . Field::NAME_IN_STYLE . '$');

        return $fields ??= Fields::of([
            'format' => Field::constant(self::FORMAT)->required(),
            'id' => Field::id()->required(),
            'name' => Field::name()->required(),
            'extends' => Field::id(Role::Style)->orNull()->saying('the style whose entries hold where this one has none'),
            'colours' => $map(Field::hex()),
            'faces' => $map(Field::object(NamedFace::fields())),
            'sizes' => $map(Field::object(NamedSize::fields())),
            'marks' => $map(Field::object(Media::fields(), Role::Media)),
        ]);
    }

    /**
     * @param array<mixed> $document in the format `upper-pane/style@1`
     * @throws DocumentRefused
     */
    public static function fromArray(array $document): self
    {
        return self::fromNode(Node::root($document));
    }

    /** @throws DocumentRefused also where it extends itself */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::fields()->names());
        $node->format(self::FORMAT);
        [$id, $extends] = [$node->field('id')->id(), $node->given('extends')];
        if ($extends?->id() === $id) {
            throw $extends->refused(Reason::RefCycle, sprintf('is "%s", which is this style itself.', $id));
        }

        return new self(
            $id,
            $node->field('name')->name(),
            $extends?->id(),
            self::entries($node, 'colours', Colour::hex(...)),
            self::entries($node, 'faces', NamedFace::fromNode(...)),
            self::entries($node, 'sizes', NamedSize::fromNode(...)),
            self::entries($node, 'marks', static fn (Node $one): Media => $one->has('mark')
                ? throw $one->field('mark')->refused(Reason::FieldUnknown, 'stands in the place of a media; a mark is a media itself.')
                : Media::fromNode($one)),
            $node->fields(),
        );
    }

    /** @return array<string, mixed> the document as it was read */
    public function toArray(): array
    {
        return self::fields()->written($this->given);
    }

    /**
     * @template T
     * @param \Closure(Node): T $read
     * @return array<string, T> by name
     * @throws DocumentRefused
     */
    private static function entries(Node $node, string $field, \Closure $read): array
    {
        $entries = [];
        foreach ($node->optional($field)?->members(self::MOST_NAMES) ?? [] as $name => $one) {
            if (preg_match('/^' . Field::NAME_IN_STYLE . '$/D', (string) $name) !== 1) {
                throw $one->refused(Reason::ValueRange, sprintf('is named "%s"; a name is of small letters, figures and dashes, a letter first.', mb_strimwidth((string) $name, 0, 80, '…')));
            }
            $entries[(string) $name] = $read($one);
        }

        return $entries;
    }
}
