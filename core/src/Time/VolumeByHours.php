<?php

declare(strict_types=1);

namespace UpperPane\Core\Time;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;

/** How loud an item is, in percent; in some hours of the day, on the clock on the wall of its display, otherwise. */
final readonly class VolumeByHours
{
    /** @param list<array{int, int, int}> $hours from and to, s since midnight, and the volume then; a window may go past midnight */
    private function __construct(public int $volume, public array $hours)
    {
    }

    /** Of one of the hours. */
    public static function fields(): Fields
    {
        /** @var ?Fields $fields made once, since it never changes */
        static $fields = null;

        return $fields ??= Fields::of(['hours' => Validity::windowField()->required(), 'volume' => Field::int(0, 100)->required()])->named('Level');
    }

    public static function mute(): self
    {
        return new self(0, []);
    }

    /**
     * @param ?Node $volume percent; without it, mute
     * @param ?Node $levels list of `{"hours": ["22:00", "06:00"], "volume": 10}`; where two hold, the first one does
     * @throws DocumentRefused
     */
    public static function fromNodes(?Node $volume, ?Node $levels): self
    {
        $hours = [];
        foreach ($levels?->items(24) ?? [] as $level) {
            $level->object(...self::fields()->names());
            $hours[] = [...Validity::window($level->field('hours')), $level->field('volume')->int(0, 100, 'percent')];
        }

        return new self($volume?->int(0, 100, 'percent') ?? 0, $hours);
    }

    /** A volume of which so many percent are heard, in whole percent, half up. */
    public static function share(int $volume, int $percent): int
    {
        return intdiv($volume * $percent + 50, 100);
    }

    /** The same, so loud of what it is: percent. */
    public function heard(int $percent): self
    {
        return new self(
            self::share($this->volume, $percent),
            array_map(static fn (array $level): array => [$level[0], $level[1], self::share($level[2], $percent)], $this->hours),
        );
    }

    /** @param int $ofDay s since midnight */
    public function at(int $ofDay): int
    {
        foreach ($this->hours as [$begin, $end, $volume]) {
            if ($begin < $end ? $ofDay >= $begin && $ofDay < $end : $ofDay >= $begin || $ofDay < $end) {
                return $volume;
            }
        }

        return $this->volume;
    }

    /** Whether anything is heard at any time of the day. */
    public function isHeard(): bool
    {
        return $this->isHeardWith($this);
    }

    /** Whether there is a time of the day at which both are heard. */
    public function isHeardWith(self $other): bool
    {
        $edges = [0];
        foreach ([...$this->hours, ...$other->hours] as [$begin, $end]) {
            array_push($edges, $begin % 86_400, $end % 86_400);
        }
        foreach ($edges as $edge) {
            if ($this->at($edge) > 0 && $other->at($edge) > 0) {
                return true;
            }
        }

        return false;
    }
}
