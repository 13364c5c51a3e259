<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;

/** Looks again into a media that could not be looked into. */
final readonly class LookAgain
{
    public function __construct(private MediaAssets $media, private ProbeMediaHandler $probe, private Transaction $transaction, private Record $record)
    {
    }

    public function of(string $id): MediaAsset
    {
        return $this->transaction->of(function () use ($id): MediaAsset {
            $asset = $this->media->locked($id);
            if ($asset->state !== MediaAsset::FAILED) {
                throw new Problem(409, 'media.not-failed', sprintf('"%s" is %s; there is nothing to try again.', $asset->name, $asset->state));
            }
            $this->probe->again(new ProbeMedia($id));
            $this->record->note(Did::TriedAgain, $asset->about());

            return $asset;
        });
    }
}
