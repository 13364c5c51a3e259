<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Panel;

use UpperPane\App\Account\Role;
use UpperPane\Core\Panel\Panel;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Playback\SheetReader;
use UpperPane\Tests\Core\Trigger\TriggerDocuments as Docs;

/** An operator's panel: what its keys put on displays and ask them for, by whom, and whether the players say so. */
final class PanelsTest extends ApiTestCase
{
    private string $day;
    private string $storm;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $inZone = ['playlist' => ['id' => 'p', 'name' => 'P', 'items' => [['id' => 'a', 'layout' => ['ref' => $this->layout('Offers')], 'duration_ms' => 5000]]]];
        $head = Make::told('head', 'Sailings', 960, 200, message: false, style: ['family' => 'Inter', 'size_px' => 60]);
        $this->day = $this->made(Make::layout([$inZone + Make::zone('main', 0, 0, 960, 1080), $head]))['id'];
        $this->storm = $this->layout('Storm');
    }

    /** What was handed over goes on around it, and stands alone again afterwards. */
    public function testAKeyPutsALayoutOnOneZoneAndBackAgain(): void
    {
        $panel = $this->panel([['id' => 'storm', 'name' => 'Storm', 'display' => 'wide', 'zone' => 'main', 'plays' => ['layout' => $this->storm], 'press' => '1']]);
        self::assertSame([409, 'panel.dark'], $this->refused("$panel/press", ['key' => 'storm']));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->day], 'displays' => ['wide']]);
        self::assertSame(['Offers', 'Sailings'], $this->words());
        self::assertSame([false, []], $this->told($panel));

        self::assertSame(202, $this->ask('POST', "/api/panels/$panel/press", ['key' => 'storm'])[0]);
        self::assertSame([false, []], $this->told($panel), 'nothing stands that is not handed over yet');
        $this->work();
        self::assertSame(['Sailings', 'Storm'], $this->words());
        [$stands, $on] = $this->told($panel);
        self::assertSame([true, 'main', 'Storm', ['layout' => $this->storm], null], [$stands, $on[0]['zone'], $on[0]['name'], $on[0]['plays'], $on[0]['until']]);
        self::assertSame(409, $this->ask('DELETE', "/api/layouts/$this->storm")[0], 'it is booked');
        self::assertSame([], $this->older(), 'what stands there is what is saved');

        $this->done("$panel/back", ['display' => 'wide', 'zone' => 'main']);
        self::assertSame(['Offers', 'Sailings'], $this->words());
        self::assertSame([false, []], $this->told($panel));
        $standing = $this->ask('GET', '/api/displays/wide/releases')[1]['releases'][0]['source'];
        self::assertSame(['layout', $this->day], [$standing['kind'], $standing['id']]);
        self::assertSame([409, 'panel.nothing'], $this->refused("$panel/back", ['display' => 'wide', 'zone' => 'main']));
        self::assertSame([409, 'panel.other'], $this->refused("$panel/back", ['display' => 'tall', 'zone' => null]));
    }

    /** All else stays as it was handed over: what was saved since goes out with nobody's key. */
    public function testNothingElseGoesOutWithIt(): void
    {
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->day], 'displays' => ['wide']]);
        $saved = $this->ask('GET', "/api/layouts/$this->day")[1];
        $document = $saved['document'];
        $document['elements'][1]['text'] = 'Not ready yet';
        self::assertSame(200, $this->ask('PUT', "/api/layouts/$this->day", ['base' => 1, 'document' => $document])[0]);
        $panel = $this->panel([['id' => 'storm', 'name' => 'Storm', 'display' => 'wide', 'zone' => 'main', 'plays' => ['layout' => $this->storm], 'for_min' => 30]]);
        $this->pressed($panel, 'storm');
        self::assertSame(['Sailings', 'Storm'], $this->words());
        self::assertSame(30 * 60, strtotime((string) $this->told($panel)[1][0]['until']) - strtotime((string) $this->told($panel)[1][0]['since']));
        self::assertSame(['Offers', 'Sailings'], $this->words(31 * 60), 'it goes back by itself');
    }

    public function testAKeyOfWhatIsNotThereSaysSo(): void
    {
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->storm], 'displays' => ['wide']]);
        $panel = $this->panel([
            ['id' => 'zone', 'name' => 'Zone', 'display' => 'wide', 'zone' => 'main', 'plays' => ['layout' => $this->day]],
            ['id' => 'whole', 'name' => 'Whole', 'display' => 'wide', 'plays' => ['layout' => $this->day]],
            ['id' => 'ask', 'name' => 'Ask', 'display' => 'wide', 'signal' => 'go'],
            ['id' => 'gone', 'name' => 'Gone', 'display' => 'nowhere', 'signal' => 'go'],
        ]);
        self::assertSame([409, 'panel.zone'], $this->refused("$panel/press", ['key' => 'zone']));
        self::assertSame(['Storm'], $this->words(), 'nothing of it is done');
        self::assertSame([409, 'panel.signal'], $this->refused("$panel/press", ['key' => 'ask', 'id' => self::id('a')]));
        self::assertSame(422, $this->ask('POST', "/api/panels/$panel/press", ['key' => 'ask', 'id' => 'x'])[0]);
        self::assertSame(422, $this->ask('POST', "/api/panels/$panel/press", ['key' => 'other'])[0]);
        foreach ([['to' => str_repeat('x', 2001)], ['to' => ['Tolm']], 'Tolm'] as $row) {
            self::assertSame(422, $this->ask('POST', "/api/panels/$panel/press", ['key' => 'ask', 'id' => self::id('a'), 'row' => $row])[0]);
        }
        self::assertSame(404, $this->ask('POST', "/api/panels/$panel/press", ['key' => 'gone', 'id' => self::id('a')])[0]);
        $keys = array_column($this->ask('GET', "/api/panels/$panel/told")[1]['groups'][0]['keys'], 'trouble', 'id');
        self::assertSame(['ask', 'gone'], array_keys($keys));
        $this->pressed($panel, 'whole');
        self::assertSame(['Offers', 'Sailings'], $this->words());
    }

    /** What an operator asks for is in the pointer of the player for half a minute, and counts once the player says that it took it. */
    public function testASignalIsAskedForAndTakenByThePlayer(): void
    {
        $help = $this->layout('Help');
        $map = Docs::map([Docs::state('help', 8000, ['plays' => ['layout' => $help]])], [Docs::operator('go')], [Docs::way('*', 'go', 'help')]);
        $made = $this->ask('POST', '/api/triggers', ['name' => 'Help', 'document' => array_diff_key($map, ['id' => 1, 'name' => 1])])[1]['id'];
        self::assertSame(200, $this->ask('PUT', '/api/displays/wide/settings', ['setting' => 'triggers', 'value' => ['add' => [$made]]])[0]);
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->day], 'displays' => ['wide']]);
        $panel = $this->panel([['id' => 'go', 'name' => 'Go', 'display' => 'wide', 'signal' => 'go', 'colour' => '#102030']]);
        $key = $this->ask('GET', "/api/panels/$panel/told")[1]['groups'][0]['keys'][0];
        self::assertSame(['#102030', '#ffffff', $made, false], [$key['ground'], $key['ink'], $key['map'], isset($key['trouble'])]);

        $secret = $this->player('wide')->secret;
        foreach ([self::id('a'), self::id('a'), self::id('b')] as $id) {
            self::assertSame(204, $this->ask('POST', "/api/panels/$panel/press", ['key' => 'go', 'id' => $id, 'row' => ['to' => 'Tolm', 'n' => 2]])[0]);
        }
        $said = $this->pointer($secret)['said'];
        $row = ['to' => 'Tolm', 'n' => 2];
        $told = array_map(static fn (array $one): array => [$one['id'], $one['signal'], $one['row']], $said);
        self::assertSame([[self::id('a'), 'go', $row], [self::id('b'), 'go', $row]], $told, 'asked twice, asked once');
        $asked = fn (): array => $this->ask('GET', "/api/panels/$panel/told")[1]['displays'][0];
        self::assertSame([self::id('b'), 'go', 'ines', false], [$asked()['asked']['id'], $asked()['asked']['signal'], $asked()['asked']['said_by'], $asked()['asked']['taken']]);

        $answer = static fn (string $map): array => ['map' => $map, 'state' => 'help', 'why' => 'go', 'since' => '2026-06-01T09:00:01Z'];
        $answers = [$answer($made), $answer('other')];
        $this->reports($secret, ['format' => 'upper-pane/report@1', 'release' => null, 'answers' => $answers, 'took' => [self::id('b'), self::id('a')]]);
        self::assertSame([true, [$answers[0]]], [$asked()['asked']['taken'], $asked()['answers']], 'a map that runs there no more is not told');
    }

    /** Keys are for who may hand over there. */
    public function testWhoMayPressIt(): void
    {
        $upright = $this->made(Make::layout([Make::told('head', 'Upright', 900, 200, message: false, style: ['family' => 'Inter', 'size_px' => 60])], width: 1080, height: 1920))['id'];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->day], 'displays' => ['wide']]);
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $upright], 'displays' => ['tall']]);
        $key = static fn (string $on, string $plays): array => ['id' => $on, 'name' => $on, 'display' => $on, 'plays' => ['layout' => $plays]];
        $panel = $this->panel([$key('wide', $this->storm), $key('tall', $upright)]);
        $place = $this->entities()->getConnection()->fetchOne("SELECT place_id FROM surveyed_display WHERE id = 'tall'");
        $this->somebody('rui', Role::Operator, is_string($place) ? $place : null);
        $this->somebody('rea', Role::Reader);
        $this->signIn(login: 'rui');
        $told = $this->ask('GET', "/api/panels/$panel/told")[1];
        self::assertSame(['tall'], array_column($told['displays'], 'id'));
        self::assertSame(['wide'], array_keys(array_column($told['groups'][0]['keys'], 'trouble', 'id')), 'what is not hers is told as such');
        $press = fn (string $key): int => $this->ask('POST', "/api/panels/$panel/press", ['key' => $key])[0];
        self::assertSame([404, 202], [$press('wide'), $press('tall')]);
        $this->signIn(login: 'rea');
        self::assertSame([404, 404], [$this->ask('GET', "/api/panels/$panel/told")[0], $press('tall')]);
    }

    private function layout(string $words): string
    {
        return $this->made(Make::layout([Make::told('head', $words, message: false, style: ['family' => 'Inter', 'size_px' => 60])]), $words)['id'];
    }

    /**
     * @param list<array<string, mixed>> $keys
     * @return string its id
     */
    private function panel(array $keys): string
    {
        [$status, $made] = $this->ask('POST', '/api/panels', ['name' => 'Hall', 'document' => ['format' => Panel::FORMAT, 'groups' => [['name' => 'Wall', 'keys' => $keys]]]]);
        self::assertSame(201, $status, (string) json_encode($made));

        return $made['id'];
    }

    private function pressed(string $panel, string $key): void
    {
        $this->done("$panel/press", ['key' => $key]);
    }

    /** @param array<string, mixed> $body */
    private function done(string $path, array $body): void
    {
        [$status, $said] = $this->ask('POST', "/api/panels/$path", $body);
        self::assertSame(202, $status, (string) json_encode($said));
        $this->work();
    }

    /**
     * @param array<string, mixed> $body
     * @return array{int, ?string}
     */
    private function refused(string $path, array $body): array
    {
        [$status, $said] = $this->ask('POST', "/api/panels/$path", $body);

        return [$status, $said['error']['code'] ?? null];
    }

    /** @return array{bool, list<array<string, mixed>>} whether its first key stands, and what stands on the first display */
    private function told(string $panel): array
    {
        $told = $this->ask('GET', "/api/panels/$panel/told")[1];

        return [$told['groups'][0]['keys'][0]['stands'], $told['displays'][0]['stands']];
    }

    /** @return list<string> what is to be read on the display so many seconds from now */
    private function words(int $laterS = 1): array
    {
        $words = array_values(array_filter(array_column(SheetReader::things($this->sheetOn('wide'), 1000 * (self::now()->getTimestamp() + $laterS)), 'text')));
        sort($words);

        return $words;
    }

    private static function id(string $letter): string
    {
        return str_repeat($letter, 26);
    }
}
