<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;
use UpperPane\Tests\Core\Make;

/** Playlists and zones in time: what comes when, how often, and with what. */
final class TimeTest extends TestCase
{
    private Chrome $desk;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
    }

    protected function tearDown(): void
    {
        $this->desk->close();
    }

    public function testAPlaylistSaysHowItGoesRoundWhateverIsDoneToIt(): void
    {
        Desk::signIn($this->desk, '/');
        $list = static fn (string ...$names): array => array_map(static fn (string $name): array => Make::picture($name, durationMs: 10_000), $names);
        Desk::post($this->desk, 'playlists', ['name' => 'Extras of mine', 'document' => ['items' => $list('X', 'Y')]]);
        $id = Desk::post($this->desk, 'playlists', ['name' => 'Round of mine', 'document' => ['items' => $list('A', 'B', 'C', 'D')]])['id'];
        $this->desk->go(Desk::url("/playlists/$id"));
        $this->desk->see('.between .round', '4 items in 40.0 s, then again');
        $this->desk->see('.items li:nth-child(1) .rate', '90/h, 25 %');

        // A B X C D Y, out of a list that is kept on its own.
        $this->desk->press('#between-from option', 'Extras of mine');
        $this->desk->see('.between .round', '6 items in 60.0 s, then again: 1 2 a 3 4 b');
        $this->desk->see('.items li:nth-child(1) .rate', '60/h, 16.7 %');
        $this->desk->type('[aria-label="After how many items one is put in"]', '1');
        $this->desk->see('.between .round', '8 items in 80.0 s, then again: 1 a 2 b 3 a 4 b');

        // One comes twice, spread; one stays behind it.
        $this->desk->press('.items li:nth-child(1) button', 'more');
        $this->desk->type('[aria-label="How many times A.png comes in a round"]', '2');
        $this->desk->see('.items li:nth-child(1) .marks', '2 times a round');
        $this->desk->see('.between .round', '20 items in 200.0 s, then again: 1 a 2 b 1 a 3 b 4 a 1 b 2 a 1 b 3 a 4 b');
        $this->desk->press('.items li:nth-child(2) button', 'more');
        $this->desk->press('.items li:nth-child(2) .tick', 'always right behind the one above');
        $this->desk->see('.items li:nth-child(2) .marks', 'tied to the one above');
        $this->desk->see('.between .round', '1 2 a 3 b 1 2 a 4 b');

        // Tied together they move together, with the keyboard.
        $this->desk->see('.items li:nth-child(1) .grip')->sendKeys("\u{E015}");
        $this->desk->until(fn (): bool => str_contains($this->desk->see('.items li:nth-child(1) .name')->getText(), 'C.png'), 'C to be the first');
        self::assertStringContainsString('B.png', $this->desk->see('.items li:nth-child(3) .name')->getText());

        // Only on some days and hours; nonsense is told where it was typed.
        $this->desk->press('.items li:nth-child(4) button', 'more');
        $this->desk->type('[aria-label="Hours of D.png"]', 'in the evening');
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelector("[aria-label=\'Hours of D.png\']").validationMessage') !== '', 'to be told');
        $this->desk->type('[aria-label="Hours of D.png"]', '17:00-19:00, 21:00-2:00');
        $this->desk->press('.items li:nth-child(4) .days label', 'Sun');
        $this->desk->type('[aria-label="D.png plays from"]', '2026-12-01 08:00');
        $this->desk->see('.items li:nth-child(4) .marks', 'from 2026-12-01 08:00; Mon, Tue, Wed, Thu, Fri, Sat; 17:00-19:00, 21:00-02:00');
        $this->desk->see('.between .round', 'while all are due');
        $this->desk->until(fn (): bool => (Desk::api($this->desk, "playlists/$id")['document']['items'][3]['valid']['hours'][1][1] ?? null) === '02:00', 'it to be saved');

        // A copy goes to the end of another list.
        $this->desk->press('.items li:nth-child(4) .times option', 'Extras of mine');
        $this->desk->see('.times [role=status]', 'Copied to the end of "Extras of mine".');
        $this->desk->see('.between .round', 'while all are due');

        $this->desk->go(Desk::url('/playlists?search=extras%20of%20mine'));
        $this->desk->see('.design', 'part of Round of mine');
    }

    public function testAFollowerChangesWithItsLeaderAndDriftIsToldWhereLoopsMeet(): void
    {
        Desk::signIn($this->desk, '/');
        $films = [Make::film('one', 15_000), Make::film('two', 20_000), Make::film('three', 10_000)];
        $pictures = static fn (int ...$ms): array => array_map(static fn (int $ms, int $n): array => Make::picture("p$n", durationMs: $ms), array_values($ms), array_keys(array_values($ms)));
        $document = Make::layout([Make::zone('main', 0, 0, 1344, 1080, $films), Make::zone('side', 1344, 0, 576, 1080, $pictures(10_000, 20_000, 10_000))]);
        $id = Desk::post($this->desk, 'layouts', ['name' => 'Together', 'document' => array_diff_key($document, ['id' => 1, 'name' => 1])])['id'];
        $this->desk->go(Desk::url("/layouts/$id"));

        // Loops of 45 s and 40 s meet every 360 s, and the strip says so.
        $this->desk->see('main', 'loops meet every 6.0 min');
        $this->desk->press('.shelf .all', 'all findings');
        $this->desk->see('.shelf .say', '"main" and "side" have 3 items each, in loops of 45 s and 40 s: they drift apart and meet every 360 s.');
        $this->desk->press('.shelf .fix', 'Let "side" change with "main"');
        $this->desk->until(fn (): bool => !str_contains($this->desk->see('main')->getText(), 'loops meet every 6.0 min'), 'loops to go together');

        // It changes at 0, 15 and 35 s of the leader's loop.
        $sheet = Desk::post($this->desk, 'analysis', ['document' => ['elements' => [
            $document['elements'][0], ['follows' => 'main'] + $document['elements'][1],
        ]] + $document])['run_sheet'];
        foreach ($sheet['layers'] as $zone) {
            self::assertSame([[0, 15_000, 35_000], 45_000], [array_column($zone['segments'], 'start_ms'), $zone['period_ms']]);
        }

        $this->desk->press('.shelf .all');
        // One more picture, and the counts no longer agree: told, and cured by one press.
        $hands = new Hands($this->desk);
        $hands->fill('side', ['quay-cafe']);
        $this->desk->press('.shelf .all');
        $this->desk->see('.shelf .say', '"side" has 4 items and changes with "main", which has 3 items');
        $this->desk->press('.shelf .fix', 'Switch off the last one of "side"');
        $this->desk->until(fn (): bool => !str_contains($this->desk->see('body')->getText(), 'has 4 items and changes'), 'the finding to go');
        $this->desk->see('.details .items li.off', 'quay-cafe');
        $this->desk->see('.details .zone-times select option:checked', 'with main');
    }
}
