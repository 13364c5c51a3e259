<?php

declare(strict_types=1);

// PHP 8.5's get_error_handler(), which Symfony 7.4 calls and the polyfill package would bring.
if (!function_exists('get_error_handler')) {
    function get_error_handler(): ?callable
    {
        $handler = set_error_handler(null);
        restore_error_handler();

        return $handler;
    }
}
