<?php

declare(strict_types=1);

namespace UpperPane\Core\Setting;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Role;
use UpperPane\Core\Time\OpeningHours;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Units\UtcOffsets;

/** What one place or display states of itself; the rest comes from above. */
final readonly class Settings
{
    public const TIMEZONE = 'timezone';
    public const STYLE = 'style';
    public const STANDBY = 'standby';
    public const LANGUAGES = 'languages';
    public const HOURS = 'hours';
    public const VARS = 'vars';
    public const TAGS = 'tags';

    /** Lists that may add to what comes from above, or take away from it. */
    public const OVERLAYS = 'overlays';
    public const TRIGGERS = 'triggers';
    public const LISTS = [self::OVERLAYS, self::TRIGGERS];

    /** Of which the nearest alone holds, each by itself. */
    private const SINGLE = [self::TIMEZONE, self::STYLE, self::STANDBY, self::LANGUAGES, self::HOURS];

    public const VAR_NAME = '^[a-z][a-z0-9_]*$';
    private const MOST_VARS = 200;
    private const LONGEST_VAR = 1000;
    private const MOST_LANGUAGES = 20;
    private const MOST_TAGS = 100;

    /**
     * @param array<string, mixed> $values of which the nearest alone holds, by name; those of vars as `vars.NAME`
     * @param array<string, ListChange> $lists
     * @param ?list<string> $tags of a display; they go no further
     */
    private function __construct(public array $values, public array $lists, public ?array $tags)
    {
    }

    public static function none(): self
    {
        return new self([], [], null);
    }

    public static function fields(bool $isOfDisplay = true): Fields
    {
        $language = Field::pattern(Field::LANGUAGE);

        return Fields::of([
            self::TIMEZONE => Field::text(1, 80)->saying('of the tz database'),
            self::STYLE => Field::id(Role::Style)->saying('the house style'),
            self::STANDBY => Played::field()->saying('what plays where nothing is booked and the schedule says nothing'),
            self::LANGUAGES => Field::list($language, self::MOST_LANGUAGES)->saying('in which texts are shown, in this order'),
            self::HOURS => OpeningHours::field(),
            self::VARS => Field::map(Field::either(Field::text(0, self::LONGEST_VAR), Field::number()), self::MOST_VARS, self::VAR_NAME)
                ->saying('what messages tell as {place_NAME}; each is inherited alone'),
        ] + array_fill_keys(self::LISTS, Field::object(ListChange::fields())) + ($isOfDisplay ? [self::TAGS => Field::list(Field::name(80), self::MOST_TAGS)] : []));
    }

    /** @throws DocumentRefused */
    public static function fromNode(?Node $node, bool $isOfDisplay): self
    {
        if ($node === null) {
            return self::none();
        }
        $node->object(...self::fields($isOfDisplay)->names());
        $values = [];
        foreach (self::SINGLE as $name) {
            $field = $node->optional($name);
            if ($field !== null) {
                $values[$name] = self::single($name, $field);
            }
        }
        foreach ($node->optional(self::VARS)?->members(self::MOST_VARS) ?? [] as $name => $var) {
            if (preg_match('/' . self::VAR_NAME . '/D', (string) $name) !== 1) {
                throw $var->refused(Reason::ValueRange, sprintf('is named "%s"; a name is of small letters, figures and underscores, a letter first.', mb_strimwidth((string) $name, 0, 80, '…')));
            }
            $values[self::VARS . ".$name"] = is_int($var->value) ? $var->value : (is_float($var->value) ? $var->number() : $var->text(0, self::LONGEST_VAR));
        }
        $lists = [];
        foreach (self::LISTS as $name) {
            $list = $node->optional($name);
            if ($list !== null) {
                $lists[$name] = ListChange::fromNode($list);
            }
        }
        $tags = $node->optional(self::TAGS)?->items(self::MOST_TAGS);

        return new self($values, $lists, $tags === null ? null : array_map(static fn (Node $one): string => $one->name(80), $tags));
    }

    /** @throws DocumentRefused */
    private static function single(string $name, Node $field): mixed
    {
        return match ($name) {
            self::TIMEZONE => UtcOffsets::name($field),
            self::STANDBY => Played::fromNode($field)->toArray(),
            self::LANGUAGES => array_map(static fn (Node $one): string => preg_match('/' . Field::LANGUAGE . '/D', $one->text(1, 80)) === 1
                ? $one->text(1, 80)
                : throw $one->refused(Reason::ValueRange, sprintf('is "%s"; a language such as en or pt-PT is right.', $one->text(1, 80))), $field->items(self::MOST_LANGUAGES)),
            self::HOURS => OpeningHours::fromNode($field)->toArray(),
            default => $field->id(),
        };
    }

    /**
     * The same with one of them stated otherwise.
     *
     * @param array<string, mixed> $settings as they are written
     * @param string $name `vars.NAME` for one of the vars
     * @param mixed $value null for what comes from above
     * @return array<string, mixed>
     */
    public static function stating(array $settings, string $name, mixed $value): array
    {
        [$first, $var] = [...explode('.', $name, 2), null];
        if ($var !== null) {
            $vars = is_array($settings[$first] ?? null) ? $settings[$first] : [];
            $vars = array_filter([$var => $value] + $vars, static fn (mixed $one): bool => $one !== null);
            $value = $vars === [] ? null : $vars;
        }

        return array_filter([$first => $value] + $settings, static fn (mixed $one): bool => $one !== null);
    }

    /** @param array<string, mixed> $settings as they are written */
    public static function stated(array $settings, string $name): mixed
    {
        [$first, $var] = [...explode('.', $name, 2), null];
        $value = $settings[$first] ?? null;

        return $var === null ? $value : (is_array($value) ? $value[$var] ?? null : null);
    }

    /** Whether there is such a setting; a var of any name is one. */
    public static function knows(string $name): bool
    {
        return in_array($name, [...self::SINGLE, ...self::LISTS, self::TAGS], true)
            || (str_starts_with($name, self::VARS . '.') && preg_match('/' . self::VAR_NAME . '/D', substr($name, strlen(self::VARS) + 1)) === 1);
    }

    /** @return list<string> in the order in which they are told; vars between the first and the lists */
    public static function names(): array
    {
        return [...self::SINGLE, self::VARS, ...self::LISTS, self::TAGS];
    }
}
