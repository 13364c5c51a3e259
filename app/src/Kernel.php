<?php

declare(strict_types=1);

namespace UpperPane\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpKernel\Kernel as HttpKernel;

final class Kernel extends HttpKernel
{
    use MicroKernelTrait;

    public function getProjectDir(): string
    {
        return dirname(__DIR__, 2);
    }

    public function getConfigDir(): string
    {
        return $this->getProjectDir() . '/app/config';
    }

    /** Each instance (bin/lib/common.sh) has a cache of its own, so that tests do not disturb what runs. */
    public function getCacheDir(): string
    {
        $folder = $_SERVER['APP_CACHE_DIR'] ?? null;

        return (is_string($folder) ? $folder : $this->getProjectDir() . '/var/cache') . '/' . $this->environment;
    }

    public function getLogDir(): string
    {
        return $this->getProjectDir() . '/var/log';
    }
}
