<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

/** What somebody may do at a place, and at all that lie in it. */
enum Right: string
{
    /** Look at displays, what plays there, and what there is to be filled in. */
    case Look = 'look';
    /** Fill templates in, bring pictures in, and hand that over. */
    case FillIn = 'fill-in';
    /** Hand over whatever there is, and put back what was there before. */
    case HandOver = 'hand-over';
    /** Survey displays, put up places, bind players. */
    case Survey = 'survey';
    /** All documents: layouts, playlists, schedules, sources, house styles; and settings of places. */
    case Design = 'design';
    /** Accounts, and what runs behind the desk. */
    case Administer = 'administer';
}
