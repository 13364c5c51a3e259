<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Handover\Documents;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Overlay\Overlay;
use UpperPane\Core\Panel\Panel;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Core\Trigger\TriggerMap;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/** The published JSON Schemas (2020-12) agree with what the core reads and writes. */
final class SchemaTest extends TestCase
{
    private const ROOT = __DIR__ . '/../../..';

    public function testTheDemoFitsTheSchemasAndTheCore(): void
    {
        foreach (glob(self::ROOT . '/demo/layouts/*.json') ?: [] as $file) {
            $document = json_decode((string) file_get_contents($file), true);
            $kind = isset($document['canvas']) ? 'layout' : 'playlist';
            $this->fits($kind, $document, $file);
            $layout = $kind === 'layout' ? Make::demo($document) : null;
            Library::of([$document]);
            if ($layout !== null) {
                $found = Checks::run($layout, (new Surroundings())->speaking(Make::inTheDemo()))->toArray();
                self::assertSame([0, 0], [$found['stops'], $found['warnings']], "$file is finished work: " . json_encode(array_column($found['findings'], 'message')));
            }
        }
        foreach (glob(self::ROOT . '/demo/overlays/*.json') ?: [] as $file) {
            $document = json_decode((string) file_get_contents($file), true);
            $this->fits('overlay', $document, $file);
            self::assertSame(basename($file, '.json'), Overlay::fromArray($document)->id);
            foreach (Documents::named($document)['designs'] as $named) {
                self::assertNotSame([], glob(self::ROOT . "/demo/{layouts,sources}/$named.json", GLOB_BRACE) ?: [], "$file names $named");
            }
        }
        foreach (['triggers' => TriggerMap::fromArray(...), 'panel' => Panel::fromArray(...)] as $kind => $read) {
            foreach (glob(self::ROOT . "/demo/{panels,triggers}/*.json", GLOB_BRACE) ?: [] as $file) {
                $document = json_decode((string) file_get_contents($file), true);
                if ($document['format'] === "upper-pane/$kind@1") {
                    $this->fits($kind, $document, $file);
                    self::assertSame(basename($file, '.json'), $read($document)->id);
                }
            }
        }
        $estate = json_decode((string) file_get_contents(self::ROOT . '/demo/estate.json'), true);
        foreach ($estate['displays'] as $row) {
            $this->fits('display', $row['display'], $row['display']['id']);
            self::assertSame($row['display']['id'], Display::fromArray($row['display'])->id);
        }
    }

    public function testRandomLayoutsAndTheirRunSheetsFit(): void
    {
        $random = Make::random(4);
        for ($i = 0; $i < Make::rounds(25); $i++) {
            $document = Make::randomLayout($random);
            $this->fits('layout', $document, "round $i");
            $this->fits('run-sheet', Make::runSheet(Make::composed($document)), "round $i");
            $lively = Make::livelyLayout($random);
            $rect = ['x' => 0, 'y' => 0, 'width' => 99, 'height' => 200];
            $lively['elements'][] = ['id' => 'k', 'kind' => 'code', 'rect' => $rect, 'text' => 'QUAY', 'caption' => ['text' => 'x', 'style' => ['size_px' => 9]]];
            $lively['elements'][] = [
                'id' => 'pic', 'kind' => 'picture', 'rect' => $rect, 'media' => ['name' => 'x', 'width' => 90, 'height' => 90],
                'crop' => ['x' => 1, 'y' => 1, 'width' => 9, 'height' => 9], 'flip' => 'both', 'opacity' => 0.5, 'radius_px' => 4, 'hidden' => $i % 2 === 0,
            ];
            $lively['elements'][] = [
                'id' => 'w', 'kind' => 'text', 'rect' => $rect, 'text' => 'Berth 2', 'overflow' => 'shrink', 'least_px' => 9, 'style' => ['size_px' => 20],
                'marks' => [['from' => 0, 'to' => 3, 'weight' => 700, 'size' => 0.5, 'color' => '#ffffff']],
            ];
            $this->fits('layout', $lively, "lively $i");
            $this->fits('run-sheet', Make::runSheet(Make::composed($lively), 0, new Surroundings('UTC', new Typewriter())), "lively $i");
        }
    }

