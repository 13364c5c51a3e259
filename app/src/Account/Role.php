<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

/** What somebody is at a place, and at all that lie in it. A new role is an entry here. */
enum Role: string
{
    case Reader = 'reader';
    case Editor = 'editor';
    case Operator = 'operator';
    case Installer = 'installer';
    case Designer = 'designer';
    case Administrator = 'administrator';

    /** @return list<Right> */
    public function rights(): array
    {
        return match ($this) {
            self::Reader => [Right::Look],
            self::Editor => [Right::Look, Right::FillIn],
            self::Operator => [Right::Look, Right::FillIn, Right::HandOver],
            self::Installer => [Right::Look, Right::Survey],
            // All documents are hers to hand over, too.
            self::Designer => [Right::Look, Right::FillIn, Right::HandOver, Right::Design],
            self::Administrator => Right::cases(),
        };
    }

    /** Roles that may be given to a guest, who comes by an invitation. */
    public function isForGuests(): bool
    {
        return $this === self::Reader || $this === self::Editor;
    }

    /** @return list<self> those that have a right */
    public static function with(Right $right): array
    {
        return array_values(array_filter(self::cases(), static fn (self $role): bool => in_array($right, $role->rights(), true)));
    }
}
