<?php

declare(strict_types=1);

namespace UpperPane\Core\Handover;

use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\Base;
use UpperPane\Core\Playback\Programme;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\Track;

/**
 * What one track of a programme plays, compiled for a span (`upper-pane/sheet@1`, docs/formats/sheet.md): a file under its hash that every
 * display shares on which the same plays on the same raster, in the same time zone.
 *
 * What is booked is a sheet of its own that this one includes, so that what changes by itself is exchanged without the rest.
 */
final readonly class Sheet
{
    public const FORMAT = 'upper-pane/sheet@1';

    private string $json;

    /**
     * @param array<string, mixed> $content
     * @param array<string, self> $includes by the name that it is included by
     */
    private function __construct(public array $content, public array $includes)
    {
        $this->json = self::written($content);
    }

    /**
     * What each track of a programme plays.
     *
     * @param int $fromMs UTC ms; what comes and goes is written out for [from, to)
     * @param string $build of the core that compiles it
     * @param array{at_ms: int, begun: array<string, array{int, int}>}|array{} $carried what stands at an instant (RunSheet::begunAt)
     * @return non-empty-array<string, self> by track, the lowest first; '' is what plays
     * @throws Refused where there is too much to be written, or a map cannot be worked out
     */
    public static function each(Programme $programme, ?Surroundings $surroundings, int $fromMs, int $toMs, string $build, array $carried = []): array
    {
        $sheets = ['' => self::of($programme->tracks()[0], $programme, $surroundings, $fromMs, $toMs, $build, $carried)];
        foreach ($programme->above as $track) {
            $sheet = self::of($track, $programme, $surroundings, $fromMs, $toMs, $build, $carried);
            // What is drawn with what plays has none of its own.
            $sheets += ($sheet->content['layers'] ?? []) === [] ? [] : [$track->id() => $sheet];
        }

        return $sheets;
    }

    /**
     * What one of the tracks above plays.
     *
     * @param int $fromMs UTC ms; what comes and goes is written out for [from, to)
     * @throws Refused where there is too much to be written, or a map cannot be worked out
     */
    public static function above(Programme $programme, string $track, ?Surroundings $surroundings, int $fromMs, int $toMs, string $build): self
    {
        foreach ($programme->above as $one) {
            if ($one->id() === $track) {
                return self::of($one, $programme, $surroundings, $fromMs, $toMs, $build, []);
            }
        }
        throw new \LogicException("There is no track $track.");
    }

    /**
     * @param array{at_ms: int, begun: array<string, array{int, int}>}|array{} $carried
     * @throws Refused
     */
    private static function of(Track $track, Programme $programme, ?Surroundings $surroundings, int $fromMs, int $toMs, string $build, array $carried): self
    {
        $sheet = RunSheet::ofTracks([$track], $programme, $surroundings, $fromMs, $toMs, $carried);
        $includes = [];
        if ($track->id() === '' && $programme->base->schedule !== null) {
            $sheet['layers'] = self::including($sheet['layers'], array_map(strval(...), array_keys($programme->base->whole)), $build, $includes);
        }
        $named = array_map(static fn (self $one): array => $one->named(), $includes);

        return new self(['format' => self::FORMAT, 'build' => $build] + $sheet + ($named === [] ? [] : ['includes' => $named]), $includes);
    }

    /**
     * What is booked as sheets of their own, at each of the places where it lies.
     *
     * @param array<mixed> $layers
     * @param list<string> $names of what is booked, in the order of its scenes
     * @param array<string, self> $includes
     * @return list<mixed>
     */
    private static function including(array $layers, array $names, string $build, array &$includes): array
    {
        $all = [];
        foreach ($layers as $layer) {
            if (is_array($layer) && ($layer['through'] ?? false) === true && is_array($layer['scenes'])) {
                $scenes = [];
                foreach ($layer['scenes'] as $scene) {
                    $scenes[] = self::including(is_array($scene) ? $scene : [], $names, $build, $includes);
                }
                $layer['scenes'] = $scenes;
            } elseif (is_array($layer) && ($layer['id'] ?? null) === Base::SCHEDULE && is_array($layer['scenes'])) {
                /** @var list<list<array<string, mixed>>> $scenes */
                $scenes = $layer['scenes'];
                foreach ($names as $scene => $name) {
                    $way = Base::SCHEDULE . ":$name";
                    $content = new self(['format' => self::FORMAT, 'build' => $build, 'layers' => self::without($scenes[$scene], "$way/")], []);
                    for ($include = $name, $place = 2; isset($includes[$include]) && $includes[$include]->json !== $content->json; $place++) {
                        $include = "$name~$place";
                    }
                    $includes[$include] = $content;
                    $scenes[$scene] = [['include' => $include, 'id' => $way]];
                }
                $layer['scenes'] = $scenes;
            }
            $all[] = $layer;
        }

        return $all;
    }

    /** The bytes that are published. */
    public function json(): string
    {
        return $this->json;
    }

    /** SHA-256 of the bytes, in hex. */
    public function hash(): string
    {
        return hash('sha256', $this->json);
    }

    /** @return array{url: string, sha256: string, bytes: int} as it is named by whatever names it */
    public function named(): array
    {
        return ['url' => self::path($this->hash()), 'sha256' => $this->hash(), 'bytes' => strlen($this->json)];
    }

    public static function path(string $sha256): string
    {
        return sprintf('/sheets/%s/%s.json', substr($sha256, 0, 2), $sha256);
    }

    /** @return array<string, self> itself and all that it includes, by hash */
    public function all(): array
    {
        return [$this->hash() => $this] + array_merge(...array_map(static fn (self $one): array => $one->all(), array_values($this->includes)), ...[[]]);
    }

    /** @return array<string, Media> the pictures and films that it shows, by id, also those that rows of data mean */
    public function media(): array
    {
        $layers = $this->content['layers'] ?? null;

        return (is_array($layers) ? RunSheet::mediaIn($layers) : []) + array_merge(...array_map(static fn (self $one): array => $one->media(), array_values($this->includes)), ...[[]]);
    }

    /** @return list<string> families of the faces in which its words are set */
    public function families(): array
    {
        $families = [];
        $content = $this->content;
        array_walk_recursive($content, static function (mixed $value, int|string $name) use (&$families): void {
            if ($name === 'family' && is_string($value)) {
                $families[$value] = true;
            }
        });

        return array_map(strval(...), array_keys($families));
    }

    /** Whether anything in it comes and goes, so that it holds no longer than the span that it was compiled for. */
    public function isPlanned(): bool
    {
        return array_filter($this->all(), static fn (self $one): bool => str_contains($one->json, '"turns":[')) !== [];
    }

    /**
     * The same as one run sheet: what it includes in the place of the includes.
     *
     * @param array<mixed> $content of a sheet
     * @param \Closure(string): array<mixed> $sheet the content of the sheet of a hash
     * @return array<mixed>
     */
    public static function inOne(array $content, \Closure $sheet): array
    {
        $named = is_array($content['includes'] ?? null) ? $content['includes'] : [];
        $layers = is_array($content['layers'] ?? null) ? $content['layers'] : [];

        return ['layers' => self::resolved($layers, $named, $sheet, '')] + array_diff_key($content, ['includes' => 1]);
    }

    /**
     * @param array<mixed> $layers
     * @param array<mixed> $named
     * @param \Closure(string): array<mixed> $sheet
     * @return list<mixed>
     */
    private static function resolved(array $layers, array $named, \Closure $sheet, string $way): array
    {
        $all = [];
        foreach ($layers as $layer) {
            if (!is_array($layer)) {
                continue;
            }
            if (is_array($layer['part'] ?? null)) {
                $all[] = ['part' => ['id' => $way . self::text($layer['part']['id'] ?? null)] + $layer['part']];
                continue;
            }
            $id = $way . self::text($layer['id'] ?? null);
            if (isset($layer['include'])) {
                $one = $named[self::text($layer['include'])] ?? null;
                $content = $sheet(self::text(is_array($one) ? $one['sha256'] ?? null : null));
                array_push($all, ...self::resolved(
                    is_array($content['layers'] ?? null) ? $content['layers'] : [],
                    is_array($content['includes'] ?? null) ? $content['includes'] : [],
                    $sheet,
                    "$id/",
                ));
                continue;
            }
            $scenes = is_array($layer['scenes'] ?? null) ? $layer['scenes'] : [];
            $all[] = ['id' => $id, 'scenes' => array_map(
                static fn (mixed $scene): array => self::resolved(is_array($scene) ? $scene : [], $named, $sheet, $way),
                array_values($scenes),
            )] + $layer;
        }

        return $all;
    }

    /**
     * @param array<array<string, mixed>> $layers
     * @param string $way that all ids begin with
     * @return list<mixed> with ids that begin behind it
     */
    private static function without(array $layers, string $way): array
    {
        $from = strlen($way);

        return array_values(array_map(static function (array $layer) use ($way, $from): array {
            if (is_array($layer['part'] ?? null)) {
                return ['part' => ['id' => substr(self::text($layer['part']['id'] ?? null), $from)] + $layer['part']] + $layer;
            }
            /** @var list<list<array<string, mixed>>> $scenes */
            $scenes = $layer['scenes'];

            return ['id' => substr(self::text($layer['id'] ?? null), $from), 'scenes' => array_map(static fn (array $scene): array => self::without($scene, $way), $scenes)] + $layer;
        }, $layers));
    }

    /** @param array<string, mixed> $content */
    private static function written(array $content): string
    {
        return json_encode($content, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION);
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }
}
