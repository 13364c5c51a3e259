<?php

declare(strict_types=1);

// Required by run.php with --browser: the week of many bookings, and two player pages side by side.

namespace UpperPane\Bench;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
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

/**
 * What a player's page costs while it plays, how soon it stands after a start, and whether it goes dark while something else is handed to it.
 *
 * @param \Closure(string, string, mixed): mixed $ask
 */
function benchPlayer(Chrome $chrome, \Closure $ask, string $base): void
{
    $rect = static fn (int $x, int $y, int $width, int $height): array => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height];
    $media = static fn (string $id, ?int $ms = null): array => ['id' => $id, 'name' => $id, 'width' => 1920, 'height' => 1080] + ($ms === null ? [] : ['length_ms' => $ms]);
    $picture = ['id' => 'p', 'kind' => 'picture', 'rect' => $rect(0, 0, 1920, 1080), 'media' => $media('lights-of-tolm')];
    $style = ['family' => 'Inter', 'size_px' => 90, 'weight' => 600, 'color' => '#ffffff'];
    $designs = [
        'a picture and words' => [$picture, ['id' => 't', 'kind' => 'text', 'rect' => $rect(100, 800, 1700, 200), 'text' => 'Berth 2', 'style' => $style]],
        'a film, running text and a clock' => [
            ['id' => 'z', 'kind' => 'zone', 'rect' => $rect(0, 0, 1920, 900), 'playlist' => ['items' => [
                ['id' => 'f', 'media' => $media('crossing-at-dawn', 15_000), 'duration_ms' => 15_000],
            ]]],
            ['id' => 'n', 'kind' => 'ticker', 'rect' => $rect(0, 900, 1500, 180), 'text' => 'Sailings to Tolm leave from berth 4', 'speed_px_s' => 120, 'style' => $style],
            ['id' => 'c', 'kind' => 'clock', 'rect' => $rect(1500, 900, 420, 180), 'pattern' => 'HH:mm:ss', 'style' => $style],
        ],
    ];
    $chrome->go($base)->see('.passage');
    $address = $chrome->driver->executeAsyncScript(
        'const done = arguments[0]; fetch("/api/players").then((r) => r.json()).then((e) => done(e.players.find((p) => p.display === "check-in-3").address))',
    );
    assert(is_string($address));
    $page = Chrome::open(1920, 1080);
    $tools = new ChromeDevToolsDriver($page->driver);
    $figure = static function (string $name) use ($tools): float {
        $metrics = $tools->execute('Performance.getMetrics')['metrics'] ?? [];
        $value = array_column(is_array($metrics) ? $metrics : [], 'value', 'name')[$name] ?? 0;

        return is_numeric($value) ? (float) $value : 0.0;
    };
    $made = [];
    foreach ($designs as $what => $elements) {
        $id = $ask('POST', 'layouts', ['name' => "Bench: $what", 'document' => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => $elements]]);
        assert(is_string($id));
        $made[] = $id;
        $ask('POST', 'handover', ['source' => ['kind' => 'layout', 'id' => $id], 'displays' => ['check-in-3']]);
        $last = $elements[count($elements) - 1]['id'];
        $page->go($base . $address);
        $page->until(static fn (): bool => $page->find(".stage-canvas [data-element=$last]") !== null, "$what on the glass", 60);
        sleep(5);
        $tools->execute('Performance.enable');
        [$script, $task] = [$figure('ScriptDuration'), $figure('TaskDuration')];
        sleep(30);
        $share = static fn (float $before, string $name): float => 100 * ($figure($name) - $before) / 30;
        $wanted = str_contains($what, 'film') ? 'under 8 % of a core' : 'under 2 % of a core';
        $told = sprintf('%.2f %% of a core (%.1f %% with layout and painting of the page)', $share($script, 'ScriptDuration'), $share($task, 'TaskDuration'));
        say("a player with $what: its script, mean of 30 s", $told, $wanted);
    }
    $stood = [];
    for ($round = 0; $round < 5; $round++) {
        $page->go('about:blank')->go($base . $address)->see('.stage-canvas [data-element]');
        $stood[] = $page->driver->executeAsyncScript(
            'const done = arguments[0]; const look = () => { const p = performance.getEntriesByName("first-contentful-paint")[0]; p ? done(p.startTime) : setTimeout(look, 20) }; look()',
        );
    }
    sort($stood);
    $median = is_numeric($stood[2]) ? (float) $stood[2] : 0.0;
    say('a player from its own disk until its first picture is painted, median of 5', sprintf('%.0f ms', $median), 'under 1.5 s');

    // Two designs of one colour each by turns: a frame of another colour is dark.
    $corner = ['id' => 'p', 'kind' => 'picture', 'rect' => $rect(1500, 800, 400, 225), 'media' => $media('lights-of-tolm')];
    $plain = static fn (string $colour): array => [['id' => 's', 'kind' => 'shape', 'rect' => $rect(0, 0, 1920, 1080), 'fill' => $colour], $corner];
    $make = static fn (string $colour): array => ['name' => "Bench $colour", 'document' => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => $plain($colour)]];
    $both = array_map(static fn (string $colour): mixed => $ask('POST', 'layouts', $make($colour)), ['#ff0000', '#0000ff']);
    [$changes, $frames, $dark, $before] = [0, 0, 0, null];
    for ($n = 0; $n < 30; $n++) {
        $ask('POST', 'handover', ['source' => ['kind' => 'layout', 'id' => $both[$n % 2]], 'displays' => ['check-in-3']]);
        for ($until = microtime(true) + 20, $now = null; microtime(true) < $until;) {
            $shot = $tools->execute('Page.captureScreenshot', ['format' => 'jpeg', 'quality' => 60, 'clip' => $rect(0, 0, 64, 64) + ['scale' => 1]])['data'] ?? '';
            $image = imagecreatefromstring((string) base64_decode(is_string($shot) ? $shot : ''));
            assert($image !== false);
            $rgb = (int) imagecolorat($image, 32, 32);
            $now = match (true) {
                ($rgb >> 16) > 200 && ($rgb & 0xFF) < 60 => 0,
                ($rgb >> 16) < 60 && ($rgb & 0xFF) > 200 => 1,
                default => null,
            };
            $frames++;
            // Before the first change something else stands there.
            $dark += $now === null && $before !== null ? 1 : 0;
            if ($now === $n % 2) {
                break;
            }
        }
        $changes += $now === $n % 2 ? 1 : 0;
        $before = $now ?? $before;
    }
    say(sprintf('%d changes of what is handed over, %d pictures of the glass meanwhile', $changes, $frames), "$dark of them dark", 'none');
    $page->close();
    $ask('POST', 'handover', ['source' => ['kind' => 'layout', 'id' => 'check-in-day'], 'displays' => ['check-in-3']]);
    // What still plays is not deleted.
    sleep(5);
    foreach ([...$made, ...$both] as $id) {
        $ask('DELETE', 'layouts/' . (is_string($id) ? $id : ''), null);
    }
}
