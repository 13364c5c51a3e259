<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Playlist;

/** The documents that refs mean. Each is read when it is first asked for, and once. */
final class Library
{
    /** @var array<string, Layout> */
    private array $layouts = [];

    /** @var array<string, Playlist> */
    private array $playlists = [];

    /**
     * @param array<string, Node> $documents by id
     * @param array<string, Media> $media by id
     */
    private function __construct(private readonly array $documents, private readonly array $media)
    {
    }

    public static function empty(): self
    {
        return new self([], []);
    }

    /**
     * @param iterable<array<mixed>> $documents layouts and playlists
     * @param array<string, Media> $media those that a ref may mean, by id
     * @throws DocumentRefused when a document is of another format, or an id stands twice
     */
    public static function of(iterable $documents, array $media = []): self
    {
        $nodes = [];
        foreach ($documents as $document) {
            $node = Node::root($document);
            $id = $node->field('id')->id();
            $node->field('format')->oneOf(Layout::FORMAT, Playlist::FORMAT);
            if (isset($nodes[$id])) {
                throw $node->field('id')->refused(Reason::IdTwice, sprintf('is "%s", which another document has already.', $id));
            }
            $nodes[$id] = $node;
        }

        return new self($nodes, $media);
    }

    /**
     * @return ?Layout null where there is none of that id
     * @throws DocumentRefused where it cannot be read
     */
    public function layout(string $id): ?Layout
    {
        return $this->layouts[$id] ?? ($this->has($id, Layout::FORMAT) ? $this->layouts[$id] = Layout::fromNode($this->documents[$id]) : null);
    }

    /**
     * @return ?Playlist null where there is none of that id
     * @throws DocumentRefused where it cannot be read
     */
    public function playlist(string $id): ?Playlist
    {
        return $this->playlists[$id] ?? ($this->has($id, Playlist::FORMAT) ? $this->playlists[$id] = Playlist::fromNode($this->documents[$id]) : null);
    }

    public function media(string $id): ?Media
    {
        return $this->media[$id] ?? null;
    }

    private function has(string $id, string $format): bool
    {
        return isset($this->documents[$id]) && $this->documents[$id]->field('format')->value === $format;
    }
}
