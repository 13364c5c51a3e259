<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** A design that is being worked on: saved by itself, undone over the whole visit, never lost (web/src/Layout/work.ts). */
final class WorkTest extends TestCase
{
    private const OPEN = <<<'TS'
        import { useDesignWork } from '@/Layout/work'
        import { useSession } from '@/ui/session'
        const saved = (revision: number, document: any) => ({ id: 'x', revision, saved_at: '2026-06-01T10:00:00Z', display: shownOn, document })
        let revision = 1
        let kept: any = { name: 'One' }
        let shownOn: string | null = null
        let refusing: any = null
        server.answer = ({ method, body }) => {
          if (refusing) return refusing
          if (method === 'PUT') {
            if (body.base !== revision) return { status: 409, body: { error: { code: 'revision.stale', message: 'Saved meanwhile.' }, current: saved(revision, kept) } }
            kept = body.document
            shownOn = body.display
            revision++
          }
          return { body: saved(revision, kept) }
        }
        const open = () => {
          let session: any
          const { it, unmount } = mounted(() => ((session = useSession()), useDesignWork<any>('layouts', 'x')))
          return { work: it, session, unmount, name: () => it.document.value?.name, typed: (name: string, gesture?: string) => it.change({ name }, gesture) }
        }
        const draft = () => JSON.parse(storage.kept.get('upper-pane:draft:x') ?? 'null')

        TS;

    public function testIsSavedByItselfAMomentAfterTheLastChange(): void
    {
        self::assertSame(['opening', 'saved', 'changed', 'Two', 'changed', 'Three', 'saved', ['PUT layouts/x'], 1, 'Three', null, 2], self::play(<<<'TS'
            const { work, typed } = open()
            const seen: unknown[] = [work.state.value]
            await pass(10)
            seen.push(work.state.value)
            typed('Two')
            seen.push(work.state.value, draft().document.name)
            await pass(600)
            typed('Three')
            await pass(600)
            seen.push(work.state.value, draft().document.name)
            await pass(200)
            seen.push(work.state.value, server.log('PUT'), server.calls.at(-1)!.body.base, kept.name, draft(), work.revision.value)
            say(seen)
            TS));
    }

    public function testPartsOfTwoVersionsAreTakenTogetherAndUndoneAgain(): void
    {
        self::assertSame(['stale', ['POST layouts/x/compare'], 1, 'saved', 'Both', 'Mine', 'Theirs', 3], self::play(<<<'TS'
            const { work, typed, name } = open()
            await pass(10)
            revision = 2
            kept = { name: 'Theirs' }
            typed('Mine')
            await pass(800)
            const seen: unknown[] = [work.state.value]
            refusing = { body: { differences: [], document: { name: 'Both' } } }
            const compared = await work.compare({ name: 'mine' })
            refusing = null
            seen.push(server.log('POST'), server.calls.at(-1)!.body.base)
            void work.settleWith(compared.document)
            await pass(50)
            seen.push(work.state.value, kept.name)
            work.undo()
            seen.push(name())
            work.undo()
            seen.push(name(), revision)
            say(seen)
            TS));
    }

    public function testOneGestureIsOneStepOfUndo(): void
    {
        self::assertSame([false, ['Dragged 2', 'One', 'Dragged 2', 'Typed', 'Dragged 2', 'Other'], false, true, 'Other'], self::play(<<<'TS'
            const { work, typed, name } = open()
            await pass(10)
            const before = work.canUndo.value
            const names: string[] = []
            typed('Dragged 1', 'move 1')
            typed('Dragged 2', 'move 1')
            names.push(name())
            work.undo()
            names.push(name())
            work.redo()
            names.push(name())
            typed('Typed')
            names.push(name())
            work.undo()
            names.push(name())
            typed('Other')
            names.push(name())
            await pass(1000)
            say([before, names, work.canRedo.value, work.canUndo.value, kept.name])
            TS));
    }

    public function testUndoOfTheWholeVisitAndNothingBeyond(): void
    {
        self::assertSame(['One', false, true, 'C', 'One'], self::play(<<<'TS'
            const { work, typed, name } = open()
            await pass(10)
            for (const next of ['A', 'B', 'C']) typed(next)
            await pass(1000)
            for (let i = 0; i < 9; i++) work.undo()
            const back = [name(), work.canUndo.value, work.canRedo.value]
            await pass(1000)
            const stored = kept.name
            for (let i = 0; i < 9; i++) work.redo()
            say([...back, name(), stored])
            TS));
    }

