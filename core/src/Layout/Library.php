<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Time\Playlist;

/** The documents that refs mean, and the way of refs walked so far, so that a cycle is seen. */
final readonly class Library
{
    private const DEEPEST = 6;

    /**
     * @param array<string, Node> $layouts
     * @param array<string, Node> $playlists
     * @param list<string> $way ids of the layouts that are being read
     */
    private function __construct(private array $layouts, private array $playlists, private array $way = [])
    {
    }

    public static function empty(): self
    {
        return new self([], []);
    }

    /**
     * @param iterable<array<mixed>> $documents layouts and playlists
     * @throws DocumentRefused when a document is of another format, or an id stands twice
     */
    public static function of(iterable $documents): self
    {
        [$layouts, $playlists] = [[], []];
        foreach ($documents as $document) {
            $node = Node::root($document);
            $id = $node->field('id')->id();
            $format = $node->field('format')->oneOf(Layout::FORMAT, Playlist::FORMAT);
            if (isset($layouts[$id]) || isset($playlists[$id])) {
                throw $node->field('id')->refused('id.twice', sprintf('is "%s", which another document has already.', $id));
            }
            if ($format === Layout::FORMAT) {
                $layouts[$id] = $node;
            } else {
                $playlists[$id] = $node;
            }
        }

        return new self($layouts, $playlists);
    }

    /**
     * The playlist a node means: the list itself, or `{"ref": id}`.
     *
     * @throws DocumentRefused
     */
    public function playlist(Node $node): Playlist
    {
        if (!$node->has('ref')) {
            return Playlist::fromNode($node, $this->interleaved($node));
        }
        $ref = $node->object('ref')->field('ref');
        $found = $this->playlists[$ref->id()] ?? throw $ref->refused('ref.unknown', sprintf('is "%s", and no playlist of that id is given.', $ref->id()));
        try {
            return Playlist::fromNode($found, $this->interleaved($found));
        } catch (DocumentRefused $e) {
            throw DocumentRefused::because($e->reason, sprintf('In playlist "%s": %s', $ref->id(), $e->getMessage()), $ref->path);
        }
    }

    /**
     * The playlist that a ref of an interleave means: one that has none itself.
     *
     * @return \Closure(Node): Playlist
     */
    private function interleaved(Node $own): \Closure
    {
        return function (Node $ref) use ($own): Playlist {
            $found = $this->playlists[$ref->id()] ?? throw $ref->refused('ref.unknown', sprintf('is "%s", and no playlist of that id is given.', $ref->id()));
            if ($found->has('interleave') || $found->optional('id')?->value === $own->optional('id')?->value) {
                throw $ref->refused('ref.cycle', sprintf('is "%s", which is this list or has extras put in itself; a plain list is put in.', $ref->id()));
            }

            return Playlist::fromNode($found);
        };
    }

    /**
     * The layout a node means: the document itself, or `{"ref": id}`.
     *
     * @throws DocumentRefused also where layouts contain each other in a cycle
     */
    public function layout(Node $node): Layout
    {
        if (!$node->has('ref')) {
            return Layout::fromNode($node, $this);
        }
        $ref = $node->object('ref')->field('ref');
        $id = $ref->id();
        if (in_array($id, $this->way, true)) {
            throw $ref->refused('ref.cycle', sprintf('closes a cycle: %s.', implode(' > ', [...$this->way, $id])));
        }
        if (count($this->way) >= self::DEEPEST) {
            throw $ref->refused('ref.too-deep', sprintf('is nested %d layouts deep; %d are the most.', count($this->way) + 1, self::DEEPEST));
        }
        $found = $this->layouts[$id] ?? throw $ref->refused('ref.unknown', sprintf('is "%s", and no layout of that id is given.', $id));
        try {
            return Layout::fromNode($found, $this);
        } catch (DocumentRefused $e) {
            throw DocumentRefused::because($e->reason, sprintf('In layout "%s": %s', $id, $e->getMessage()), $ref->path);
        }
    }

    /** The library as seen from inside the layout $id. */
    public function inside(string $id): self
    {
        return new self($this->layouts, $this->playlists, [...$this->way, $id]);
    }
}
