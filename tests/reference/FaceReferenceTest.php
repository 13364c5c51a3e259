<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Text\FaceFile;
use UpperPane\Tests\Browser\Support\Chrome;

/** The height of capitals read from the files of the house faces, against the ascent of an H that Chromium measures. */
final class FaceReferenceTest extends TestCase
{
    private const FACES = [
        'inter/400Regular/Inter_400Regular', 'inter/600SemiBold/Inter_600SemiBold', 'barlow-condensed/500Medium/BarlowCondensed_500Medium',
        'barlow-condensed/700Bold/BarlowCondensed_700Bold', 'zilla-slab/400Regular/ZillaSlab_400Regular', 'zilla-slab/600SemiBold/ZillaSlab_600SemiBold',
    ];

    public function testCapitalsAreAsHighAsChromiumMeasuresThem(): void
    {
        $chrome = Chrome::open(400, 300);
        try {
            $chrome->go('data:text/html,<canvas></canvas>');
            foreach (self::FACES as $face) {
                $bytes = (string) file_get_contents(dirname(__DIR__, 2) . "/web/node_modules/@expo-google-fonts/$face.ttf");
                $ascent = $chrome->driver->executeAsyncScript(
                    'const [data, done] = arguments; new FontFace("Measured", Uint8Array.from(atob(data), (c) => c.charCodeAt(0))).load().then((face) => {'
                        . 'document.fonts.add(face); const c = document.querySelector("canvas").getContext("2d"); c.font = "1000px Measured"; done(c.measureText("H").actualBoundingBoxAscent) })',
                    [base64_encode($bytes)],
                );
                self::assertEqualsWithDelta($ascent / 1000, FaceFile::fromBytes($bytes)?->capShare, 0.008, "$face: Chromium rounds the bounds of a letter outwards");
            }
        } finally {
            $chrome->close();
        }
    }
}