    public function testTemplatesAndWhatIsFilledInFit(): void
    {
        $set = [['element' => 't', 'field' => 'style/color', 'value' => '@sea'], ['element' => 't', 'field' => 'marks', 'value' => []]];
        $slots = [
            ['id' => 'a', 'kind' => 'text', 'element' => 't', 'languages' => ['en', 'pt-PT'], 'required' => true, 'hint' => 'Short.', 'default' => ['en' => 'x']],
            ['id' => 'b', 'kind' => 'picture', 'element' => 'p', 'default' => ['mark' => 'logo']],
            ['id' => 'c', 'kind' => 'number', 'element' => 't', 'argument' => 'n', 'from' => 0, 'to' => 9.5, 'decimals' => 1, 'default' => 3],
            ['id' => 'd', 'kind' => 'date', 'element' => 't', 'argument' => 'day', 'from' => '2026-01-01', 'default' => '2026-06-01'],
            ['id' => 'e', 'kind' => 'switch', 'elements' => ['t'], 'default' => true],
            ['id' => 'f', 'kind' => 'choice', 'options' => [['id' => 'o', 'name' => 'O', 'set' => $set]], 'default' => 'o'],
            ['id' => 'g', 'kind' => 'list', 'element' => 'z', 'at_most' => 3, 'default' => [Make::film()]],
        ];
        $picture = ['id' => 'p', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'media' => ['name' => 'x', 'width' => 9, 'height' => 9]];
        $document = Make::layout([Make::told('t', '{n} {day}', texts: ['en' => 'x'], turn_ms: 500), $picture, Make::zone('z', 0, 0, 9, 9)]);
        $document['slots'] = array_map(static fn (array $slot): array => $slot + ['name' => strtoupper($slot['id'])], $slots);
        $this->fits('layout', $document, 'a template');
        self::assertEquals($document, Layout::fromArray($document)->toArray());
        $values = ['a' => ['en' => 'x'], 'b' => ['name' => 'x', 'width' => 9, 'height' => 9], 'c' => 5.5, 'd' => '2026-06-02', 'e' => false, 'f' => 'o', 'g' => [Make::film()]];
        $filled = ['format' => 'upper-pane/filled@1', 'id' => 'x', 'name' => 'X', 'template' => 'test', 'template_revision' => 3, 'values' => $values];
        $this->fits('filled', $filled, 'filled in');
        self::assertEquals($filled, Filled::fromArray($filled)->toArray());
    }

    public function testWhatDocsSayFollowsFromTheCore(): void
    {
        foreach (Docs::all() as $file => $text) {
            self::assertSame($text, file_get_contents(self::ROOT . "/docs/$file"), "bin/docs writes $file anew");
        }
    }

    public function testASchedule(): void
    {
        $schedule = [
            'format' => Schedule::FORMAT, 'id' => 's', 'name' => 'Hall', 'timezone' => 'Europe/Lisbon',
            'standby' => ['media' => 'night.png'], 'zones' => ['side' => ['standby' => ['playlist' => 'p']]],
            'bookings' => [[
                'id' => 'a', 'name' => 'A', 'plays' => ['layout' => 'l'], 'zone' => 'side', 'rank' => 'weekly', 'start' => '2026-06-01T08:00', 'end' => '2026-06-01T09:00:30',
                'rrule' => 'FREQ=DAILY',
                'exdates' => ['2026-06-03', '2026-06-04T08:00:00'], 'rdates' => ['2026-06-03T09:00:00'], 'from' => '2026-06-01T00:00:00', 'until' => '2026-07-01T00:00:00',
                'created' => '2026-05-01T10:00:00.250Z',
            ]],
        ];
        $this->fits('schedule', $schedule, 'all fields');
        self::assertCount(1, Schedule::fromArray($schedule)->bookings);
        foreach (['start' => '2026-06-01T08:00:00Z', 'rank' => 'high', 'plays' => ['layout' => 'a', 'media' => 'b'], 'colour' => 'red'] as $field => $wrong) {
            $broken = $schedule;
            $broken['bookings'][0][$field] = $wrong;
            self::assertFalse($this->validator()->validate($this->json($broken), 'https://upper-pane.invalid/formats/schedule.schema.json')->isValid(), $field);
        }
    }

    public function testWhatTheCoreRefusesTheSchemaRefuses(): void
    {
        $broken = Make::harbour();
        $broken['elements'][0]['rect']['width'] = 0;
        foreach ([$broken, ['colour' => 1] + Make::harbour(), array_diff_key(Make::harbour(), ['canvas' => 1])] as $document) {
            self::assertFalse($this->validator()->validate($this->json($document), 'https://upper-pane.invalid/formats/layout.schema.json')->isValid());
        }
    }

    /** @param array<string, mixed> $document */
    private function fits(string $kind, array $document, string $what): void
    {
        $result = $this->validator()->validate($this->json($document), "https://upper-pane.invalid/formats/$kind.schema.json");
        $error = $result->error();
        self::assertTrue($result->isValid(), $what . ($error === null ? '' : json_encode((new ErrorFormatter())->format($error))));
    }

    private function validator(): Validator
    {
        $validator = new Validator();
        $validator->resolver()?->registerPrefix('https://upper-pane.invalid/formats/', self::ROOT . '/docs/formats');

        return $validator;
    }

    private function json(mixed $value): mixed
    {
        return json_decode((string) json_encode($value));
    }
}
