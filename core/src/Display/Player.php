<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Geometry\Size;

/** What a player of a display has and can do, as it was surveyed. */
final readonly class Player
{
    /**
     * @param array<int, Output> $outputs by number
     * @param ?int $filmsAtOnce null where the survey does not say
     * @param ?array{raster: Size, fps: float} $largestFilm
     * @param ?list<string> $codecs of films; null where the survey does not say
     * @param ?list<string> $kinds of elements that it draws; null: all
     */
    private function __construct(
        public string $id,
        public array $outputs,
        public ?int $filmsAtOnce,
        public ?array $largestFilm,
        public ?array $codecs,
        public ?array $kinds,
    ) {
    }

    /** @throws DocumentRefused */
    public static function fromNode(Node $node): self
    {
        $node->object('id', 'outputs', 'films_at_once', 'largest_film', 'codecs', 'kinds');
        $outputs = [];
        foreach ($node->optional('outputs')?->items(64) ?? [] as $one) {
            $output = Output::fromNode($one);
            if (isset($outputs[$output->number])) {
                throw $one->field('number')->refused(Reason::IdTwice, sprintf('is %d, which another output of "%s" has already.', $output->number, $node->field('id')->id()));
            }
            $outputs[$output->number] = $output;
        }
        $film = $node->optional('largest_film')?->object('width', 'height', 'fps');
        $texts = static fn (?Node $list): ?array => $list === null ? null : array_map(static fn (Node $name): string => $name->text(), $list->items(64));

        return new self(
            $node->field('id')->id(),
            $outputs,
            $node->optional('films_at_once')?->int(0, 64),
            $film === null ? null : [
                'raster' => Size::px($film->field('width')->int(1, Size::LONGEST, 'px'), $film->field('height')->int(1, Size::LONGEST, 'px')),
                'fps' => $film->field('fps')->positive(),
            ],
            $texts($node->optional('codecs')),
            $texts($node->optional('kinds')),
        );
    }
}
