<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Path;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/** Interoperable regular expressions (RFC 9485), as those of PCRE. */
final class Regexp
{
    private const MOST_KEPT = 500;

    /** A text that takes more steps of trying is left: many rows are asked the same. */
    private const LIMIT = '(*LIMIT_MATCH=50000)';

    private const NORMAL = '[^\x{0}-\x{0}.\\\\?*+\[\](){}|]';
    private const ESCAPED = '\\\\[()*+\-.?\[\\\\\]^nrt{|}]';
    private const CATEGORY = '\\\\[pP]\{(?:L[lmotu]?|M[cen]?|N[dlo]?|P[cdefios]?|Z[lps]?|S[ckmo]?|C[cfno]?)\}';

    /** @var array<string, ?string> by what is written; null where that is none */
    private static array $known = [];

    /**
     * Whether all of the text is matched, or a part of it; false for what is no such expression.
     *
     * @throws DataRefused where it takes too long to find out
     */
    public static function matches(string $text, string $written, bool $whole): bool
    {
        if (!array_key_exists($written, self::$known)) {
            if (count(self::$known) >= self::MOST_KEPT) {
                self::$known = [];
            }
            self::$known[$written] = self::asPcre($written);
        }
        $pattern = self::$known[$written];
        if ($pattern === null) {
            return false;
        }
        $found = @preg_match('~' . self::LIMIT . ($whole ? "^(?:$pattern)$~uD" : "$pattern~u"), $text);
        if ($found === false && preg_last_error() !== PREG_INTERNAL_ERROR) {
            $message = 'The expression "%s" takes too many steps on a text; one without repeats of repeats is right.';
            throw DataRefused::because(Reason::PathSteps, sprintf($message, mb_strimwidth($written, 0, 40, '...')), '');
        }

        return $found === 1;
    }

    private static function asPcre(string $written): ?string
    {
        $class = '\[\^?(?:-?(?:' . self::inClass() . '))*-?\]';
        $kept = self::ESCAPED . '|' . self::CATEGORY . '|\)';
        $token = '~\G(?:(?<class>' . $class . ')|(?<any>\.)|(?<repeat>[*+?]|\{\d+(?:,\d*)?\})|(?<opening>[(|])|(?<kept>' . $kept . ')|(?<plain>' . self::NORMAL . '))~u';
        $pattern = '';
        // A repeat stands behind something that can be repeated, and once: in PCRE a second one means something else.
        $repeatable = false;
        for ($at = 0; $at < strlen($written); $at += strlen((string) $m[0])) {
            if (preg_match($token, $written, $m, PREG_UNMATCHED_AS_NULL, $at) !== 1 || (isset($m['repeat']) && !$repeatable)) {
                return null;
            }
            $repeatable = !isset($m['repeat']) && !isset($m['opening']);
            $pattern .= match (true) {
                isset($m['class']) => str_replace(['~', '[:'], ['\~', '[\:'], $m['class']),
                isset($m['any']) => '[^\n\r]',
                // ^ and $ mean the ends, as the compliance suite of RFC 9535 has it.
                isset($m['plain']) && $m[0] !== '^' && $m[0] !== '$' => preg_quote((string) $m[0], '~'),
                default => $m[0],
            };
        }

        return @preg_match("~$pattern~u", '') === false ? null : $pattern;
    }

    /** A character within a class, or a range, or a category. */
    private static function inClass(): string
    {
        $one = '(?:[^\-\[\\\\\]]|' . self::ESCAPED . ')';

        return "$one(?:-$one)?|" . self::CATEGORY;
    }
}
