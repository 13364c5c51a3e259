<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\Core\Geometry\Size;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;

/** Reads documents into core values, with the saved designs behind their refs. */
final readonly class DesignLibrary
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /**
     * @param array<string, mixed> $document
     * @throws \UpperPane\Core\Document\DocumentRefused
     */
    public function layout(array $document): Layout
    {
        return Layout::fromArray($document, $this->behind($document));
    }

    /**
     * @param array<string, mixed> $document
     * @throws \UpperPane\Core\Document\DocumentRefused
     */
    public function check(DesignKind $kind, array $document): void
    {
        match ($kind) {
            DesignKind::Layout => $this->layout($document),
            DesignKind::Playlist => $this->fullScreen($document, Size::px(1920, 1080)),
            DesignKind::Schedule => throw new \LogicException('Schedules are checked where it is known what they book.'),
        };
    }

    /**
     * A playlist over a whole raster.
     *
     * @param array<string, mixed> $document
     * @throws \UpperPane\Core\Document\DocumentRefused
     */
    public function fullScreen(array $document, Size $raster): Layout
    {
        return Layout::ofPlaylist($document, $this->behind($document), $raster);
    }

    /**
     * The saved designs behind a document's refs, however deep.
     *
     * @param array<string, mixed> $document
     */
    public function behind(array $document): Library
    {
        $found = [];
        $wanted = Design::namedIn($document);
        while ($wanted !== []) {
            $designs = $this->entities->getRepository(Design::class)->findBy(['id' => $wanted]);
            $wanted = [];
            foreach ($designs as $design) {
                $found[$design->id] = $design->document;
                $wanted = [...$wanted, ...Design::namedIn($design->document)];
            }
            $wanted = array_values(array_diff(array_unique($wanted), array_keys($found)));
        }

        return Library::of($found);
    }
}
