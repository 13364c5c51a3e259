<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Composed;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Media\Media;
use UpperPane\Core\Playback\SmilText;
use UpperPane\Core\Playback\Timeline;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;

/** Layouts and playlists as SMIL 3.0, validated by xmllint (libxml2-utils) with the DTD of the W3C (w3c-sgml-lib, REC-SMIL3-20081201), and read back. */
final class SmilReferenceTest extends TestCase
{
    private const DTD = '/usr/share/xml/w3c-sgml-lib/schema/dtd/REC-SMIL3-20081201/SMIL30Language.dtd';

    public function testAllThatIsWrittenIsValid(): void
    {
        $random = Make::random(30);
        $texts = [];
        for ($i = 0; $i < 12; $i++) {
            $texts[] = $this->smil(Make::composed($i % 2 === 0 ? Make::randomLayout($random) : Make::livelyLayout($random)));
        }
        foreach (glob(__DIR__ . '/../../demo/layouts/*.json') ?: [] as $file) {
            $document = json_decode((string) file_get_contents($file), true);
            if (isset($document['canvas'])) {
                $texts[] = $this->smil(Make::demo($document));
            }
        }
        $words = Make::layout([['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'text' => "A & B <c>\n\"d\"", 'style' => ['size_px' => 9]]]);
        $texts[] = $this->smil(Make::composed($words));
        foreach ($texts as $text) {
            $file = (string) tempnam(sys_get_temp_dir(), 'smil');
            file_put_contents($file, $text);
            exec('xmllint --nonet --noout --dtdvalid ' . escapeshellarg(self::DTD) . ' ' . escapeshellarg($file) . ' 2>&1', $said, $code);
            unlink($file);
            self::assertSame(0, $code, implode("\n", $said) . "\n$text");
        }
    }

    /** Read back by PHP's XML reader: a sequence plays what the timeline says, for as long. */
    public function testASequenceIsTheTimelineOfItsZone(): void
    {
        $notices = ['format' => 'upper-pane/playlist@1', 'id' => 'n', 'name' => 'N', 'items' => [Make::picture('X', durationMs: 2500)]];
        $wipe = ['kind' => 'wipe', 'from' => 'right', 'ms' => 700];
        $items = [Make::picture('A', durationMs: 4000, weight: 2), Make::film('B', 15_040, volume: 40), Make::picture('C', durationMs: 3000, transition: $wipe)];
        $list = ['format' => 'upper-pane/playlist@1', 'id' => 'p', 'name' => 'P', 'items' => $items, 'interleave' => ['every' => 2, 'ref' => 'n']];
        $layout = Make::list($list, Library::of([$notices]));
        $xml = simplexml_load_string($this->smil($layout));
        self::assertNotFalse($xml);
        $read = [];
        foreach ($xml->body->par->seq->children() as $one) {
            $read[] = [(string) $one['src'], (int) round(1000 * (float) (string) $one['dur'])];
        }
        $want = [];
        foreach (Timeline::of($layout, 0, (int) $layout->loops['whole']->periodMs)['zones'][0]['segments'] as $segment) {
            $name = str_replace('n/', '', (string) $segment['item']);
            $want[] = [$name === 'B' ? 'B.mp4' : "$name.png", Instant::parse($segment['to'])->ms - Instant::parse($segment['from'])->ms];
        }
        self::assertSame($want, $read);
        self::assertSame('indefinite', (string) $xml->body->par->seq['repeatCount']);
        self::assertSame(['barWipe', 'leftToRight', 'reverse', '0.7s'], array_map(static fn (string $name): string => (string) $xml->head->transition[$name], ['type', 'subtype', 'direction', 'dur']));
        self::assertSame('40%', (string) ($xml->xpath('//*[local-name()="video"]')[0]['soundLevel'] ?? ''));
    }

    private function smil(Composed $layout): string
    {
        return SmilText::of($layout, static fn (Media $media): string => $media->name);
    }
}
