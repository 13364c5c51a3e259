<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Told\Languages;
use UpperPane\Core\Units\Instant;

/** Many at once: a template filled in with each of some rows of data. */
final readonly class FilledRows
{
    /**
     * @param array<string, Slot> $slots that are filled in, by their ids
     * @param array<string, Message|array<string, Message>> $map message of each, or of each of its languages; one whose pattern is the name of a field is that field
     */
    private function __construct(private Layout $template, private array $slots, private array $map, private ?Message $name)
    {
    }

    /**
     * @param Node $map by slot: a field's name, a message over the row, or such by language
     * @param ?string $name message over the row; the template's name and a number where there is none
     * @throws Refused where there is no such slot, or a message cannot be read
     */
    public static function of(Layout $template, Node $map, ?string $name = null): self
    {
        $slots = array_combine(array_map(static fn (Slot $slot): string => $slot->head()->id, $template->slots), $template->slots);
        [$chosen, $messages] = [[], []];
        $message = static fn (Node $one): Message => Message::parse($one->text(0, TextSlot::LONGEST), $one->path);
        foreach ($map->members(Slots::MOST) as $id => $node) {
            $chosen[$id] = $slots[$id] ?? throw $node->refused(Reason::RefUnknown, sprintf('is no slot of "%s"; there are %s.', $template->name, implode(', ', array_keys($slots)) ?: 'none'));
            if (is_string($node->value)) {
                $messages[$id] = $message($node);
                continue;
            }
            $messages[$id] = [];
            foreach ($node->members(Languages::MOST) as $language => $one) {
                Languages::check((string) $language, $one);
                $messages[$id][(string) $language] = $message($one);
            }
        }

        return new self($template, $chosen, $messages, $name === null ? null : Message::parse($name, '/name'));
    }

    /**
     * @param list<array<string, string|int|float|bool|Instant|Day|null>> $rows
     * @param Formats $formats in the language of the rows
     * @param array<string, ?string> $fallbacks what messages tell for a value that is missing, by name
     * @return list<array<string, mixed>> documents in the format `upper-pane/filled@1`, one for each row
     * @throws Refused where what a row says does not suit a slot
     */
    public function filled(array $rows, Formats $formats, array $fallbacks): array
    {
        $filled = [];
        foreach ($rows as $number => $row) {
            $values = [];
            foreach ($this->map as $id => $message) {
                $of = fn (Message $one): string|int|float|bool|null => array_key_exists($one->pattern, $row)
                    ? $this->slots[$id]->ofField($row[$one->pattern], $formats)
                    : $one->tell($row, $formats, $fallbacks)->text;
                $value = $message instanceof Message ? $of($message) : array_filter(array_map($of, $message), static fn (mixed $one): bool => $one !== null);
                if ($value !== null && $value !== []) {
                    $this->slots[$id]->read(Node::at($value, "/rows/$number/$id"));
                    $values[$id] = $value;
                }
            }
            $n = $number + 1;
            $name = $this->name === null ? '' : trim((string) preg_replace('/[\x00-\x1F\x7F\s]+/u', ' ', $this->name->tell($row, $formats, $fallbacks)->text));
            $filled[] = [
                'format' => Filled::FORMAT,
                'id' => sprintf('%s-%d', mb_substr($this->template->id, 0, 79 - strlen((string) $n)), $n),
                'name' => mb_substr($name === '' ? sprintf('%s %d', $this->template->name, $n) : $name, 0, 200),
                'template' => $this->template->id,
                'values' => $values === [] ? new \stdClass() : $values,
            ];
        }

        return $filled;
    }
}
