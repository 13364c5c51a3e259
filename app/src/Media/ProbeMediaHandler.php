<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use UpperPane\Core\Media\NotAcceptable;

/** Probes what was brought in, draws its thumbnail, and publishes both under the SHA-256 of their bytes. */
#[AsMessageHandler]
final readonly class ProbeMediaHandler
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Probe $probe,
        #[Target('incoming')]
        private FilesystemOperator $incoming,
        private Publisher $publisher,
    ) {
    }

    public function __invoke(ProbeMedia $job): void
    {
        $asset = $this->entities->find(MediaAsset::class, $job->assetId);
        if ($asset === null || $asset->state === MediaAsset::READY || !$this->incoming->fileExists($asset->id)) {
            return;
        }
        $asset->state = MediaAsset::PROBING;
        $this->entities->flush();
        $folder = sys_get_temp_dir() . '/upper-pane-' . bin2hex(random_bytes(8));
        mkdir($folder, 0700);
        try {
            $file = $folder . '/media';
            file_put_contents($file, $this->incoming->readStream($asset->id));
            $probed = $this->probe->look($file, $asset->name);
            $thumbnail = $folder . '/thumbnail.png';
            $this->probe->thumbnail($file, $asset->name, $probed, $thumbnail);
            [$path, $sha256] = $this->publisher->file($file, $probed->extension);
            [$thumbnailPath] = $this->publisher->file($thumbnail, 'png');
            $asset->ready($probed, $sha256, $path, $thumbnailPath);
        } catch (NotAcceptable $e) {
            $asset->refuse($e->getMessage());
        } finally {
            array_map(unlink(...), glob($folder . '/*') ?: []);
            rmdir($folder);
        }
        $this->entities->flush();
        $this->incoming->delete($asset->id);
    }
}
