<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Display\Display;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\CodeScan;
use UpperPane\Core\Layout\Check\DisplayMatch;
use UpperPane\Core\Layout\Check\DurationShort;
use UpperPane\Core\Layout\Check\ElementOutside;
use UpperPane\Core\Layout\Check\FollowCount;
use UpperPane\Core\Layout\Check\ItemCut;
use UpperPane\Core\Layout\Check\ItemFit;
use UpperPane\Core\Layout\Check\LoopDrift;
use UpperPane\Core\Layout\Check\PlayerAbility;
use UpperPane\Core\Layout\Check\RecipeDiffers;
use UpperPane\Core\Layout\Check\SeamCrossed;
use UpperPane\Core\Layout\Check\SoundTwice;
use UpperPane\Core\Layout\Check\SpanPartial;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Check\TextClipped;
use UpperPane\Core\Layout\Check\TextContrast;
use UpperPane\Core\Layout\Check\TextFace;
use UpperPane\Core\Layout\Check\TextOverflow;
use UpperPane\Core\Layout\Check\TextSmall;
use UpperPane\Core\Layout\Check\TickerPace;
use UpperPane\Core\Layout\Check\ZoneEmpty;
use UpperPane\Core\Layout\Check\ZoneOverlap;
use UpperPane\Core\Layout\Check\ZoneSliver;
use UpperPane\Core\Layout\Check\ZoneSum;
use UpperPane\Core\Layout\Check\ZoneUncovered;
use UpperPane\Core\Media\Pixels;
use UpperPane\Core\Text\FaceMetrics;

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
            new FollowCount(),
            new LoopDrift(),
            new SoundTwice(),
            new SeamCrossed(),
            new SpanPartial(),
            new PlayerAbility(),
            new TextFace(),
            new TextOverflow(),
            new TextSmall(),
            new TextContrast(),
            new TextClipped(),
            new TickerPace(),
            new CodeScan(),
            new DurationShort(),
        ];
    }

    /**
     * What is found in a layout, by itself or as seen on a display.
     *
     * @param ?FaceMetrics $faces without it no text is measured
     * @param ?Pixels $pixels without it the contrast over pictures and films is not known
     */
    public static function run(Layout $layout, ?Display $display = null, ?FaceMetrics $faces = null, ?Pixels $pixels = null): Findings
    {
        $subject = Subject::of($layout, $display, $faces, $pixels);
        $findings = [];
        foreach (self::all() as $check) {
            foreach ($check->findings($subject) as $finding) {
                $findings[] = $finding;
            }
        }

        return new Findings($findings);
    }
}
