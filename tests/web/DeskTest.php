<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What every station of the desk is built on: figures, the API, the session, the shelf (web/src/ui). */
final class DeskTest extends TestCase
{
    /** @param list<mixed> $arguments */
    #[DataProvider('figures')]
    public function testFiguresAreWrittenWithTheirUnit(string $function, array $arguments, string $written): void
    {
        self::assertSame($written, (new Module('ui/format.ts'))->call($function, ...$arguments));
    }

    /** @return iterable<string, array{string, list<mixed>, string}> */
    public static function figures(): iterable
    {
        $at = 1_793_493_000_000; // 2026-11-01T00:30:00Z
        yield 'whole seconds' => ['seconds', [10_000], '10.0 s'];
        yield 'tenths' => ['seconds', [4_500], '4.5 s'];
        yield 'milliseconds' => ['seconds', [1_234], '1.234 s'];
        yield 'bytes' => ['bytes', [999], '999 B'];
        yield 'kilobytes' => ['bytes', [1_499], '1 kB'];
        yield 'megabytes' => ['bytes', [1_550_000], '1.6 MB'];
        yield 'gigabytes' => ['bytes', [2_345_000_000], '2.35 GB'];
        yield 'a raster' => ['size', [['width' => 1920, 'height' => 540]], '1920 × 540'];
        yield 'the clock there' => ['clock', [$at, 'Atlantic/Azores'], '23:30:00'];
        yield 'the clock without seconds' => ['clock', [$at, 'Europe/Lisbon', false], '00:30'];
        yield 'the day there' => ['day', [$at, 'Atlantic/Azores'], 'Saturday 31 October'];
        yield 'the zone by its name' => ['zoneName', ['Europe/Lisbon', 1_780_308_000_000], 'WEST'];
        yield 'never' => ['moment', [null], 'never'];
        yield 'another day' => ['moment', ['2020-02-29T23:30:00Z', 'Asia/Tokyo'], '1 Mar 08:30'];
        yield 'never called' => ['ago', [null, $at], 'never'];
        yield 'a moment ago' => ['ago', ['2026-11-01T00:29:51Z', $at], '9 s ago'];
        yield 'a clock that is ahead' => ['ago', ['2026-11-01T00:31:00Z', $at], '0 s ago'];
        yield 'minutes' => ['ago', ['2026-11-01T00:00:30Z', $at], '29 min ago'];
        yield 'hours' => ['ago', ['2026-10-31T20:30:00Z', $at], '4 h ago'];
        yield 'days' => ['ago', ['2026-10-29T00:30:00Z', $at], '3 days ago'];
    }

    public function testTheServersOwnWordsAreTold(): void
    {
        self::assertSame([
            [422, 'value.range', 'Name is empty.', '/name', false],
            [422, 'value.range', 'Size px of element 3 is 0; 1 is the least.', '/elements/2/style/size_px', false],
            [422, 'value.range', 'On "Wide": Item 2 of element 1 has no media. Open /player.', '', false],
            [500, 'failed', 'The server answered 500.', '', false],
            [502, 'failed', 'The server answered 502.', '', true],
            [0, 'server.away', 'The server does not answer. What you changed is kept in this window.', '', true],
            [200, 'answer.wrong', 'The server answered something that cannot be read.', '', false],
            null,
            ['id' => 'x'],
        ], self::play(<<<'TS'
            const { call } = await start()
            const answers: any[] = [
              { status: 422, body: { error: { code: 'value.range', message: '/name is empty.', path: '/name' } } },
              { status: 422, body: { error: { code: 'value.range', message: '/elements/2/style/size_px is 0; 1 is the least.', path: '/elements/2/style/size_px' } } },
              { status: 422, body: { error: { code: 'value.range', message: 'On "Wide": /elements/0/playlist/items/1 has no media. Open /player.' } } },
              { status: 500, body: '<h1>Oops</h1>' },
              { status: 502, body: '' },
              'away',
              { status: 200, body: '<h1>Welcome</h1>' },
              { status: 204 },
              { body: { id: 'x' } },
            ]
            const said: unknown[] = []
            for (const answer of answers) {
              server.answer = () => answer
              said.push(await call())
            }
            say(said)
            TS));
    }

    public function testWhatChangesSomethingCarriesTheTokenOfTheSession(): void
    {
        self::assertSame(['GET' => null, 'POST' => 'second', 'PUT' => 'second', 'DELETE' => 'second'], self::play(<<<'TS'
            const { api, session } = await start()
            server.answer = () => ({ body: { account: { login: 'ines', name: 'Ines' }, csrf: 'first' } })
            await session.load()
            // Signing in gives the session another token.
            server.answer = ({ path }) => ({ body: path === 'sign-in' ? {} : { account: { login: 'ines', name: 'Ines' }, csrf: 'second' } })
            await session.signIn('ines', 'harbour')
            server.calls.length = 0
            await api.get('layouts')
            await api.post('layouts', {})
            await api.put('layouts/x', {})
            await api.delete('layouts/x')
            say(Object.fromEntries(server.calls.map((c) => [c.method, c.headers['X-CSRF-Token'] ?? null])))
            TS));
    }

    public function testATokenThatIsOldIsReadAnewAndTheRequestSentOnceMore(): void
    {
        self::assertSame([['id' => 'x'], ['PUT old', 'GET', 'PUT new'], [403, 'csrf.wrong'], 3], self::play(<<<'TS'
            const { api, session } = await start()
            session.csrf = 'old'
            let right = 'new'
            server.answer = ({ method, path, headers }) =>
              path === 'session'
                ? { body: { account: { login: 'ines', name: 'Ines' }, csrf: 'new' } }
                : headers['X-CSRF-Token'] === right
                  ? { body: { id: 'x' } }
                  : { status: 403, body: { error: { code: 'csrf.wrong', message: 'This request does not come from the application.' } } }
            const saved = await api.put('layouts/x', {})
            const sent = server.calls.map((c) => [c.method, c.method === 'PUT' ? c.headers['X-CSRF-Token'] : ''].join(' ').trim())
            right = 'never'
            server.calls.length = 0
            const refused = await api.put('layouts/x', {}).catch((e: any) => [e.status, e.code])
            say([saved, sent, refused, server.calls.length])
            TS));
    }

