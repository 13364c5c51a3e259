<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\DisplayMatch;
use UpperPane\Core\Layout\Check\ElementOutside;
use UpperPane\Core\Layout\Check\ItemCut;
use UpperPane\Core\Layout\Check\ItemFit;
use UpperPane\Core\Layout\Check\PlayerAbility;
use UpperPane\Core\Layout\Check\RecipeDiffers;
use UpperPane\Core\Layout\Check\SeamCrossed;
use UpperPane\Core\Layout\Check\SpanPartial;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Check\ZoneEmpty;
use UpperPane\Core\Layout\Check\ZoneOverlap;
use UpperPane\Core\Layout\Check\ZoneSliver;
use UpperPane\Core\Layout\Check\ZoneSum;
use UpperPane\Core\Layout\Check\ZoneUncovered;

/** All checks of a layout. A new one is a class in Check/, a line here, and a row in docs/checks.md. */
final readonly class Checks
{
    /** @return list<Check> */
    public static function all(): array
    {
        return [
            new DisplayMatch(),
            new ZoneEmpty(),
            new ElementOutside(),
            new ZoneOverlap(),
            new ZoneSum(),
            new ZoneSliver(),
            new ZoneUncovered(),
            new RecipeDiffers(),
            new ItemFit(),
            new ItemCut(),
            new SeamCrossed(),
            new SpanPartial(),
            new PlayerAbility(),
        ];
    }

    /** What is found in a layout, by itself or as seen on a display. */
    public static function run(Layout $layout, ?Display $display = null): Findings
    {
        $subject = Subject::of($layout, $display);
        $findings = [];
        foreach (self::all() as $check) {
            foreach ($check->findings($subject) as $finding) {
                $findings[] = $finding;
            }
        }

        return new Findings($findings);
    }
}
