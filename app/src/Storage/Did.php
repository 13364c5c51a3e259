<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

/** What somebody did with a thing, as the record tells it. */
enum Did: string
{
    case Made = 'made';
    case Saved = 'saved';
    case KeptAside = 'kept-aside';
    case Changed = 'changed';
    case Moved = 'moved';
    case Aligned = 'aligned';
    case HandedOver = 'handed-over';
    case PutBack = 'put-back';
    case PutUp = 'put-up';
    case TookDown = 'took-down';
    case Asked = 'asked';
    case Bound = 'bound';
    case Revoked = 'revoked';
    case TriedAgain = 'tried-again';
    case Deleted = 'deleted';
    case BroughtBack = 'brought-back';

    /** @param array<mixed> $more what was noted beside it */
    public function says(array $more): string
    {
        $text = static fn (string $field): string => is_scalar($more[$field] ?? null) ? (string) $more[$field] : '';
        $note = $text('note') === '' ? '' : ', ' . $text('note');

        return match ($this) {
            self::Made => $text('from') === '' ? 'made it' : sprintf('made it as a copy of "%s"', $text('from')),
            self::Saved => sprintf($text('first') === '' ? 'saved revision %2$s%3$s' : 'saved revisions %1$s to %2$s%3$s', $text('first'), $text('revision'), $note),
            self::KeptAside => sprintf('saved too late: kept aside, based on revision %s', $text('base')),
            self::Changed => sprintf('changed it: %s', $text('what')),
            self::Moved => sprintf('moved it from "%s" to "%s"', $text('from'), $text('to')),
            self::Aligned => $text('minutes') === '0' ? 'ended its alignment' : sprintf('had it aligned for %s min', $text('minutes')),
            self::HandedOver => $text('release') === ''
                ? sprintf('handed it over to %s', $text('where'))
                : sprintf('handed over "%s" as release %s', $text('what'), $text('release')),
            self::PutBack => sprintf('put "%s" back, release %s as release %s', $text('what'), $text('back'), $text('release')),
            self::PutUp => sprintf('put up the %s "%s"%s', $text('kind'), $text('what'), $text('reason') === '' ? '' : ': ' . $text('reason')),
            self::TookDown => sprintf('took the %s "%s" down', $text('kind'), $text('what')),
            self::Asked => sprintf('asked it for the signal "%s" from the panel "%s"', $text('signal'), $text('panel')),
            self::Bound => sprintf('bound the player "%s"', $text('player')),
            self::Revoked => sprintf('took the address of the player "%s" back', $text('player')),
            self::TriedAgain => 'tried again',
            self::Deleted => 'deleted it',
            self::BroughtBack => 'brought it back from the bin',
        };
    }
}
