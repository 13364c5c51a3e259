<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

/** Which things whoever asks may know of. What is beyond his reach is for him as if it was not there. */
interface Reach
{
    public const ALL = '1 = 1';

    /**
     * @param 'display'|'place'|'design'|'media' $kind
     * @param string $id column or field that holds the id of a thing
     * @return string condition that holds for things within reach, in SQL and in DQL
     */
    public function condition(string $kind, string $id): string;
}
