<?php

declare(strict_types=1);

namespace UpperPane\App\Playback;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Media\Publisher;
use UpperPane\Core\Display\Feed;

/** The small files that players poll: which release their display is to play. */
final readonly class Pointers
{
    public const FORMAT = 'upper-pane/pointer@1';

    public function __construct(private EntityManagerInterface $entities, private Publisher $publisher)
    {
    }

    /** Writes the pointer of every player of a display. */
    public function write(SurveyedDisplay $display): void
    {
        foreach ($this->entities->getRepository(Player::class)->findBy(['display' => $display, 'revokedAt' => null]) as $player) {
            $this->writeOne($player);
        }
    }

    public function writeOne(Player $player): void
    {
        $release = $player->display->current;
        $display = $player->display->display();
        $this->put($player, $player->revokedAt !== null ? ['revoked' => true] : [
            'revoked' => false,
            'player' => ['name' => $player->name, 'part' => $player->part, 'outputs' => $player->outputs()],
            'display' => ['id' => $display->id, 'name' => $display->name, 'timezone' => $display->timezone, 'raster' => $display->raster()->toArray()],
            'alignment' => $player->display->alignmentUntil === null ? null : [
                'until' => $player->display->alignmentUntil->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'),
                'canvas' => $display->raster()->toArray(),
                'outputs' => array_map(static fn (Feed $feed): array => $feed->toArray($display->bits), Feed::of($display)),
            ],
            'release' => $release === null ? null : ['number' => $release->number, 'url' => '/' . $release->file, 'sha256' => $release->sha256, 'bytes' => $release->bytes],
        ]);
    }

    /** @param array<string, mixed> $pointer */
    private function put(Player $player, array $pointer): void
    {
        $this->publisher->replace("pointers/$player->secret.json", json_encode(['format' => self::FORMAT] + $pointer, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE));
    }
}
