<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use League\Flysystem\FilesystemOperator;
use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Upload;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;

final readonly class BringInMedia
{
    public function __construct(
        private MediaAssets $media,
        private Transaction $transaction,
        private Record $record,
        private MessageBusInterface $jobs,
        private Who $who,
        private ClockInterface $clock,
        #[Target('incoming')]
        private FilesystemOperator $incoming,
    ) {
    }

    /** Its bytes are kept, and a job looks into them. */
    public function of(Upload $upload): MediaAsset
    {
        return $this->file($upload->file->getPathname(), $upload->name);
    }

    /** The same with a file that was made here. */
    public function file(string $path, string $name): MediaAsset
    {
        $asset = new MediaAsset(strtolower((string) new Ulid()), $name, (int) filesize($path), $this->clock->now(), $this->who->login());
        $stream = fopen($path, 'r') ?: throw new \RuntimeException('The upload cannot be read.');
        try {
            $this->incoming->writeStream($asset->id, $stream);
        } catch (\Throwable $e) {
            $this->incoming->delete($asset->id);
            throw $e;
        }
        // From here on they stay, whatever happens: a transaction of which nobody answers may have landed. Pruning takes what nobody waits for.
        $this->transaction->of(function () use ($asset): void {
            $this->media->add($asset);
            $this->jobs->dispatch(new ProbeMedia($asset->id));
            $this->record->note(Did::Made, $asset->about());
        });

        return $asset;
    }
}
