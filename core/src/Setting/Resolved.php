<?php

declare(strict_types=1);

namespace UpperPane\Core\Setting;

use UpperPane\Core\Document\Node;
use UpperPane\Core\Time\OpeningHours;
use UpperPane\Core\Time\Schedule\Played;

/** What holds at a place or on a display: each value, where it comes from, and what it takes the place of. */
final readonly class Resolved
{
    /**
     * @param array<string, array{value: mixed, from: string, instead_of: list<array{from: string, value: mixed}>}> $values by name; those that it takes the place of, the nearest first
     * @param array<string, array<string, string>> $lists by name: where each id comes from, in their order
     * @param ?list<string> $tags of the display itself
     */
    private function __construct(private string $id, private array $values, private array $lists, private ?array $tags)
    {
    }

    public static function nothing(): self
    {
        return new self('', [], [], null);
    }

    /** The same for a place or display below, that states this. */
    public function below(string $id, Settings $settings): self
    {
        $values = $this->values;
        foreach ($settings->values as $name => $value) {
            $above = $values[$name] ?? null;
            $values[$name] = ['value' => $value, 'from' => $id, 'instead_of' => $above === null ? [] : [['from' => $above['from'], 'value' => $above['value']], ...$above['instead_of']]];
        }
        $lists = $this->lists;
        foreach ($settings->lists as $name => $change) {
            $lists[$name] = $change->made($lists[$name] ?? [], $id);
        }

        return new self($id, $values, $lists, $settings->tags);
    }

    public function value(string $name): mixed
    {
        return $this->values[$name]['value'] ?? (isset($this->lists[$name]) ? array_map(strval(...), array_keys($this->lists[$name])) : null);
    }

    /** @return list<string> ids of the overlays that lie above what plays, in their order */
    public function overlays(): array
    {
        return $this->listed(Settings::OVERLAYS);
    }

    /** @return list<string> ids of the maps of triggers that run there, in their order */
    public function triggers(): array
    {
        return $this->listed(Settings::TRIGGERS);
    }

    /** @return list<string> */
    private function listed(string $name): array
    {
        return array_map(strval(...), array_keys($this->lists[$name] ?? []));
    }

    public function timezone(): ?string
    {
        $timezone = $this->value(Settings::TIMEZONE);

        return is_string($timezone) ? $timezone : null;
    }

    public function style(): ?string
    {
        $style = $this->value(Settings::STYLE);

        return is_string($style) ? $style : null;
    }

    public function standby(): ?Played
    {
        $standby = $this->value(Settings::STANDBY);

        return $standby === null ? null : Played::fromNode(Node::root($standby));
    }

    /** Null where nobody says when it is open. */
    public function hours(): ?OpeningHours
    {
        $hours = $this->value(Settings::HOURS);

        return $hours === null ? null : OpeningHours::fromNode(Node::root($hours));
    }

    /** @return list<string> none where nobody has chosen */
    public function languages(): array
    {
        $languages = $this->value(Settings::LANGUAGES);

        return is_array($languages) ? array_values(array_unique(array_filter($languages, is_string(...)))) : [];
    }

    /** @return array<string, string|int|float> by name */
    public function vars(): array
    {
        $vars = [];
        foreach ($this->values as $name => ['value' => $value]) {
            if (str_starts_with($name, Settings::VARS . '.') && (is_string($value) || is_int($value) || is_float($value))) {
                $vars[substr($name, strlen(Settings::VARS) + 1)] = $value;
            }
        }

        return $vars;
    }

    /**
     * All that holds there, one beside the other, so that two of them can be told apart.
     *
     * @return array{style: string, languages: string, standby: string, vars: array<string, string|int|float>, overlays: string, triggers: string, hours: list<array<string, mixed>>}
     *         none or "" for what nobody states
     */
    public function settled(): array
    {
        return ['style' => $this->style() ?? '', 'languages' => implode(',', $this->languages()), 'standby' => $this->standby()?->key() ?? '', 'vars' => $this->vars()]
            + [Settings::OVERLAYS => implode(',', $this->overlays()), Settings::TRIGGERS => implode(',', $this->triggers())]
            + [Settings::HOURS => $this->hours()?->toArray() ?? []];
    }

    /** Whether a value that a place states decides here, or for a list at least one id of it. */
    public function comesFrom(string $name, string $place): bool
    {
        return match (true) {
            in_array($name, Settings::LISTS, true) => in_array($place, $this->lists[$name] ?? [], true),
            $name === Settings::TAGS => $this->tags !== null && $place === $this->id,
            default => ($this->values[$name]['from'] ?? null) === $place,
        };
    }

    /** @return array<string, array<string, mixed>> by name, what nobody states left out */
    public function toArray(): array
    {
        $told = [];
        foreach (Settings::names() as $name) {
            $list = $this->lists[$name] ?? null;
            foreach ($this->values as $known => $value) {
                if ($known === $name || str_starts_with($known, "$name.")) {
                    $told[$known] = $value;
                }
            }
            if ($list !== null) {
                $told[$name] = ['value' => array_map(strval(...), array_keys($list)), 'from' => array_values($list)];
            }
        }
        if ($this->tags !== null) {
            $told[Settings::TAGS] = ['value' => $this->tags, 'from' => $this->id, 'instead_of' => []];
        }

        return $told;
    }
}
