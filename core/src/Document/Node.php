<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/**
 * One value of a JSON document together with its JSON Pointer (RFC 6901).
 *
 * Documents are read through nodes only, so every refusal can say where the fault stands.
 */
final readonly class Node
{
    /** More than any raster, length in mm or duration that makes sense: 2^40. */
    private const LARGEST = 1_099_511_627_776;

    public mixed $value;

    private function __construct(mixed $value, public string $path)
    {
        // An object without fields as it is written: in here all objects are arrays.
        $this->value = $value instanceof \stdClass ? get_object_vars($value) : $value;
    }

    public static function root(mixed $value): self
    {
        return new self($value, '');
    }

    /** A value of a document in which it stands at a path (JSON Pointer). */
    public static function at(mixed $value, string $path): self
    {
        return new self($value, $path);
    }

    /**
     * @param int $limit bytes a document may have
     * @throws DocumentRefused when the text is too long or is not JSON
     */
    public static function fromJson(string $json, int $limit = 8_388_608): self
    {
        if (strlen($json) > $limit) {
            throw DocumentRefused::because(Reason::DocumentTooLarge, sprintf(
                'The document has %s bytes; at most %s are read.',
                number_format(strlen($json)),
                number_format($limit),
            ), '');
        }
        try {
            return new self(Json::decode($json), '');
        } catch (\JsonException $e) {
            throw DocumentRefused::because(Reason::JsonSyntax, 'This is not JSON: ' . $e->getMessage() . '.', '');
        }
    }

    public function refused(Reason $reason, string $message): DocumentRefused
    {
        return DocumentRefused::because($reason, ($this->path === '' ? 'The document' : $this->path) . ' ' . $message, $this->path);
    }

    /**
     * The node as an object that has no other fields than these.
     *
     * @throws DocumentRefused
     */
    public function object(string ...$known): self
    {
        if (!is_array($this->value) || ($this->value !== [] && array_is_list($this->value))) {
            throw $this->wrongType('an object');
        }
        foreach (array_keys($this->value) as $name) {
            if (!in_array((string) $name, $known, true)) {
                throw $this->missing((string) $name)->refused(Reason::FieldUnknown, 'is not a known field; known here are ' . implode(', ', $known) . '.');
            }
        }

        return $this;
    }

    /** @throws DocumentRefused when the field is missing */
    public function field(string $name): self
    {
        return $this->optional($name) ?? throw $this->missing($name)->refused(Reason::FieldMissing, 'is missing.');
    }

    public function optional(string $name): ?self
    {
        if (!is_array($this->value) || !array_key_exists($name, $this->value)) {
            return null;
        }

        return new self($this->value[$name], $this->pathTo($name));
    }

    /** A field that is there and not null. */
    public function given(string $name): ?self
    {
        $node = $this->optional($name);

        return $node === null || $node->value === null ? null : $node;
    }

    public function has(string $name): bool
    {
        return is_array($this->value) && array_key_exists($name, $this->value);
    }

    /**
     * @return list<self>
     * @throws DocumentRefused
     */
    public function items(int $most = 10_000): array
    {
        if (!is_array($this->value) || !array_is_list($this->value)) {
            throw $this->wrongType('a list');
        }
        if (count($this->value) > $most) {
            throw $this->refused(Reason::ValueRange, sprintf('has %d entries; at most %d are read.', count($this->value), $most));
        }
        $nodes = [];
        foreach ($this->value as $index => $value) {
            $nodes[] = new self($value, $this->path . '/' . $index);
        }

        return $nodes;
    }

    /**
     * The fields of an object whose names are ids.
     *
     * @return array<string, self>
     * @throws DocumentRefused
     */
    public function members(int $most = 1_000): array
    {
        if (!is_array($this->value) || ($this->value !== [] && array_is_list($this->value))) {
            throw $this->wrongType('an object');
        }
        if (count($this->value) > $most) {
            throw $this->refused(Reason::ValueRange, sprintf('has %d fields; at most %d are read.', count($this->value), $most));
        }
        $nodes = [];
        foreach (array_keys($this->value) as $name) {
            $nodes[(string) $name] = new self($this->value[$name], $this->pathTo((string) $name));
        }

        return $nodes;
    }

    /**
     * The values of an object, whatever they are.
     *
     * @return array<string, mixed>
     * @throws DocumentRefused
     */
    public function fields(int $most = 1_000): array
    {
        return array_map(static fn (self $node): mixed => $node->value, $this->members($most));
    }

    /** @throws DocumentRefused unless a whole number from $least to $most */
    public function int(int $least = -self::LARGEST, int $most = self::LARGEST, string $unit = ''): int
    {
        if (!is_int($this->value)) {
            throw $this->wrongType('a whole number' . ($unit === '' ? '' : " of $unit"));
        }
        $this->inRange($this->value, $least, $most, $unit);

        return $this->value;
    }

    /** @throws DocumentRefused unless a number from $least to $most */
    public function number(float $least = -self::LARGEST, float $most = self::LARGEST, string $unit = ''): float
    {
        if (!is_int($this->value) && !is_float($this->value)) {
            throw $this->wrongType('a number' . ($unit === '' ? '' : " of $unit"));
        }
        $this->inRange($this->value, $least, $most, $unit);

        return (float) $this->value;
    }

    /** @throws DocumentRefused unless a number above zero */
    public function positive(string $unit = ''): float
    {
        $number = $this->number(0.0, unit: $unit);
        if ($number === 0.0) {
            throw $this->refused(Reason::ValueRange, trim("is 0 $unit") . '; it must be above 0.');
        }

        return $number;
    }

    /** @throws DocumentRefused */
    public function bool(): bool
    {
        return is_bool($this->value) ? $this->value : throw $this->wrongType('true or false');
    }

    /** @throws DocumentRefused unless a text of $least to $most characters */
    public function text(int $least = 1, int $most = 200): string
    {
        if (!is_string($this->value)) {
            throw $this->wrongType('a text');
        }
        $length = mb_strlen($this->value);
        if ($length < $least || $length > $most) {
            throw $this->refused(Reason::ValueRange, sprintf('has %d characters; %d to %d are right.', $length, $least, $most));
        }

        return $this->value;
    }

    /** @throws DocumentRefused unless a text of one line, which may stand in a title, a file name and a list */
    public function name(int $most = 200): string
    {
        $name = $this->text(1, $most);
        if (preg_match('/[\x00-\x1F\x7F]/', $name, $m, PREG_OFFSET_CAPTURE) === 1) {
            $message = 'has the control character U+%04X after %d characters; a name is a line of letters, figures and signs.';
            throw $this->refused(Reason::ValueRange, sprintf($message, ord($m[0][0]), mb_strlen(substr($name, 0, $m[0][1]))));
        }

        return $name;
    }

    /** @throws DocumentRefused unless an id: letters, figures, dot, dash and underscore */
    public function id(): string
    {
        $id = $this->text(1, 80);
        if (preg_match('/^[A-Za-z0-9][A-Za-z0-9._-]*$/D', $id) !== 1) {
            throw $this->refused(Reason::ValueRange, sprintf('is "%s"; an id has letters, figures, dots, dashes and underscores.', $id));
        }

        return $id;
    }

    /** @throws DocumentRefused unless one of $values */
    public function oneOf(string ...$values): string
    {
        if (!is_string($this->value) || !in_array($this->value, $values, true)) {
            throw $this->refused(Reason::ValueUnknown, sprintf('is %s; one of %s is right.', $this->shown(), implode(', ', $values)));
        }

        return $this->value;
    }

    /**
     * The name of something of the house style, which stands here in the place of a value: `@name`; null where the value itself does.
     *
     * @throws DocumentRefused where it begins as one and is none
     */
    public function styleName(): ?string
    {
        if (!is_string($this->value) || !str_starts_with($this->value, '@')) {
            return null;
        }

        return preg_match('/' . Field::STYLE_NAME . '/D', $this->value) === 1
            ? substr($this->value, 1)
            : throw $this->refused(Reason::ValueRange, sprintf('is %s; a name of the house style is @ and small letters, figures and dashes, a letter first.', $this->shown()));
    }

    /**
     * What is to be done, by the word in "do", with no field but its own.
     *
     * @param array<string, list<string>> $acts the fields of each act
     * @throws DocumentRefused
     */
    public function act(array $acts): string
    {
        $name = $this->field('do')->oneOf(...array_keys($acts));
        $this->object('do', ...$acts[$name]);

        return $name;
    }

    /** @throws DocumentRefused unless this is the format of that name */
    public function format(string $format): void
    {
        $node = $this->field('format');
        if ($node->value !== $format) {
            throw $node->refused(Reason::FormatUnknown, sprintf('is %s; "%s" is read here.', $node->shown(), $format));
        }
    }

    private function missing(string $name): self
    {
        return new self(null, $this->pathTo($name));
    }

    private function pathTo(string $name): string
    {
        return $this->path . '/' . str_replace(['~', '/'], ['~0', '~1'], $name);
    }

    private function inRange(int|float $value, int|float $least, int|float $most, string $unit): void
    {
        $unit = $unit === '' ? '' : " $unit";
        if ($value < $least) {
            throw $this->refused(Reason::ValueRange, "is $value$unit; it is at least $least$unit.");
        }
        if ($value > $most) {
            throw $this->refused(Reason::ValueRange, "is $value$unit; it is at most $most$unit.");
        }
    }

    private function wrongType(string $right): DocumentRefused
    {
        return $this->refused(Reason::TypeWrong, sprintf('is %s; %s is right.', $this->shown(), $right));
    }

    private function shown(): string
    {
        return match (true) {
            is_string($this->value) => '"' . mb_strimwidth($this->value, 0, 40, '...') . '"',
            is_bool($this->value) => $this->value ? 'true' : 'false',
            is_int($this->value), is_float($this->value) => (string) $this->value,
            $this->value === null => 'null',
            is_array($this->value) && array_is_list($this->value) => 'a list',
            default => 'an object',
        };
    }
}
