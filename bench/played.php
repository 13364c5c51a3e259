<?php

declare(strict_types=1);

// Required by run.php with --browser: the week of many bookings, and two player pages side by side.

namespace UpperPane\Bench;

use UpperPane\Tests\Browser\Support\Chrome;

/** @param \Closure(string, string, mixed): mixed $ask */
function benchWeek(Chrome $chrome, \Closure $ask, string $base): void
{
    $bookings = [];
    for ($i = 0; $i < 300; $i++) {
        $hour = 7 * $i % 22;
        $bookings[] = array_filter([
            'id' => "b$i",
            'name' => "Booking $i",
            'plays' => ['layout' => 'check-in-day'],
            'rank' => ['everyday', 'weekly', 'dated'][$i % 3],
            'start' => sprintf('2026-12-%02dT%02d:00:00', $i % 28 + 1, $hour),
            'end' => sprintf('2026-12-%02dT%02d:30:00', $i % 28 + 1, $hour + 1),
            'rrule' => $i % 30 === 0 ? 'FREQ=DAILY' : ($i % 3 === 1 ? 'FREQ=WEEKLY' : ''),
        ]);
    }
    $id = $ask('POST', 'schedules', ['name' => 'Bench', 'display' => 'deck-strip', 'document' => [
        'format' => 'upper-pane/schedule@1', 'timezone' => 'Europe/Lisbon', 'standby' => ['layout' => 'check-in-day'], 'bookings' => $bookings,
    ]]);
    assert(is_string($id));
    $chrome->go("$base/schedules/$id?from=2026-12-07")->see('.week .bar');
    $figures = [];
    for ($round = 0; $round < 5; $round++) {
        $figures[] = $chrome->driver->executeAsyncScript(<<<'JS'
            const done = arguments[0]
            const label = () => document.querySelector('.week section').getAttribute('aria-label')
            const before = label()
            performance.clearResourceTimings()
            const pressed = performance.now()
            document.querySelector('[aria-label="Later"]').click()
            const look = () => {
              if (label() === before) return requestAnimationFrame(look)
              requestAnimationFrame(() => {
                const drawn = performance.now()
                const answer = performance.getEntriesByType('resource').filter((e) => e.name.endsWith('/api/plays')).at(-1)
                done([drawn - answer.responseEnd, drawn - pressed, document.querySelectorAll('.week .bar').length])
              })
            }
            requestAnimationFrame(look)
            JS, []);
    }
    sort($figures);
    [$drawn, $all, $bars] = array_map(static fn (mixed $one): float => is_numeric($one) ? (float) $one : 0.0, (array) $figures[2]);
    say(sprintf('a week of 300 bookings, %d of their occurrences, drawn', $bars), sprintf('%.0f ms; %.0f ms from the press, with the core\'s answer', $drawn, $all), 'under 200 ms');
    $ask('DELETE', "schedules/$id", null);
}

/** Two pages of one player, each in a browser of its own, and when each shows something else. */
function benchInStep(Chrome $chrome, string $base): void
{
    $address = $chrome->driver->executeAsyncScript(
        'const done = arguments[0]; fetch("/api/players").then((r) => r.json()).then((e) => done(e.players.find((p) => p.display === "check-in-1").address))',
    );
    assert(is_string($address));
    // The desk rests meanwhile.
    $chrome->go('about:blank');
    $pages = [Chrome::open(960, 540), Chrome::open(960, 540)];
    foreach ($pages as $page) {
        $page->go($base . $address)->see('.stage-canvas [data-element=main]');
        sleep(3);
        $page->script(<<<'JS'
            window.changes = {}
            let shown = null
            const look = () => {
              const now = [...document.querySelectorAll('[data-item]')].filter((e) => e.style.visibility !== 'hidden').map((e) => e.dataset.element + e.dataset.item).sort().join()
              // What changes is due at whole seconds: under the same second of both pages it is the same change.
              if (shown !== null && now !== shown) window.changes[Math.round(Date.now() / 1000)] = Date.now()
              shown = now
              requestAnimationFrame(look)
            }
            requestAnimationFrame(look)
            JS);
    }
    sleep(45);
    [$one, $other] = array_map(static fn (Chrome $page): array => (array) $page->script('return window.changes'), $pages);
    array_map(static fn (Chrome $page) => $page->close(), $pages);
    $apart = [];
    foreach (array_intersect_key($one, $other) as $second => $at) {
        $apart[] = abs((is_numeric($at) ? (int) $at : 0) - (is_numeric($other[$second]) ? (int) $other[$second] : 0));
    }
    sort($apart);
    say(
        sprintf('two player pages, %d changes seen on both', count($apart)),
        $apart === [] ? 'none' : sprintf('median %d ms apart, at most %d ms', $apart[intdiv(count($apart), 2)], $apart[count($apart) - 1]),
        'within 50 ms',
    );
}
