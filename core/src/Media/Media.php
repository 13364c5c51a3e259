<?php

declare(strict_types=1);

namespace UpperPane\Core\Media;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Geometry\Size;

/** A picture, or with a length a film. */
final readonly class Media
{
    /** @param bool $isNamed whether it stands for a mark of the house style that is not known yet */
    private function __construct(
        public string $name,
        public Size $size,
        public ?int $lengthMs,
        public ?string $id,
        public bool $isNamed = false,
    ) {
    }

    /**
     * @param ?int $lengthMs own length of a film in ms; null for a picture
     * @param ?string $id where the application keeps it
     */
    public static function of(string $name, Size $size, ?int $lengthMs = null, ?string $id = null): self
    {
        return new self($name, $size, $lengthMs, $id);
    }

    /**
     * A media as it stands in a design. A mark of the house style is a picture of 1 px until it is known (Layout\Style).
     *
     * @throws DocumentRefused
     */
    public static function fromNode(Node $node): self
    {
        if ($node->has('mark')) {
            $mark = $node->object('mark')->field('mark');
            if (preg_match('/^' . Field::NAME_IN_STYLE . '$/D', $mark->text(1, 80)) !== 1) {
                throw $mark->refused(Reason::ValueRange, 'is no name of the house style; small letters, figures and dashes are right, a letter first.');
            }

            return new self($mark->text(1, 80), Size::px(1, 1), null, null, true);
        }
        $node->object('id', 'name', 'width', 'height', 'length_ms');

        return new self(
            $node->field('name')->name(255),
            Size::px($node->field('width')->int(1, Size::LONGEST, 'px'), $node->field('height')->int(1, Size::LONGEST, 'px')),
            $node->optional('length_ms')?->int(1, unit: 'ms'),
            $node->optional('id')?->id(),
        );
    }

    /** A media itself, or a mark of the house style. */
    public static function field(): Field
    {
        return Field::either(
            Field::object(self::fields(), Role::Media),
            Field::object(Fields::of(['mark' => Field::pattern('^' . Field::NAME_IN_STYLE . '$')->required()])->named('NamedMark'), Role::Media),
        );
    }

    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of([
            'id' => Field::id(Role::MediaId),
            'name' => Field::name(255)->required(),
            'width' => Field::int(1, Size::LONGEST)->required(),
            'height' => Field::int(1, Size::LONGEST)->required(),
            'length_ms' => Field::int(1)->saying('own length of a film, ms; a picture has none'),
        ])->named('Media');
    }

    public function isFilm(): bool
    {
        return $this->lengthMs !== null;
    }

    /** @return array<string, string|int> as it stands in documents */
    public function toArray(): array
    {
        $array = $this->id === null ? [] : ['id' => $this->id];
        $array += ['name' => $this->name] + $this->size->toArray();

        return $this->lengthMs === null ? $array : $array + ['length_ms' => $this->lengthMs];
    }
}
