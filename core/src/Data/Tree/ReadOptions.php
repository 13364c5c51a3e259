<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Field;
use UpperPane\Core\Document\Fields;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Units\Calendar;
use UpperPane\Core\Units\UtcOffsets;

/** How a source is read: what a table is parted by, in which zone floating times are meant, and which span of a calendar is wanted. */
final readonly class ReadOptions
{
    public const DELIMITERS = [',', ';', "\t", '|'];

    /** A calendar tells a day before, and so many days behind, the instant for which it is asked. */
    private const DAYS = 60;

    /** @param array{int, int} $window Unix ms */
    private function __construct(public ?string $delimiter, public bool $hasHeader, public string $timezone, public array $window)
    {
    }

    public static function fields(): Fields
    {
        return Fields::of(['delimiter' => Field::oneOf(...self::DELIMITERS), 'header' => Field::bool()]);
    }

    /**
     * @param int $atMs the instant for which it is read, Unix ms
     * @throws DocumentRefused
     */
    public static function of(?Node $node = null, string $timezone = 'UTC', int $atMs = 0): self
    {
        if (!UtcOffsets::isKnown($timezone)) {
            throw DocumentRefused::because(Reason::ValueUnknown, sprintf('"%s" is no time zone; one such as Europe/Lisbon is right.', $timezone), '');
        }
        $node?->object(...self::fields()->names());

        return new self(
            $node?->optional('delimiter')?->oneOf(...self::DELIMITERS),
            $node?->optional('header')?->bool() ?? true,
            $timezone,
            [$atMs - Calendar::DAY_S * 1000, $atMs + self::DAYS * Calendar::DAY_S * 1000],
        );
    }

    /** The same for occurrences that begin in [from, to), Unix ms. */
    public function within(int $from, int $to): self
    {
        return new self($this->delimiter, $this->hasHeader, $this->timezone, [$from, $to]);
    }
}