    public function testAChangeMadeWhileTheServerAnswersIsSavedAfterIt(): void
    {
        self::assertSame([[[1, 'Two'], [2, 'Three']], 'saved', 3, null], self::play(<<<'TS'
            const { work, typed } = open()
            await pass(10)
            server.ms = 300
            typed('Two')
            await pass(800)
            typed('Three')
            await pass(2000)
            say([server.calls.filter((c) => c.method === 'PUT').map((c) => [c.body.base, c.body.document.name]), work.state.value, work.revision.value, draft()])
            TS));
    }

    public function testAServerThatIsAwayIsAskedAgainUntilItIsBack(): void
    {
        self::assertSame(['kept', 'The server does not answer. What you changed is kept in this window.', 'Two', 3, 'saved', '', 'Two', null], self::play(<<<'TS'
            const { work, typed } = open()
            await pass(10)
            refusing = 'away'
            typed('Two')
            await pass(7000)
            const meanwhile = [work.state.value, work.trouble.value, draft().document.name, server.log('PUT').length]
            refusing = null
            await pass(3100)
            say([...meanwhile, work.state.value, work.trouble.value, kept.name, draft()])
            TS));
    }

    public function testWhatTheServerRefusesIsToldAndTheNextChangeIsSaved(): void
    {
        self::assertSame(['refused', '/name is empty.', 1, 'Three', 'saved', ''], self::play(<<<'TS'
            const { work, typed } = open()
            await pass(10)
            refusing = { status: 422, body: { error: { code: 'value.range', message: '/name is empty.', path: '/name' } } }
            typed('Two')
            await pass(20000)
            const meanwhile = [work.state.value, work.trouble.value, server.log('PUT').length]
            refusing = null
            typed('Three')
            await pass(1000)
            say([...meanwhile, kept.name, work.state.value, work.trouble.value])
            TS));
    }

    public function testALostSessionKeepsWhatIsTypedUntilSomebodySignsIn(): void
    {
        self::assertSame(['kept', true, 'Three', false, 'saved', 'Three', 2, null], self::play(<<<'TS'
            const { work, typed, session } = open()
            await pass(10)
            session.account = { login: 'ines', name: 'Ines' }
            refusing = { status: 401, body: { error: { code: 'session.none', message: 'Nobody is signed in.' } } }
            typed('Two')
            await pass(1000)
            typed('Three')
            await pass(1000)
            const meanwhile = [work.state.value, session.isLost, draft().document.name]
            refusing = null
            const before = server.answer
            server.answer = (call) => (call.path === 'session' || call.path === 'sign-in' ? { body: { account: { login: 'ines' }, csrf: 'new' } } : before(call))
            await session.signIn('ines', 'harbour')
            await pass(1000)
            say([...meanwhile, session.isLost, work.state.value, kept.name, work.revision.value, draft()])
            TS));
    }

    public function testSomebodyElseSavedMeanwhileAndMineIsPutOnTop(): void
    {
        self::assertSame(['stale', 'Theirs', 1, 'saved', 'Mine too', 3, 'Theirs'], self::play(<<<'TS'
            const { work, typed, name } = open()
            await pass(10)
            kept = { name: 'Theirs' }
            revision = 2
            typed('Mine')
            await pass(1000)
            const stale = [work.state.value, work.theirs.value?.document.name]
            typed('Mine too')
            await pass(9000)
            stale.push(server.log('PUT').length)
            await work.settle(true)
            const settled = [work.state.value, kept.name, work.revision.value]
            work.undo()
            say([...stale, ...settled, name()])
            TS));
    }

    public function testSomebodyElseSavedMeanwhileAndTheirsIsTaken(): void
    {
        self::assertSame(['Theirs', 'saved', 2, 1, null, 'Mine', 'Mine', 3], self::play(<<<'TS'
            const { work, typed, name } = open()
            await pass(10)
            kept = { name: 'Theirs' }
            revision = 2
            typed('Mine')
            await pass(1000)
            await work.settle(false)
            await pass(1000)
            const taken = [name(), work.state.value, work.revision.value, server.log('PUT').length, draft()]
            work.undo()
            taken.push(name())
            await pass(1000)
            say([...taken, kept.name, work.revision.value])
            TS));
    }

