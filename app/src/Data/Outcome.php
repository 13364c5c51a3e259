<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

/** What came of fetching a source. */
enum Outcome: string
{
    /** Something else than before was read. */
    case Read = 'read';
    /** It is as it was. */
    case Same = 'same';
    /** Something came that cannot be read. */
    case Refused = 'refused';
    /** Nothing came, or not all of it. */
    case Failed = 'failed';
}
