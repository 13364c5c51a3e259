<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use UpperPane\App\Account\Account;
use UpperPane\App\Account\Grant;
use UpperPane\App\Account\Role;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** An editor shows what she has filled in on her own displays: beside what plays or in its place, for a stated time, and takes it off. */
final class ShowFilledTest extends ApiTestCase
{
    private string $filled;
    private string $plain;
    private string $list;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $text = static fn (string $id, string $words): array => Make::told($id, $words, 900, 150, message: false, style: ['family' => 'Inter', 'size_px' => 60]);
        $item = ['id' => 'a', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000];
        $this->list = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [$item]]])[1]['id'];
        $zone = ['playlist' => ['ref' => $this->list]] + Make::zone('main', 0, 0, 1080, 1920);
        $this->plain = $this->made(Make::layout([$zone, $text('words', 'Sailing day')], width: 1080, height: 1920), 'Sailing day')['id'];
        $slots = [['id' => 'head', 'name' => 'Headline', 'kind' => 'text', 'element' => 'head', 'required' => true]];
        $template = $this->made(['slots' => $slots] + Make::layout([$text('head', 'Headline')], width: 1080, height: 1920), 'Offer')['id'];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->plain], 'displays' => ['tall']]);
        $marta = new Account('marta', 'Marta');
        $marta->setPasswordHash(static::getContainer()->get(UserPasswordHasherInterface::class)->hashPassword($marta, 'harbour'));
        $this->entities()->persist($marta);
        $this->entities()->persist(new Grant('marta', Role::Editor, 'gates'));
        $this->entities()->flush();
        $this->signIn(login: 'marta');
        $document = ['template' => $template, 'template_revision' => 1, 'values' => ['head' => 'Late boats']];
        $this->filled = $this->ask('POST', '/api/filled', ['name' => 'Late boats', 'document' => $document, 'display' => 'tall'])[1]['id'];
    }

    public function testItTakesThePlaceOfWhatPlaysUntilSheTakesItOff(): void
    {
        self::assertSame([['tall', 'Sailing day', null, null]], $this->at());
        $told = $this->ask('POST', "/api/filled/$this->filled/shown/preview", self::asked())[1]['told'];
        self::assertSame([['tall'], ['Sailing day'], 0], [array_column($told, 'display'), $told[0]['instead_of'], $told[0]['offer']['stops']]);
        self::assertSame([['tall', 'Sailing day', null, null]], $this->at(), 'looking changes nothing');

        $this->done('shown', self::asked());
        self::assertSame(['Late boats'], $this->words());
        self::assertSame([['tall', 'Late boats', null, ['how' => 'instead', 'until' => null]]], $this->at());
        $this->done('shown/off', ['displays' => ['tall']]);
        self::assertSame(['Sailing day'], $this->words());
        self::assertSame([409, 'show.stands-not'], $this->code('shown/off', ['displays' => ['tall']]));
    }

    /** Ten on the clock of the gates is nine UTC, when the test begins. */
    public function testForAStatedTimeItIsBookedBeforeWhatPlays(): void
    {
        $until = ['within' => ['until' => '2026-06-01T20:00:00']] + self::asked();
        self::assertSame(['Sailing day'], $this->ask('POST', "/api/filled/$this->filled/shown/preview", $until)[1]['told'][0]['instead_of']);
        self::assertSame([], $this->schedules(), 'looking makes no schedule');
        $this->done('shown', $until);
        self::assertSame([['tall', 'Bookings of Tall', null, ['how' => 'instead', 'until' => '2026-06-01T20:00:00']]], $this->at());
        self::assertSame(['Late boats', 'Sailing day'], [$this->plays('2026-06-01T19:59:00'), $this->plays('2026-06-01T20:01:00')]);

        // Once more, for every day from noon to two: one booking of it, which goes before what plays otherwise.
        $daily = ['within' => ['hours' => [['12:00', '14:00']]]] + self::asked();
        $this->done('shown', $daily);
        self::assertSame(['Late boats', 'Sailing day'], [$this->plays('2026-06-05T13:30:00'), $this->plays('2026-06-05T17:00:00')]);
        self::assertCount(1, $this->schedules());
        $this->done('shown/off', ['displays' => ['tall']]);
        self::assertSame(['Sailing day', 'Sailing day'], [$this->plays('2026-06-05T13:30:00'), $this->plays('2026-06-05T17:00:00')]);
        self::assertSame([422, 'value.range'], $this->code('shown', ['within' => ['until' => '2026-06-01T09:00:00']] + self::asked()));
    }

    public function testBesideWhatPlaysItComesInThePlaylistThatIsOpenThere(): void
    {
        $beside = ['how' => 'beside'] + self::asked();
        self::assertSame([409, 'show.nowhere-open'], $this->code('shown', $beside));
        $this->signIn();
        $list = $this->ask('GET', "/api/playlists/$this->list")[1]['document'];
        self::assertSame('hall', $this->ask('PUT', "/api/playlists/$this->list", ['base' => 1, 'document' => $list, 'place' => 'hall'])[1]['place']);
        // What a designer has saved and not handed over stays where it is.
        $layout = $this->ask('GET', "/api/layouts/$this->plain")[1]['document'];
        $layout['elements'][1]['text'] = 'Half made';
        $this->ask('PUT', "/api/layouts/$this->plain", ['base' => 1, 'document' => $layout]);

        $this->signIn(login: 'marta');
        self::assertSame([['tall', 'Sailing day', 'Round', null]], $this->at());
        $told = $this->ask('POST', "/api/filled/$this->filled/shown/preview", $beside)[1]['told'][0];
        self::assertSame([[], 1], [$told['instead_of'], $told['in_turn_with']]);
        $this->done('shown', ['within' => ['until' => '2026-06-08T00:00:00']] + $beside);
        self::assertSame(['Late boats', 'Sailing day'], $this->words());
        self::assertSame(['how' => 'beside', 'until' => '2026-06-08T00:00:00'], $this->at()[0][3]);
        $this->done('shown', $beside);
        $this->signIn();
        self::assertCount(2, $this->ask('GET', "/api/playlists/$this->list")[1]['document']['items'], 'once, however often she says so');
        $this->signIn(login: 'marta');
        $this->done('shown/off', ['displays' => ['tall']]);
        self::assertSame(['Sailing day'], $this->words());
    }

    /** Of many displays those are told that are asked for by name; where it is a part of something else it is told of, and not taken off by an editor. */
    public function testDisplaysAreFoundByWhatTheyOrTheirPlacesAreCalled(): void
    {
        $this->done('shown', self::asked());
        $this->signIn();
        $named = fn (string $search, string $more = ''): array => array_column($this->ask('GET', "/api/filled/$this->filled/shown?search=$search$more")[1]['displays'], 'id');
        self::assertSame(['wide', 'tall'], $named(''));
        self::assertSame(['tall', 'wide'], $named('', '&first=tall'), 'the one it is made for comes first');
        self::assertSame(['wide', 'wide', 'tall', [], ['wide', 'tall']], [...$named('WIDE', '&first=tall'), ...$named('wid'), ...$named('tall+gates'), $named('tall+hall+x'), $named('departure')]);

        $item = ['id' => 'a', 'layout' => ['ref' => $this->filled], 'duration_ms' => 9000];
        $around = $this->made(Make::layout([Make::zone('main', 0, 0, 1920, 1080, [$item])]), 'Around it')['id'];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $around], 'displays' => ['wide']]);
        $told = $this->ask('GET', "/api/filled/$this->filled/shown?search=nobody")[1];
        self::assertSame([2, 0, [], 2, ['tall']], [$told['total'], $told['found'], $told['displays'], $told['carrying'], array_column($told['stands'], 'id')]);
        self::assertSame([409, 'show.stands-not'], $this->code('shown/off', ['displays' => ['wide']]));
        self::assertSame([422, 'value.range'], $this->code('shown', ['displays' => array_fill(0, 201, 'tall')] + self::asked()), 'so many are no one act');
    }

    public function testNothingIsDoneWhereSomethingStopsIt(): void
    {
        self::assertSame([422, 'ref.unknown'], $this->code('shown', ['displays' => ['wide']] + self::asked()), 'no display of hers');
        self::assertSame([422, 'value.range'], $this->code('shown', ['displays' => []] + self::asked()));
        $document = $this->ask('GET', "/api/filled/$this->filled")[1]['document'];
        $this->ask('PUT', "/api/filled/$this->filled", ['base' => 1, 'document' => ['values' => ['head' => str_repeat('A long word ', 60)]] + $document]);
        self::assertSame([409, 'show.too-long'], $this->code('shown', self::asked()), 'nobody sees it cut');
        $this->ask('PUT', "/api/filled/$this->filled", ['base' => 2, 'document' => ['values' => new \stdClass()] + $document]);
        self::assertSame([409, 'handover.stopped'], $this->code('shown', ['within' => ['until' => '2026-06-01T20:00:00']] + self::asked()));
        self::assertSame([[], ['Sailing day']], [$this->schedules(), $this->words()]);
    }

    /** @return array<string, mixed> */
    private static function asked(): array
    {
        return ['displays' => ['tall'], 'how' => 'instead'];
    }

    /** @param array<string, mixed> $body */
    private function done(string $what, array $body): void
    {
        [$status, $answer] = $this->ask('POST', "/api/filled/$this->filled/$what", $body);
        self::assertSame(202, $status, json_encode($answer) ?: '');
        $this->work();
    }

    /**
     * @param array<string, mixed> $body
     * @return array{int, string}
     */
    private function code(string $what, array $body): array
    {
        [$status, $answer] = $this->ask('POST', "/api/filled/$this->filled/$what", $body);

        return [$status, $answer['error']['code'] ?? ''];
    }

    /** @return list<array{string, ?string, ?string, mixed}> */
    private function at(): array
    {
        /** @var list<array<string, mixed>> $displays */
        $displays = $this->ask('GET', "/api/filled/$this->filled/shown")[1]['displays'];

        return array_map(
            static fn (array $one): array => [$one['id'], $one['plays']['name'] ?? null, $one['open']['name'] ?? null, $one['stands']],
            $displays,
        );
    }

    /** @return list<string> all that stands there says, each once */
    private function words(): array
    {
        $words = [];
        $sheet = $this->sheetOn('tall');
        array_walk_recursive($sheet, static function (mixed $value, int|string $name) use (&$words): void {
            $words += $name === 'text' && is_string($value) ? [$value => $value] : [];
        });
        sort($words);

        return $words;
    }

    /** @param string $local on the clock of the display, Lisbon's */
    private function plays(string $local): string
    {
        $this->signIn();
        $course = $this->ask('POST', '/api/rehearsal', ['display' => 'tall', 'from' => $local, 'to' => substr($local, 0, -2) . '30'])[1]['course'] ?? [];
        $this->signIn(login: 'marta');

        return $course[0]['name'] ?? '';
    }

    /** @return list<string> */
    private function schedules(): array
    {
        return array_values(array_filter($this->entities()->getConnection()->fetchFirstColumn("SELECT name FROM design WHERE kind = 'schedule'"), is_string(...)));
    }
}
