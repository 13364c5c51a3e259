<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Playback\FirstShown;
use UpperPane\Core\Units\Instant;

/** Why something that is saved is seen nowhere, in a word and in a sentence. */
final readonly class NeverShown
{
    /** Of so many designs that use it the names are told. */
    private const NAMED = 3;

    /** @param string $never `unattached`, `unhanded`, or a reason of FirstShown */
    private function __construct(public string $never, public string $says)
    {
    }

    /** Where it stands, nothing shows it. */
    public static function standing(FirstShown $found): self
    {
        return new self((string) $found->never, ucfirst($found->why) . '.');
    }

    /** A schedule, on a display on which something else stands; null for one that rules nowhere. */
    public static function schedule(?string $display): self
    {
        return $display === null
            ? new self('unattached', 'It rules on no display.')
            : new self('unhanded', sprintf('It is not handed over: on %s something else stands.', $display));
    }

    /**
     * By a schedule that is not handed over.
     *
     * @param string $schedule its name
     * @param string $display the name of the first on which it rules
     * @param FirstShown $found what would be seen there
     */
    public static function bySchedule(string $schedule, string $display, FirstShown $found): self
    {
        return $found->atMs === null ? self::standing($found) : new self('unhanded', sprintf(
            'Not handed over: by schedule "%s" it would be seen on %s from %s UTC.',
            $schedule,
            $display,
            strtr(substr((string) Instant::ofMs($found->atMs), 0, 16), 'T', ' '),
        ));
    }

    /** @param list<string> $users names of the designs that use it, none of which is handed over */
    public static function usedIn(array $users): self
    {
        if ($users === []) {
            return new self('unattached', 'It is handed over to no display, and no layout, playlist or schedule uses it.');
        }
        $left = count($users) - self::NAMED;

        return new self('unhanded', sprintf(
            'It is in %s%s, which %s handed over to no display.',
            implode(', ', array_map(static fn (string $user): string => "\"$user\"", array_slice($users, 0, self::NAMED))),
            $left > 0 ? " and $left more" : '',
            count($users) === 1 ? 'is' : 'are',
        ));
    }

    /** @return array{never: string, says: string} */
    public function toArray(): array
    {
        return ['never' => $this->never, 'says' => $this->says];
    }
}
