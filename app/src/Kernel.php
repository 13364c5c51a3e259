<?php

declare(strict_types=1);

namespace UpperPane\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\DependencyInjection\ContainerBuilder;
use Symfony\Component\Finder\Finder;
use Symfony\Component\HttpKernel\Kernel as HttpKernel;

final class Kernel extends HttpKernel
{
    use MicroKernelTrait;

    /** What is compiled depends on the core, and on what measures and draws for it. */
    protected function build(ContainerBuilder $container): void
    {
        $root = $this->getProjectDir();
        $hash = hash_init('sha256');
        $files = iterator_to_array(Finder::create()->files()->name('*.php')->in(["$root/core/src", "$root/app/src/Text"])->sortByName(), false);
        foreach ($files as $file) {
            hash_update_file($hash, $file->getPathname());
        }
        $container->setParameter('app.core_build', substr(hash_final($hash), 0, 16));
    }

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
