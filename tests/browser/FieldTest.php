<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Process;

/** Players in the field: their page was built before releases were manifests, and is still open when the desk is built anew. */
final class FieldTest extends TestCase
{
    private ?Chrome $desk = null;
    private ?Chrome $player = null;
    private ?Process $field = null;

    protected function tearDown(): void
    {
        $this->player?->close();
        $this->desk?->close();
        $this->field?->stop();
    }

    public function testAPageFromBeforeGoesOnPlayingAndIsLoadedAnewByItself(): void
    {
        $port = Process::freePort();
        $new = sys_get_temp_dir() . "/upper-pane-field-$port";
        $this->field = Process::start(
            ['env', 'PHP_CLI_SERVER_WORKERS=4', "FIELD_NEW=$new", 'FIELD_DESK=' . Desk::url(''), 'php', '-d', 'variables_order=EGPCS', '-S', "127.0.0.1:$port", __DIR__ . '/Support/field.php'],
            "http://127.0.0.1:$port/player.html",
        );
        $desk = $this->desk = Chrome::open();
        Desk::signIn($desk, '/playback');
        $player = Desk::post($desk, 'pairing', []);
        $bound = Desk::post($desk, 'players', ['code' => $player['code'], 'display' => 'shop-window']);
        $play = $this->player = Chrome::open();
        $play->go("http://127.0.0.1:$port{$bound['address']}");
        $play->until(fn (): bool => (bool) $play->script('return window.upperPanePlayer?.playsSha256'), 'the old page to play');

        // What is handed over reaches it as ever, and the desk knows that it does.
        Desk::post($desk, 'handover', ['source' => ['kind' => 'media', 'id' => 'shop-charts'], 'displays' => ['shop-window']]);
        $play->until(fn (): bool => (bool) $play->script('return [...document.querySelectorAll("img")].some((e) => e.closest("[data-element]"))'), 'the picture on the old page');
        $state = fn (): array => array_values(array_filter(
            array_merge(...array_column(Desk::displays($desk), 'players')),
            static fn (array $one): bool => $one['id'] === $bound['id'],
        ))[0];
        $desk->until(fn (): bool => $state()['standing']['state'] === 'plays' && $state()['build'] === null, 'the old page to be known to play it');
        $whole = (string) $play->script('return window.upperPanePlayer.playsSha256');

        // The desk is built anew: the new worker takes over as soon as the browser looks for one, and the page is another.
        $play->driver->executeAsyncScript('const done = arguments[0]; navigator.serviceWorker.ready.then(() => done())');
        touch($new);
        $play->script('window.isOld = true; navigator.serviceWorker.getRegistration().then((r) => r.update())');
        $play->until(fn (): bool => $play->script('return window.isOld ?? null') === null, 'the old page to be loaded anew', 60);
        $play->until(fn (): bool => !in_array($play->script('return window.upperPanePlayer?.playsSha256 ?? null'), [null, $whole], true), 'the new page to play the manifest');
        $desk->until(fn (): bool => $state()['standing']['state'] === 'plays' && $state()['build'] !== null, 'the new page to be known to play it');

        // A later build: the page goes at the next change, once all of the new one is kept, and what it plays it plays again.
        $play->driver->executeAsyncScript('const done = arguments[0]; navigator.serviceWorker.ready.then(() => done())');
        file_put_contents($new, 'later');
        $play->script('window.isOld = true; navigator.serviceWorker.getRegistration().then((r) => r.update())');
        $play->until(fn (): bool => $play->script('return window.isOld ?? null') === null, 'the page to be loaded anew by itself', 90);
        $play->until(fn (): bool => $play->script('return window.upperPanePlayer?.playsSha256 ?? null') !== null, 'it to play again');
        unlink($new);
    }
}
