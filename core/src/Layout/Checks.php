<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\Budget;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Findings;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Layout\Check\Check;
use UpperPane\Core\Layout\Check\DataTold;
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
use UpperPane\Core\Layout\Check\SpanEdge;
use UpperPane\Core\Layout\Check\SpanPartial;
use UpperPane\Core\Layout\Check\Subject;
use UpperPane\Core\Layout\Check\TextContrast;
use UpperPane\Core\Layout\Check\TextFace;
use UpperPane\Core\Layout\Check\TextOverflow;
use UpperPane\Core\Layout\Check\TextSmall;
use UpperPane\Core\Layout\Check\ZoneEmpty;
use UpperPane\Core\Layout\Check\ZoneGap;
use UpperPane\Core\Layout\Check\ZoneOverlap;
use UpperPane\Core\Layout\Check\ZoneSliver;
use UpperPane\Core\Layout\Check\ZoneSum;
use UpperPane\Core\Layout\Check\ZoneUncovered;
use UpperPane\Core\Layout\Kind\Kinds;

/** All checks of a layout. A new one is a class in Check/ and a line here; of one kind of element alone it stands with that (Kinds::checks). */
final readonly class Checks
{
    /** @return list<Check> */
    public static function all(): array
    {
        return [
            new DisplayMatch(),
            new ZoneEmpty(),
            new ZoneGap(),
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
            new SpanEdge(),
            new PlayerAbility(),
            new TextFace(),
            new TextOverflow(),
            new TextSmall(),
            new TextContrast(),
            new DurationShort(),
            new DataTold(),
            ...Kinds::checks(),
        ];
    }

    /** What is found in a layout, by itself or as seen on a display. */
    public static function run(Composed $layout, ?Surroundings $surroundings = null): Findings
    {
        return self::of(Subject::of($layout, $surroundings ?? new Surroundings()));
    }

    /** The same for whoever looks at the subject himself too. */
    public static function of(Subject $subject): Findings
    {
        $findings = [];
        $counts = [];
        foreach (self::found($subject) as $finding) {
            $counts[$finding->code] = ($counts[$finding->code] ?? 0) + 1;
            if ($counts[$finding->code] <= Budget::FINDINGS) {
                $findings[] = $finding;
            }
        }
        foreach ($counts as $code => $count) {
            if ($count > Budget::FINDINGS) {
                $findings[] = self::more($findings, $code, $count - Budget::FINDINGS);
            }
        }

        return new Findings($findings);
    }

    /**
     * What is found in it as it is first, and what is found besides in another of its languages.
     *
     * @return iterable<Finding>
     */
    private static function found(Subject $subject): iterable
    {
        $known = [];
        foreach (self::all() as $check) {
            foreach ($check->findings($subject) as $finding) {
                $known[self::key($finding)] = true;
                yield $finding;
            }
        }
        foreach ($subject->inOtherLanguages() as [$languages, $other]) {
            foreach (self::all() as $check) {
                foreach ($check->findings($other) as $finding) {
                    $language = array_intersect_key($languages, array_flip($finding->elements));
                    if ($language !== [] && !isset($known[self::key($finding)])) {
                        $known[self::key($finding)] = true;
                        yield $finding->inLanguage(array_values($language)[0]);
                    }
                }
            }
        }
    }

    private static function key(Finding $finding): string
    {
        return serialize([$finding->code, $finding->elements, $finding->message, $finding->measure]);
    }

    /** What is found, each with a cure that has been tried and makes no other finding, if there is one. */
    public static function curing(Layout $layout, Composed $composed, Composer $composer, Surroundings $surroundings): Findings
    {
        return LayoutTrials::cured(self::run($composed, $surroundings), $layout, $composed, $composer, $surroundings);
    }

    /**
     * That there are more of a code than are told, at the gravest level that it has been found at.
     *
     * @param list<Finding> $findings
     */
    private static function more(array $findings, string $code, int $count): Finding
    {
        $levels = array_map(static fn (Finding $one): Level => $one->level, array_values(array_filter($findings, static fn (Finding $one): bool => $one->code === $code)));
        $level = array_values(array_filter(Level::cases(), static fn (Level $one): bool => in_array($one, $levels, true)))[0] ?? Level::Hint;

        return new Finding($code, $level, [], sprintf('There are %s more of these.', number_format($count)), ['more' => $count]);
    }
}