    public function testWhatHadNotReachedTheServerIsFoundAgain(): void
    {
        self::assertSame([true, 'Typed before the crash', 'Typed before the crash', 'One', false, null], self::play(<<<'TS'
            storage.kept.set('upper-pane:draft:x', JSON.stringify({ base: 1, document: { name: 'Typed before the crash' }, display: null }))
            const first = open()
            await pass(1000)
            const found = [first.work.restored.value, first.name(), kept.name]
            first.work.undo()
            found.push(first.name())
            first.unmount()
            kept = { name: 'One' }
            storage.kept.set('upper-pane:draft:x', JSON.stringify({ base: 1, document: { name: 'One' }, display: null }))
            const second = open()
            await pass(1000)
            say([...found, second.work.restored.value, draft()])
            TS));
    }

    public function testADraftOfAnOlderRevisionIsNotPutOverANewerOne(): void
    {
        self::assertSame(['stale', 'Old draft', 'Newer'], self::play(<<<'TS'
            revision = 5
            kept = { name: 'Newer' }
            storage.kept.set('upper-pane:draft:x', JSON.stringify({ base: 3, document: { name: 'Old draft' }, display: null }))
            const { work, name } = open()
            await pass(1000)
            say([work.state.value, name(), kept.name])
            TS));
    }

    public function testADraftThatCannotBeReadDoesNotStandInTheWay(): void
    {
        self::assertSame(['saved', 'One'], self::play(<<<'TS'
            storage.kept.set('upper-pane:draft:x', '{"base": 1, "docu')
            const { work, name } = open()
            await pass(1000)
            say([work.state.value, name()])
            TS));
    }

    public function testLeavingSavesAtOnce(): void
    {
        self::assertSame([['PUT layouts/x'], 'Two', 0], self::play(<<<'TS'
            const { typed, unmount } = open()
            await pass(10)
            typed('Two')
            unmount()
            await pass(10)
            const put = [server.log('PUT'), kept.name]
            const count = server.calls.length
            await pass(5000)
            say([...put, server.calls.length - count])
            TS));
    }

    public function testAFullStoreIsToldAndTheServerIsToldAllTheSame(): void
    {
        self::assertSame(['This browser keeps nothing more: its storage is full.', 'saved', 'Two'], self::play(<<<'TS'
            const { work, typed } = open()
            await pass(10)
            storage.full = true
            typed('Two')
            const told = work.trouble.value
            await pass(1000)
            say([told, work.state.value, kept.name])
            TS));
    }

    public function testSavingByHandWaitsForNothingAndSavesNothingTwice(): void
    {
        self::assertSame([0, 1, 1, 'd1'], self::play(<<<'TS'
            const { work, typed } = open()
            await pass(10)
            await work.save()
            const counts = [server.log('PUT').length]
            typed('Two')
            work.setDisplay('d1')
            await work.save()
            counts.push(server.log('PUT').length)
            await work.save()
            await pass(2000)
            say([...counts, server.log('PUT').length, server.calls.at(-1)!.body.display])
            TS));
    }

    public function testTheDisplayChosenWhileTheServerAnswersStays(): void
    {
        self::assertSame(['d2', 'd2', 'saved', 2], self::play(<<<'TS'
            const { work } = open()
            await pass(10)
            server.ms = 300
            work.setDisplay('d1')
            await pass(800)
            work.setDisplay('d2')
            await pass(2000)
            say([work.display.value, shownOn, work.state.value, server.log('PUT').length])
            TS));
    }

    public function testADesignThatIsNotThereSaysSoAndOneThatIsAwayIsAskedForAgain(): void
    {
        self::assertSame(['refused', 'This layout is not there, or no longer.', 1, 'opening', 'saved'], self::play(<<<'TS'
            refusing = { status: 404, body: { error: { code: 'not.found', message: 'This layout is not there, or no longer.' } } }
            const gone = open()
            await pass(9000)
            const seen: unknown[] = [gone.work.state.value, gone.work.trouble.value, server.calls.length]
            refusing = { status: 503, body: 'nginx says no' }
            const away = open()
            await pass(1000)
            seen.push(away.work.state.value)
            refusing = null
            await pass(3100)
            say([...seen, away.work.state.value])
            TS));
    }

    private static function play(string $script): mixed
    {
        return Scene::play(self::OPEN . $script);
    }
}
