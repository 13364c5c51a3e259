<?php

declare(strict_types=1);

namespace UpperPane\App\Media;

use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\Process\Process;
use UpperPane\App\Http\Problem;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Cut;
use UpperPane\Core\Geometry\Rect;
use UpperPane\Core\Geometry\Size;

/** A part of a picture as a picture of its own (ffmpeg): the one that it was cut from stays. */
final readonly class CutPicture
{
    private const PATIENCE_S = 60;
    /** 1 is the least that JPEG loses, 31 the most. */
    private const JPEG_QUALITY = 2;
    /** What is cut from a type that is not named here is a PNG. */
    private const EXTENSIONS = ['image/jpeg' => 'jpg'];

    public function __construct(
        private BringInMedia $bringIn,
        private ProbeMediaHandler $probe,
        #[Target('published')]
        private FilesystemOperator $published,
    ) {
    }

    /**
     * What cutting it would mean where it is to fill a box; nothing is done.
     *
     * @param Node $part of it, in its own px as browsers draw it: upright
     * @param Size $box canvas px
     */
    public function look(MediaAsset $asset, Node $part, Size $box): Cut
    {
        $rect = $this->part($asset, $part);

        return Cut::of($asset->media()->size ?? $rect->size(), $rect, $box);
    }

    private function part(MediaAsset $asset, Node $part): Rect
    {
        $media = $asset->media();
        if ($media === null || $asset->file === null || $media->isFilm() || $asset->type === 'image/svg+xml') {
            throw new Problem(409, 'cut.none', sprintf('"%s" is no picture of px that could be cut.', $asset->name));
        }
        $rect = Rect::fromNode($part);

        return Rect::whole($media->size)->contains($rect)
            ? $rect
            : throw $part->refused(Reason::ValueRange, sprintf('lies beyond the picture, which has %d x %d px.', $media->size->width, $media->size->height));
    }

    /**
     * @param Node $part of it, in its own px as browsers draw it: upright
     * @return MediaAsset that has been looked into
     */
    public function of(MediaAsset $asset, Node $part): MediaAsset
    {
        [$file, $rect] = [(string) $asset->file, $this->part($asset, $part)];
        $folder = sys_get_temp_dir() . '/upper-pane-' . bin2hex(random_bytes(8));
        mkdir($folder, 0700);
        try {
            $extension = self::EXTENSIONS[$asset->type] ?? 'png';
            [$from, $to] = ["$folder/from", "$folder/to.$extension"];
            file_put_contents($from, $this->published->readStream($file));
            $process = new Process([
                'ffmpeg', '-v', 'error', '-nostdin', '-y', '-i', $from, '-vf', sprintf('crop=%d:%d:%d:%d:exact=1', $rect->width, $rect->height, $rect->x, $rect->y),
                '-frames:v', '1', '-q:v', (string) self::JPEG_QUALITY, '-f', 'image2', $to,
            ], timeout: self::PATIENCE_S);
            $process->run();
            if (!$process->isSuccessful() || !is_file($to)) {
                throw new Problem(409, 'cut.failed', sprintf('"%s" cannot be cut: %s', $asset->name, trim($process->getErrorOutput()) ?: 'it is damaged'));
            }
            $name = mb_strimwidth(pathinfo($asset->name, PATHINFO_FILENAME), 0, 160, '');
            $made = $this->bringIn->file($to, "$name, part of {$rect->width} x {$rect->height}.$extension");
            // Whoever cuts it goes on with it at once.
            ($this->probe)(new ProbeMedia($made->id));

            return $made;
        } finally {
            array_map(unlink(...), glob($folder . '/*') ?: []);
            rmdir($folder);
        }
    }
}
