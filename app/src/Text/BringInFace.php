<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Problem;
use UpperPane\App\Http\Upload;
use UpperPane\App\Media\Publisher;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Legibility;
use UpperPane\Core\Document\FaceRefused;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Text\FaceFile;
use UpperPane\Core\Text\FaceIdentity;

final readonly class BringInFace
{
    private const MOST_BYTES = 30_000_000;

    public function __construct(
        private HouseFaces $faces,
        private BroughtFaces $brought,
        private Publisher $publisher,
        private Transaction $transaction,
        private Record $record,
        private Who $who,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @return array{BroughtFace, FaceIdentity}
     * @throws FaceRefused where it is no face that can be set in
     */
    public function of(Upload $upload): array
    {
        [$file, $name] = [$upload->file, $upload->name];
        if ($file->getSize() > self::MOST_BYTES) {
            $megabytes = intdiv((int) $file->getSize(), 1_000_000);
            throw FaceRefused::because(Reason::FaceRefused, sprintf('"%s" has %d MB; a face has at most %d.', $name, $megabytes, intdiv(self::MOST_BYTES, 1_000_000)), '');
        }
        $bytes = $file->getContent();
        try {
            $identity = FaceIdentity::fromBytes($bytes);
        } catch (FaceRefused $e) {
            throw $e->in(sprintf('"%s" is not taken. ', $name), '');
        }
        foreach ($this->faces->all() as $face) {
            if ($face['family'] === $identity->family && $face['weight'] === $identity->weight) {
                throw new Problem(409, 'face.exists', sprintf('%s %d is there already. Take that one away first, if this is to stand in its place.', $identity->family, $identity->weight));
            }
        }
        [$path, $sha256] = $this->publisher->file($file->getPathname(), 'ttf');
        $face = new BroughtFace(
            strtolower((string) new Ulid()),
            $identity->family,
            $identity->weight,
            $path,
            $sha256,
            strlen($bytes),
            FaceFile::fromBytes($bytes)->capShare ?? Legibility::CAP_SHARE,
            $this->clock->now(),
            $this->who->login(),
        );
        $this->transaction->of(function () use ($face): void {
            $this->brought->add($face);
            $this->record->note(Did::Made, $face->about());
        });

        return [$face, $identity];
    }
}
