<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Time\Playlist;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Tests\Core\Make;

/** A document that is read and written again is the same document: equal as JSON values, the order of members and 1.0 for 1 apart. */
final class RoundTripTest extends TestCase
{
    private const ROOT = __DIR__ . '/../../..';

    public function testAllDocumentsOfTheDemo(): void
    {
        $files = [...glob(self::ROOT . '/demo/layouts/*.json') ?: [], ...glob(self::ROOT . '/demo/schedules/*.json') ?: []];
        self::assertGreaterThan(10, count($files));
        foreach ($files as $file) {
            // Beside a schedule stands for which place or display it is.
            $document = json_decode((string) file_get_contents($file));
            self::assertIsObject($document);
            $this->comesBack((string) json_encode($document->document ?? $document), $file);
        }
        $estate = get_object_vars((object) json_decode((string) file_get_contents(self::ROOT . '/demo/estate.json')));
        self::assertIsArray($estate['displays']);
        self::assertGreaterThan(10, count($estate['displays']));
        foreach ($estate['displays'] as $row) {
            $this->comesBack((string) json_encode($row->display), $row->display->id);
        }
    }

    public function testRandomDocuments(): void
    {
        $random = Make::random(3);
        for ($i = 0; $i < Make::rounds(60); $i++) {
            foreach ([Make::randomLayout($random), Make::comingAndGoing($random), Make::livelyLayout($random)] as $document) {
                $this->comesBack((string) json_encode($document), "round $i");
            }
        }
    }

    /** Objects without fields, figures with a point, defaults that were written, names of variants that look like figures. */
    public function testWhatIsWrittenStaysAndWhatIsNotStaysUnwritten(): void
    {
        $media = '{"name": "a.png", "width": 10, "height": 10}';
        $this->comesBack('{"format": "upper-pane/layout@1", "id": "a", "name": "A", "canvas": {"width": 100, "height": 50}, "elements": [
            {"id": "t", "kind": "text", "rect": {"x": 0, "y": 0, "width": 9, "height": 9}, "text": "", "style": {"size_px": 12.0, "outline": {"px": 1.50, "color": "#000000"}}, "marks": []},
            {"id": "z", "kind": "zone", "rect": {"x": 0, "y": 0, "width": 9, "height": 9}, "standby": {"media": ' . $media . '},
                "playlist": {"items": [{"id": "i", "media": ' . $media . ', "duration_ms": 1000, "valid": {}, "enabled": true, "weight": 1}]}}
        ], "guides": {}}', 'a layout');
        $this->comesBack('{"format": "upper-pane/playlist@1", "id": "a", "name": "A", "items": [{"id": "i", "media": ' . $media . ', "duration_ms": 1000, "valid": {}}]}', 'a playlist');
        $this->comesBack('{"format": "upper-pane/schedule@1", "id": "a", "name": "A", "timezone": "UTC", "zones": {}, "bookings": []}', 'a schedule');
    }

    private function comesBack(string $json, string $what): void
    {
        $given = json_decode($json);
        self::assertIsObject($given);
        $array = json_decode($json, true);
        self::assertIsArray($array);
        $read = match (true) {
            isset($given->canvas) => Layout::fromArray($array),
            isset($given->items) => Playlist::fromNode(Node::root($array)),
            isset($given->bookings) => Schedule::fromArray($array),
            default => Display::fromArray($array),
        };
        self::assertSame(self::plain($given), self::plain(json_decode((string) json_encode($read->toArray(), JSON_PRESERVE_ZERO_FRACTION))), $what);
    }

    /** With members in one order and whole numbers as such. */
    private static function plain(mixed $value): mixed
    {
        if ($value instanceof \stdClass) {
            $fields = array_map(self::plain(...), get_object_vars($value));
            ksort($fields);

            return ['{}' => $fields];
        }
        if (is_array($value)) {
            if (!array_is_list($value)) {
                ksort($value);
            }

            return array_map(self::plain(...), $value);
        }

        return is_float($value) && $value === floor($value) ? (int) $value : $value;
    }
}
