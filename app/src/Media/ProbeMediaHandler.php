<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use UpperPane\App\Http\Problem;
use UpperPane\App\Jobs\Owner;
use UpperPane\Core\Media\NotAcceptable;

/** Probes what was brought in, draws its thumbnail, and publishes both under the SHA-256 of their bytes. */
#[AsMessageHandler]
final readonly class ProbeMediaHandler implements Owner
{
    /** @param iterable<Awaiting> $awaiting */
    public function __construct(
        private EntityManagerInterface $entities,
        private Probe $probe,
        #[Target('incoming')]
        private FilesystemOperator $incoming,
        private Publisher $publisher,
        private MessageBusInterface $jobs,
        #[AutowireIterator(Awaiting::class)]
        private iterable $awaiting,
    ) {
    }

    public function __invoke(ProbeMedia $job): void
    {
        $asset = $this->entities->find(MediaAsset::class, $job->assetId);
        // Done already by one who was stopped before he could say so.
        if ($asset === null || in_array($asset->state, [MediaAsset::READY, MediaAsset::REFUSED], true)) {
            $this->incoming->delete($job->assetId);

            return;
        }
        if (!$this->incoming->fileExists($asset->id)) {
            $asset->fail('Its bytes are not here any more. Bring it in again.');
            $this->looked($asset);

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
        $this->looked($asset);
        $this->incoming->delete($asset->id);
    }

    private function looked(MediaAsset $asset): void
    {
        $this->entities->flush();
        foreach ($this->awaiting as $one) {
            $one->looked($asset);
        }
    }

    public static function job(): string
    {
        return ProbeMedia::class;
    }

    public function gaveUp(object $job, string $why): void
    {
        $asset = $this->of($job);
        $asset?->fail("It could not be looked into: $why");
        $asset === null ? $this->entities->flush() : $this->looked($asset);
    }

    public function again(object $job): void
    {
        $asset = $this->of($job) ?? throw Problem::notFound('This media');
        $asset->state = MediaAsset::WAITING;
        $asset->refusal = null;
        $this->entities->flush();
        $this->jobs->dispatch(new ProbeMedia($asset->id));
    }

    public function says(object $job): string
    {
        $asset = $this->of($job);

        return $asset === null ? 'Looking into a media that is not there any more' : sprintf('Looking into "%s"', $asset->name);
    }

    private function of(object $job): ?MediaAsset
    {
        return $job instanceof ProbeMedia ? $this->entities->find(MediaAsset::class, $job->assetId) : null;
    }
}
