<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Time\Playlist;

/** The documents that refs mean. Each is read when it is first asked for, and once. */
final class Library
{
    /** @var array<string, Layout> */
    private array $layouts = [];

    /** @var array<string, Filling> */
    private array $fillings = [];

    /** @var array<string, Playlist> */
    private array $playlists = [];

    /**
     * @param array<string, Node> $documents by id
     * @param array<Media> $media by id
     * @param array<string, array<int, Node>> $templates by id and revision
     */
    private function __construct(private readonly array $documents, private readonly array $media, private readonly array $templates = [])
    {
    }

    public static function empty(): self
    {
        return new self([], []);
    }

    /**
     * @param iterable<array<mixed>> $documents layouts, what was filled into some of them, and playlists
     * @param array<Media> $media those that a ref may mean, by id
     * @param array<string, array<int, array<mixed>>> $templates as they were, by id and revision: for what was filled into that revision
     * @throws DocumentRefused when a document is of another format, or an id stands twice
     */
    public static function of(iterable $documents, array $media = [], array $templates = []): self
    {
        $nodes = [];
        foreach ($documents as $document) {
            $node = Node::root($document);
            $id = $node->field('id')->id();
            $node->field('format')->oneOf(Layout::FORMAT, Filled::FORMAT, Playlist::FORMAT);
            if (isset($nodes[$id])) {
                throw $node->field('id')->refused(Reason::IdTwice, sprintf('is "%s", which another document has already.', $id));
            }
            $nodes[$id] = $node;
        }

        return new self($nodes, $media, array_map(static fn (array $revisions): array => array_map(Node::root(...), $revisions), $templates));
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
     * @return ?Filling what was filled into a template; null where there is none of that id
     * @throws DocumentRefused where it cannot be read, or there is no such template
     */
    public function filling(string $id): ?Filling
    {
        return $this->fillings[$id] ?? ($this->has($id, Filled::FORMAT) ? $this->fillings[$id] = $this->filledIn(Filled::fromNode($this->documents[$id])) : null);
    }

    /** @throws DocumentRefused where there is no such template, or a value does not suit it */
    public function filledIn(Filled $filled): Filling
    {
        $template = $this->template($filled) ?? throw DocumentRefused::because(
            Reason::RefUnknown,
            sprintf('/template is "%s", and no layout of that id is given.', $filled->template),
            '/template',
        );

        return Filling::of($filled, $template);
    }

    private function template(Filled $filled): ?Layout
    {
        $then = $filled->revision === null ? null : $this->templates[$filled->template][$filled->revision] ?? null;
        if ($then === null) {
            return $this->layout($filled->template);
        }

        return $this->layouts["$filled->template $filled->revision"] ??= Layout::fromNode($then);
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
