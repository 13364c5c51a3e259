<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/** Sessions in MariaDB, so that several app servers share them; without locks, so that one page's calls run side by side. */
final class Sessions extends PdoSessionHandler
{
    public function __construct(#[\SensitiveParameter] string $url)
    {
        parent::__construct($url, ['lock_mode' => self::LOCK_NONE]);
    }
}
