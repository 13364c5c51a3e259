<?php

declare(strict_types=1);

namespace UpperPane\Core\Time\Schedule;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;

/** What a booking or a standby plays, by name only: `{"layout": id}`, `{"playlist": id}` or `{"media": name}`. */
final readonly class Played
{
    private const KINDS = ['layout', 'playlist', 'media'];

    /** @param 'layout'|'playlist'|'media' $kind */
    private function __construct(public string $kind, public string $id)
    {
    }

    /** @throws DocumentRefused unless it is exactly one of the three */
    public static function fromNode(Node $node): self
    {
        $node->object(...self::KINDS);
        $given = array_values(array_filter(self::KINDS, $node->has(...)));
        if (count($given) !== 1) {
            throw $node->refused(Reason::ValueRange, sprintf('names %s; one of layout, playlist and media is right.', $given === [] ? 'nothing' : implode(' and ', $given)));
        }

        return new self($given[0], $given[0] === 'media' ? $node->field('media')->text() : $node->field($given[0])->id());
    }

    /** @param 'layout'|'playlist'|'media' $kind */
    public static function of(string $kind, string $id): self
    {
        return new self($kind, $id);
    }

    public static function field(): Field
    {
        return Field::either(
            Field::object(Fields::of(['layout' => Field::id(Role::LayoutId)->required()])),
            Field::object(Fields::of(['playlist' => Field::id(Role::PlaylistId)->required()])),
            Field::object(Fields::of(['media' => Field::text(1, 200, Role::MediaId)->required()])),
        )->named('Played');
    }

    public function key(): string
    {
        return "$this->kind:$this->id";
    }

    /** @return array<string, string> */
    public function toArray(): array
    {
        return [$this->kind => $this->id];
    }
}
