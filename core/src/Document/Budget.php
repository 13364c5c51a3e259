<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/**
 * How much one document or one question may take (docs/limits.md). What goes beyond is refused in words, before it is worked out.
 */
final readonly class Budget
{
    /** Layouts within layouts, the outermost included. */
    public const LEVELS = 6;

    /** Layouts and playlists that are named within a layout and all that lies in it; each counts wherever it is named. */
    public const MENTIONS = 2_000;

    public const ELEMENTS = 2_000;
    public const ELEMENTS_SAID = 'has %s elements; %s are the most.';

    /** Rows of data that one element tells, at the instant at which it is looked at. */
    public const ROWS = 20_000;

    /** Slots of a loop, or of the loop of its followers, until all begins again. */
    public const SLOTS = 100_000;

    /** Occurrences of bookings, or segments of zones, in one answer. */
    public const SEGMENTS = 200_000;

    /** Findings of one code in one answer. */
    public const FINDINGS = 5_000;

    /** Elements that are checked again, all in all, while cures are tried; a cure of an element that is no zone counts as ten. */
    public const TRIALS = 5_000;

    /** Changes of a display and its zones in one answer, in words. */
    public const STRETCHES = 100_000;

    /** @throws BudgetExceeded */
    public static function ofDepth(int $levels, string $path): void
    {
        self::hold($levels, self::LEVELS, $path, 'is nested %s layouts deep; %s are the most.');
    }

    /** @throws BudgetExceeded */
    public static function ofMentions(int $mentions, string $path): void
    {
        self::hold($mentions, self::MENTIONS, $path, 'is nested layout or playlist number %s; %s are the most, counted at each mention.');
    }

    /** @throws BudgetExceeded */
    public static function ofElements(int $elements, string $path): void
    {
        self::hold($elements, self::ELEMENTS, $path, self::ELEMENTS_SAID);
    }

    /** @throws BudgetExceeded */
    public static function ofRows(int $rows, string $path): void
    {
        self::hold($rows, self::ROWS, $path, 'chooses %s rows; %s are the most that an element tells. A limit, or conditions, choose fewer.');
    }

    /** @throws BudgetExceeded */
    public static function ofRowItems(int $rows, string $path): void
    {
        self::hold($rows, self::ROWS, $path, 'makes items of %s rows of any time; %s are the most that one item plays. Conditions on what does not go with time choose fewer.');
    }

    /** @throws BudgetExceeded */
    public static function ofSlots(int $slots, string $path): void
    {
        self::hold($slots, self::SLOTS, $path, 'makes a loop of %s slots before all begins again; %s are the most. Other counts or weights meet sooner.');
    }

    /** @throws BudgetExceeded */
    public static function ofSegments(int $segments, string $path): void
    {
        self::hold($segments, self::SEGMENTS, $path, 'asks for %s segments or more; %s are the most. Ask for a shorter span.');
    }

    /** @throws BudgetExceeded */
    public static function ofOccurrences(int $occurrences, string $path): void
    {
        self::hold($occurrences, self::SEGMENTS, $path, 'asks for %s occurrences or more; %s are the most. Ask for a shorter span, or let it happen less often.');
    }

    /** @throws BudgetExceeded */
    public static function ofStretches(int $stretches, string $path): void
    {
        self::hold($stretches, self::STRETCHES, $path, 'asks for %s changes or more; %s are the most. Ask for a shorter span.');
    }

    /** @throws BudgetExceeded */
    public static function ofRound(int $times, string $path): void
    {
        self::hold($times, self::SEGMENTS, $path, 'has %s times in one round, of which BYSETPOS chooses; %s are the most.');
    }

    /** @throws BudgetExceeded */
    private static function hold(int $count, int $most, string $path, string $sentence): void
    {
        if ($count > $most) {
            throw BudgetExceeded::of($count, $most, $path, $sentence);
        }
    }
}