    public function testASessionThatIsLostAsksToSignInAndThenGoesOn(): void
    {
        self::assertSame([false, false, true, 0, 2, false, 'Wrong name or password.'], self::play(<<<'TS'
            const { api, session } = await start()
            const lost = { status: 401, body: { error: { code: 'session.none', message: 'Nobody is signed in.' } } }
            server.answer = () => lost
            await api.get('layouts').catch(() => undefined)
            const seen: unknown[] = [session.isLost]
            session.account = { login: 'ines', name: 'Ines' }
            await api.get('session').catch(() => undefined)
            seen.push(session.isLost)
            await api.get('layouts').catch(() => undefined)
            seen.push(session.isLost)
            let back = 0
            void session.back().then(() => back++)
            void session.back().then(() => back++)
            await pass(50)
            seen.push(back)
            server.answer = () => ({ body: { account: { login: 'ines', name: 'Ines' }, csrf: 'new' } })
            await session.signIn('ines', 'harbour')
            await pass(50)
            seen.push(back, session.isLost)
            server.answer = () => ({ status: 401, body: { error: { message: 'Wrong name or password.' } } })
            seen.push(await session.signIn('ines', 'x').catch((e: Error) => e.message))
            say(seen)
            TS));
    }

    public function testTheShelfCountsByLevelAndForgetsWhatWasOpen(): void
    {
        self::assertSame([[2, 1, 0], [0, 0, 0], '', true], self::play(<<<'TS'
            const { useShelf } = await import('@/ui/shelf')
            const { it: shelf } = mounted(() => useShelf())
            shelf.findings = (['stop', 'warning', 'stop'] as const).map((level) => ({ code: 'x', level, elements: [], message: '' }))
            shelf.remark = 'Three.'
            shelf.chosen = () => undefined
            const before = [shelf.stops, shelf.warnings, shelf.hints]
            shelf.clear()
            say([before, [shelf.stops, shelf.warnings, shelf.hints], shelf.remark, shelf.chosen === null])
            TS));
    }

    public function testWhatIsBroughtInIsAskedForUntilItIsReady(): void
    {
        self::assertSame([1, 3, 3, ['pier'], ['id' => 'pier', 'name' => 'pier.png', 'width' => 640, 'height' => 480], 'film, 640 × 480, 2.4 s'], self::play(<<<'TS'
            const { useMedia, refOf, facts } = await import('@/Media/media')
            let state = 'waiting'
            const pier = () => ({ id: 'pier', name: 'pier.png', state, kind: 'picture', width: 640, height: 480, length_ms: null })
            server.answer = () => ({ body: { media: [pier(), { ...pier(), id: 'song', state: 'refused' }] } })
            const { it } = mounted(() => useMedia())
            await pass(100)
            const counts = [server.calls.length]
            await pass(1100)
            state = 'ready'
            await pass(1100)
            counts.push(server.calls.length)
            await pass(9000)
            counts.push(server.calls.length)
            const ready: any[] = it.ready.value
            say([...counts, ready.map((m) => m.id), refOf(ready[0]), facts({ ...ready[0], kind: 'film', length_ms: 2400 })])
            TS));
    }

    public function testTheEstateIsSortedByPlaceAndByHowDisplaysStand(): void
    {
        self::assertSame([['UTC', ['Estate', 'Hall'], 'plays'], ['Hall' => ['a', 'b'], 'Pier' => ['c']], ['b'], ['c'], ['a'], ['a']], self::play(<<<'TS'
            const { useEstate } = await import('@/Estate/estate')
            const display = (id: string, place: string, standing: number, older = false) =>
              ({ id, name: id, place, kind: 0, number: null, release: null, older, standing, due: null, players: [{ id: `p${id}`, standing }] })
            server.answer = () => ({
              body: {
                places: [{ id: 'h', name: 'Hall', way: ['Estate', 'Hall'] }, { id: 'e', name: 'Empty', way: [] }, { id: 'p', name: 'Pier', way: [] }],
                kinds: [{ timezone: 'UTC' }],
                standings: [{ state: 'plays' }, { state: 'unbound' }, { state: 'silent' }],
                releases: [],
                dues: [],
                findings: [],
                displays: [display('a', 'h', 0, true), display('c', 'p', 1), display('b', 'h', 2)],
              },
            })
            const { it } = mounted(() => useEstate())
            await pass(100)
            const ids = (list: any) => list.value.map((d: any) => d.id)
            const first = it.displays.value[0]!
            const one = [first.timezone, first.way, first.players[0]!.standing.state]
            say([one, Object.fromEntries(it.byPlace.value.map((p) => [p.name, p.displays.map((d) => d.id)])), ids(it.silent), ids(it.unbound), ids(it.plays), ids(it.notHandedOver)])
            TS));
    }

    private static function play(string $script): mixed
    {
        $start = <<<'TS'
            async function start() {
              const { api, Problem } = await import('@/ui/api')
              const { useSession } = await import('@/ui/session')
              const { it: session } = mounted(() => useSession())
              const call = () => api.get<any>('thing').catch((e) => (e instanceof Problem ? [e.status, e.code, e.message, e.path, e.mayPass] : 'another error'))
              return { api, session, call }
            }

            TS;

        return Scene::play($start . $script);
    }
}
