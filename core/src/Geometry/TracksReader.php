<?php

declare(strict_types=1);

namespace UpperPane\Core\Geometry;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/** Reads track sizes from text, once, from left to right. */
final class TracksReader
{
    private const NAMES = 'fr, px, %, minmax(a, b) and repeat(n, ...)';

    private int $at = 0;

    public function __construct(private readonly string $text, private readonly string $path)
    {
    }

    /**
     * @return non-empty-list<Track>
     * @throws DocumentRefused
     */
    public function tracks(): array
    {
        $tracks = $this->list(end: null);

        return $tracks === [] ? throw $this->refused('has no track; "7fr 3fr" is right.') : $tracks;
    }

    /** @return list<Track> */
    private function list(?string $end): array
    {
        $tracks = [];
        for ($this->space(); $this->at < strlen($this->text); $this->space()) {
            if ($this->text[$this->at] === $end) {
                return $tracks;
            }
            $begin = $this->at;
            if ($tracks !== [] && !$this->parted($begin)) {
                throw $this->refused('wants a space between two tracks.');
            }
            $found = $this->word() === 'repeat' && $this->taken('(') ? $this->repeated($begin, $end !== null) : [$this->track($begin)];
            array_push($tracks, ...$found);
            if (count($tracks) > Tracks::MOST) {
                $this->at = $begin;
                throw $this->refused(sprintf('comes to more than %d tracks.', Tracks::MOST));
            }
        }

        return $end === null ? $tracks : throw $this->refused("wants a \"$end\" here.");
    }

    /** @return list<Track> */
    private function repeated(int $begin, bool $within): array
    {
        if ($within) {
            $this->at = $begin;
            throw $this->refused('has a repeat within a repeat; CSS knows none.');
        }
        $this->space();
        if (preg_match('/\G\+?0*([1-9]\d{0,5})(?![\d.a-z%])/i', $this->text, $m, 0, $this->at) !== 1) {
            throw $this->refused('wants a whole number of repetitions from 1 here.');
        }
        $times = (int) $m[1];
        $this->at += strlen($m[0]);
        $this->expect(',');
        $tracks = $this->list(')');
        if ($tracks === []) {
            throw $this->refused('repeats no track.');
        }
        if ($times * count($tracks) > Tracks::MOST) {
            $this->at = $begin;
            throw $this->refused(sprintf('comes to %d tracks; at most %d are divided.', $times * count($tracks), Tracks::MOST));
        }
        $this->expect(')');

        return array_merge(...array_fill(0, $times, $tracks));
    }

    private function track(int $begin): Track
    {
        $this->at = $begin;
        if ($this->word() === 'minmax' && $this->taken('(')) {
            $this->space();
            $least = $this->at;
            $from = $this->plain();
            if ($from->fr > 0.0 || str_ends_with($from->written(), 'fr')) {
                $this->at = $least;
                throw $this->refused('has fr as the least of a minmax; px and % are right there.');
            }
            $this->expect(',');
            $this->space();
            $most = $this->plain();
            $this->expect(')');

            return Track::between($from, $most);
        }
        $this->at = $begin;

        return $this->plain();
    }

    private function plain(): Track
    {
        // The end of a track keeps figures such as 1e3fr and 5emfr apart: the unit is what follows the longest number.
        if (preg_match('/\G([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(fr|px|%|)(?![\w.%-])/i', $this->text, $m, 0, $this->at) !== 1 || str_ends_with($m[1], '.')) {
            throw $this->refused(sprintf('cannot be read; %s are.', self::NAMES));
        }
        $figure = (float) $m[1];
        $unit = strtolower($m[2]);
        if ($figure < 0.0) {
            throw $this->refused('is negative.');
        }
        if ($figure > Tracks::largest()) {
            throw $this->refused(sprintf('is more than %d.', Tracks::largest()));
        }
        if ($unit === '' && $figure !== 0.0) {
            throw $this->refused('has no unit; fr, px and % are known.');
        }
        $this->at += strlen($m[0]);

        return match ($unit) {
            'fr' => Track::fr($figure),
            '%' => Track::percent($figure),
            default => Track::px($figure),
        };
    }

    private function word(): string
    {
        return preg_match('/\G[a-z]+/i', $this->text, $m, 0, $this->at) === 1 ? strtolower($m[0]) : '';
    }

    /** Goes past the word and this sign, where they stand next to each other. */
    private function taken(string $sign): bool
    {
        $after = $this->at + strlen($this->word());
        if (($this->text[$after] ?? '') !== $sign) {
            return false;
        }
        $this->at = $after + 1;

        return true;
    }

    /** Whether the track that begins here stands apart from the one before it; a closing bracket parts as well. */
    private function parted(int $begin): bool
    {
        return ctype_space($this->text[$begin - 1]) || $this->text[$begin - 1] === ')';
    }

    private function expect(string $sign): void
    {
        $this->space();
        if (($this->text[$this->at] ?? '') !== $sign) {
            throw $this->refused("wants a \"$sign\" here.");
        }
        $this->at++;
    }

    private function space(): void
    {
        $this->at += strspn($this->text, " \t\n\r\f", $this->at);
    }

    private function refused(string $message): DocumentRefused
    {
        $rest = mb_strimwidth(mb_strcut($this->text, $this->at), 0, 24, '...');
        $place = mb_strlen(mb_strcut($this->text, 0, $this->at)) + 1;

        return DocumentRefused::because(Reason::TracksSyntax, sprintf(
            '%s %s',
            $rest === '' ? sprintf('"%s", at its end,', mb_strimwidth($this->text, 0, 60, '...')) : sprintf('"%s" at character %d', $rest, $place),
            $message,
        ), $this->path);
    }
}
