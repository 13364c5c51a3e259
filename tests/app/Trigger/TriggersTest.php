<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Trigger;

use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Playback\SheetReader;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** Maps of triggers are settings of places: what runs on a display is handed over with what plays there. */
final class TriggersTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testAMapIsHandedOverWithWhatPlaysWhereItRuns(): void
    {
        $below = $this->layout('Sailings');
        $help = $this->layout('Help');
        $map = $this->map($help, 'b1');
        self::assertSame([409, 'design.used'], $this->refused('DELETE', "/api/layouts/$help"), 'a state plays it');
        $this->show($below);
        $this->state(['add' => [$map['id']]]);
        self::assertSame([409, 'trigger.used'], $this->refused('DELETE', "/api/triggers/{$map['id']}"));
        [$status, $said] = $this->ask('POST', '/api/handover', ['source' => ['kind' => 'layout', 'id' => $below], 'displays' => ['wide']]);
        self::assertSame([409, 'handover.stopped'], [$status, $said['error']['code']], 'the display lacks the sensor');
        $found = array_column($said['offers'][0]['findings'], 'message', 'code');
        self::assertStringContainsString('has no sensor "b1"', $found['trigger.sensor']);

        $this->survey();
        $this->show($below);
        $sheet = $this->sheet();
        self::assertSame([$map['id'], 'idle', [['id' => 'idle', 'linger_ms' => null, 'then' => null], ['id' => 'help', 'linger_ms' => 8000, 'then' => 'idle']]], [
            $sheet['triggers'][0]['id'], $sheet['triggers'][0]['rest'], $sheet['triggers'][0]['states'],
        ]);
        $zone = $sheet['layers'][count($sheet['layers']) - 1];
        self::assertSame([[], ['map' => $map['id'], 'scenes' => [['state' => 'help', 'row' => null]]]], [$zone['segments'], $zone['answers']], 'nothing of its own at rest');
        self::assertSame('Help', $zone['scenes'][0][1]['part']['text']);

        $changed = ['transitions' => [...$map['document']['transitions'], Docs::way('help', 'press', 'idle')]] + $map['document'];
        self::assertSame(200, $this->ask('PUT', "/api/triggers/{$map['id']}", ['base' => 1, 'document' => $changed])[0]);
        self::assertSame(['wide'], $this->older(), 'another map than was handed over');
        self::assertCount(1, $this->sheet()['triggers'][0]['transitions']);
    }

    /** While it is drawn a state may play nothing yet; on a display it may not. */
    public function testAStateThatPlaysNothingIsNotHandedOver(): void
    {
        $below = $this->layout('Sailings');
        $document = Docs::map([Docs::state('help', 8000, ['plays' => null])], [Docs::operator('go')], [Docs::way('idle', 'go', 'help')]);
        [$status, $made] = $this->ask('POST', '/api/triggers', ['name' => 'Help', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])]);
        self::assertSame([201, []], [$status, $this->ask('POST', '/api/reactions/look', ['document' => $made['document'], 'display' => 'wide'])[1]['findings']]);
        $this->state(['add' => [$made['id']]]);
        [$status, $said] = $this->ask('POST', '/api/handover', ['source' => ['kind' => 'layout', 'id' => $below], 'displays' => ['wide']]);
        self::assertSame([409, 'handover.stopped'], [$status, $said['error']['code']]);
        self::assertStringContainsString('"help" plays nothing yet', array_column($said['offers'][0]['findings'], 'message', 'code')['trigger.nothing']);
    }

    public function testWhatCannotRunIsNotTaken(): void
    {
        $help = $this->layout('Help');
        $document = array_diff_key(Docs::map([Docs::state('help', 8000, ['plays' => ['layout' => $help]])], [Docs::operator('go')], [Docs::way('idle', 'go', 'help')]), ['id' => 1, 'name' => 1]);
        $wrong = fn (string $path, array $with): array => [$path, fn () => $this->ask('POST', '/api/triggers', ['name' => 'T', 'document' => $with + $document])];
        foreach (
            [
                $wrong('/rest', ['rest' => 'gone']),
                $wrong('/states/1/plays/layout', ['states' => [['id' => 'idle'], Docs::state('help', 8000, ['plays' => ['layout' => 'gone']])]]),
                $wrong('/states/1/linger', ['states' => [['id' => 'idle'], Docs::state('help', more: ['plays' => ['layout' => $help], 'linger' => 'own'])]]),
                $wrong('/transitions/0/on', ['transitions' => [Docs::way('idle', 'gone', 'help')]]),
            ] as [$path, $asked]
        ) {
            [$status, $said] = $asked();
            self::assertSame([422, $path], [$status, $said['error']['path'] ?? null], $path);
        }
        self::assertSame(422, $this->ask('PUT', '/api/displays/wide/settings', ['setting' => 'triggers', 'value' => ['add' => [$help]]])[0], 'a layout is no map');
    }

    /** What would be found at a handover is found while the map is drawn, with a cure; and it is tried before anybody stands there. */
    public function testAMapIsLookedAtAndTriedOnADisplay(): void
    {
        $this->show($this->layout('Sailings'));
        $this->survey();
        $map = $this->map($this->layout('Help'), 'b1')['document'];
        $look = fn (array $document, ?string $on): array => $this->ask('POST', '/api/reactions/look', ['document' => $document, 'display' => $on])[1];
        $told = $look($map, 'wide');
        self::assertSame([[], 'help', 8000], [$told['findings'], $told['states'][1]['id'], $told['states'][1]['linger_ms']]);
        self::assertSame(['Sailings', 'Help'], [$told['base']['run_sheet']['layers'][0]['part']['text'], $told['states'][1]['picture']['run_sheet']['layers'][0]['part']['text']]);
        self::assertGreaterThan(1000, $told['states'][1]['reads_to_mm']);
        self::assertSame([['id' => 'acts', 'reached' => ['idle', 'help']]], array_map(static fn (array $one): array => ['id' => $one['id'], 'reached' => $one['reached']], $told['traces']));

        $short = ['states' => [['id' => 'idle'], ['linger_ms' => 100] + $map['states'][1]]] + $map;
        $found = $look($short, 'wide')['findings'];
        self::assertSame(['trigger.short'], array_column($found, 'code'));
        self::assertSame([], $look($found[0]['fix']['set'] + $short, 'wide')['findings'], 'its cure is one');
        self::assertSame([null, null], [$look($map, null)['base'], $look($map, null)['on']]);
        self::assertSame([], $look($map, null)['findings'], 'without a display its sensors are not known');

        $run = fn (mixed $entries, int $until = 20_000): array => $this->ask('POST', '/api/reactions/run', ['document' => $map, 'display' => 'wide', 'entries' => $entries, 'until_ms' => $until]);
        [$status, $tried] = $run([['at_ms' => 2000, 'sensor' => 'b1', 'button' => '1']]);
        $states = array_map(static fn (array $one): string => implode(' ', $one), $tried['states']);
        self::assertSame([200, ['0 idle start', '2000 help press', '10000 idle lapse']], [$status, $states]);
        $from = (int) strtotime($tried['from']) * 1000;
        $texts = static fn (int $ms): array => array_values(array_filter(array_column(SheetReader::things($tried['picture']['run_sheet'], $from + $ms), 'text')));
        self::assertSame([['Sailings'], ['Sailings', 'Help'], ['Sailings']], array_map($texts, [1999, 2000, 10_000]));
        self::assertSame([422, '/entries/0/button'], [($wrong = $run([['at_ms' => 0, 'sensor' => 'b1', 'button' => ['1']]]))[0], $wrong[1]['error']['path']]);
        self::assertSame(422, $run([['at_ms' => 0, 'sensor' => 'b1', 'button' => '1']], 3_600_001)[0]);
        self::assertSame(422, $run('now')[0]);

        $saved = $this->map($this->layout('Help'), 'b1');
        $this->client->request('GET', "/api/triggers/{$saved['id']}/scxml");
        self::assertStringContainsString('<scxml', (string) $this->client->getResponse()->getContent());
    }

    private function layout(string $words): string
    {
        return $this->made(Make::layout([Make::told('head', $words, message: false, style: ['family' => 'Inter', 'size_px' => 60])]))['id'];
    }

    /** @return array<string, mixed> one that shows help when a button is pressed */
    private function map(string $help, string $sensor): array
    {
        $document = Docs::map(
            [Docs::state('help', 8000, ['plays' => ['layout' => $help]])],
            [['id' => 'press', 'kind' => 'press', 'sensor' => $sensor, 'button' => '1']],
            [Docs::way('*', 'press', 'help')],
        );
        [$status, $made] = $this->ask('POST', '/api/triggers', ['name' => 'Help', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])]);
        self::assertSame(201, $status);

        return $made;
    }

    /** @return array{int, ?string} */
    private function refused(string $method, string $path): array
    {
        [$status, $said] = $this->ask($method, $path);

        return [$status, $said['error']['code'] ?? null];
    }

    /** @param array<string, mixed> $value */
    private function state(array $value): void
    {
        self::assertSame(200, $this->ask('PUT', '/api/displays/wide/settings', ['setting' => 'triggers', 'value' => $value])[0]);
    }

    /** The display has buttons by now. */
    private function survey(): void
    {
        $saved = $this->ask('GET', '/api/displays/wide')[1];
        $document = ['sensors' => [['id' => 'b1', 'kind' => 'buttons', 'buttons' => ['1', '2']]]] + $saved['document'];
        self::assertSame(200, $this->ask('PUT', '/api/displays/wide', ['base' => $saved['revision'], 'document' => $document])[0]);
    }

    private function show(string $layout): void
    {
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['wide']]);
        $this->entities()->clear();
    }

    /** @return array<string, mixed> what was handed over */
    private function sheet(): array
    {
        return (array) json_decode($this->published()->read(ltrim($this->manifestOn('wide')['planes']['base']['sheet']['url'], '/')), true);
    }
}
