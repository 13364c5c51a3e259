<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

/** What is chosen to be handed over: a layout or a schedule, or a picture, film or playlist that takes the whole of each display. */
final readonly class Playable
{
    /**
     * @param 'layout'|'filled'|'playlist'|'media'|'schedule' $kind
     * @param ?int $revision null of media, which have none
     */
    public function __construct(public string $kind, public string $id, public ?int $revision, public string $name)
    {
    }

    /** @param string $kind as it is kept */
    public static function kept(string $kind, string $id, ?int $revision, string $name): self
    {
        return new self(match ($kind) {
            'filled' => 'filled',
            'playlist' => 'playlist',
            'media' => 'media',
            'schedule' => 'schedule',
            default => 'layout',
        }, $id, $revision, $name);
    }

    /** @return array{kind: string, id: string, revision: ?int, name: string} */
    public function toArray(): array
    {
        return ['kind' => $this->kind, 'id' => $this->id, 'revision' => $this->revision, 'name' => $this->name];
    }
}
