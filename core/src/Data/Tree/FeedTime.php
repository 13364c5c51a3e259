<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Units\Instant;
use UpperPane\Core\Units\Moment;

/** Instants as feeds write them: RFC 822 with its obsolete zones (RFC 5322, 4.3), RFC 3339, and the shorter forms of W3C's date and time. */
final readonly class FeedTime
{
    private const MONTHS = ['jan' => 1, 'feb' => 2, 'mar' => 3, 'apr' => 4, 'may' => 5, 'jun' => 6, 'jul' => 7, 'aug' => 8, 'sep' => 9, 'oct' => 10, 'nov' => 11, 'dec' => 12];

    /** Hours ahead of UTC. */
    private const ZONES = ['ut' => 0, 'gmt' => 0, 'utc' => 0, 'z' => 0, 'est' => -5, 'edt' => -4, 'cst' => -6, 'cdt' => -5, 'mst' => -7, 'mdt' => -6, 'pst' => -8, 'pdt' => -7];

    /** As RFC 3339 in UTC; null for what cannot be read. */
    public static function told(string $written): ?string
    {
        $written = trim($written);
        $instant = Moment::ofRfc3339($written) ?? self::ofW3c($written) ?? self::ofRfc822($written);

        return $instant === null ? null : (string) $instant;
    }

    private static function ofW3c(string $written): ?Instant
    {
        if (preg_match('/^(\d{4})(?:-(\d\d)(?:-(\d\d)(?:T(\d\d):(\d\d)(Z|[+-]\d\d:\d\d))?)?)?$/D', $written, $m) !== 1) {
            return null;
        }

        return Moment::ofRfc3339(sprintf('%s-%s-%sT%s:%s:00%s', $m[1], $m[2] ?? '01', $m[3] ?? '01', $m[4] ?? '00', $m[5] ?? '00', $m[6] ?? 'Z'));
    }

    private static function ofRfc822(string $written): ?Instant
    {
        $bare = trim((string) preg_replace('/\([^()]*\)/', ' ', $written));
        if (preg_match('/^(?:[A-Za-z]{3,9}\s*,?\s*)?(\d{1,2})[\s-]+([A-Za-z]{3})[a-z]*[\s-]+(\d{4}|\d\d)\s+(\d{1,2}):(\d\d)(?::(\d\d))?\s*([+-]\d{4}|[A-Za-z]{1,3})?$/D', $bare, $m) !== 1) {
            return null;
        }
        $month = self::MONTHS[strtolower($m[2])] ?? null;
        $zone = strtolower($m[7] ?? 'gmt');
        // Letters alone say nothing that can be relied on (RFC 5322, 4.3): they are UTC.
        $offset = preg_match('/^[+-]/', $zone) === 1 ? substr($zone, 0, 3) . ':' . substr($zone, 3) : sprintf('%+03d:00', self::ZONES[$zone] ?? 0);
        $year = strlen($m[3]) === 4 ? $m[3] : ((int) $m[3] < 50 ? "20$m[3]" : "19$m[3]");

        return $month === null ? null : Moment::ofRfc3339(sprintf('%s-%02d-%02dT%02d:%s:%s%s', $year, $month, $m[1], $m[4], $m[5], ($m[6] ?? '') === '' ? '00' : $m[6], $offset));
    }
}
