<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

/** The files of the type faces of the house: whole TTF files under the SIL Open Font License. */
final readonly class FaceFiles
{
    private const FILES = [
        ['Inter', 400, 'inter/400Regular/Inter_400Regular.ttf'],
        ['Inter', 600, 'inter/600SemiBold/Inter_600SemiBold.ttf'],
        ['Barlow Condensed', 500, 'barlow-condensed/500Medium/BarlowCondensed_500Medium.ttf'],
        ['Barlow Condensed', 700, 'barlow-condensed/700Bold/BarlowCondensed_700Bold.ttf'],
        ['Zilla Slab', 400, 'zilla-slab/400Regular/ZillaSlab_400Regular.ttf'],
        ['Zilla Slab', 600, 'zilla-slab/600SemiBold/ZillaSlab_600SemiBold.ttf'],
    ];

    /** @return list<array{family: string, weight: int, file: string}> with the whole path of each */
    public static function in(string $projectDir): array
    {
        return array_map(static fn (array $face): array => [
            'family' => $face[0],
            'weight' => $face[1],
            'file' => "$projectDir/web/node_modules/@expo-google-fonts/$face[2]",
        ], self::FILES);
    }
}
