<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** What happens to players and designers when servers go, sessions end and two people save at once. */
final class TroubleTest extends TestCase
{
    /** @var list<Chrome> */
    private array $browsers = [];

    protected function tearDown(): void
    {
        array_map(static fn (Chrome $chrome) => $chrome->close(), $this->browsers);
        Desk::server('start', 'mariadb', 'fpm', 'nginx');
    }

    public function testAPlayerGoesOnWithoutAnyServerAlsoAfterARestartOfItsBrowser(): void
    {
        $desk = $this->browser();
        Desk::signIn($desk);
        $bound = static fn (): array => Desk::players($desk, 'check-in-1')[0];
        $address = $bound()['address'];
        $player = $this->browser(1920, 1080);
        $player->go(Desk::url($address));
        $player->see('.stage-canvas [data-element=main]');
        $player->until(fn (): bool => $player->driver->executeAsyncScript(<<<'JS'
            const done = arguments[0]
            const name = (await caches.keys()).find((one) => one.includes('precache'))
            done(name !== undefined && (await (await caches.open(name)).keys()).length > 5 && navigator.serviceWorker.controller !== null)
            JS) === true, 'the page to be kept');

        Desk::server('stop', 'nginx', 'fpm', 'mariadb');
        $before = $this->shows($player);
        $player->until(fn (): bool => $this->shows($player) !== $before, 'the next item, without a server', 45);

        $profile = $player->profile;
        $player->close();
        $again = $this->browser(1920, 1080, $profile);
        $again->go(Desk::url($address));
        $again->see('.stage-canvas [data-element=main]');
        $again->until(fn (): bool => $again->script('const i = document.querySelector("[data-element=side] img"); return i && i.complete && i.naturalWidth') === 576, 'its pictures from the store');

        Desk::server('start', 'mariadb', 'fpm', 'nginx');
        $this->signInAgain($desk);
        $desk->until(static fn (): bool => $bound()['called_at'] > gmdate('Y-m-d\TH:i:s\Z', time() - 8), 'the player to call again by itself', 30);
    }

    public function testAChangeMadeWhileTheDatabaseIsAwayIsKeptAndSavedWhenItIsBack(): void
    {
        $desk = $this->browser();
        Desk::signIn($desk, '/layouts/deck-strip');
        $desk->see('.ledger');
        $desk->until(fn (): bool => str_contains($desk->see('.save-note')->getText(), 'saved'), 'the layout');
        Desk::server('stop', 'mariadb');
        $desk->type('[aria-label="x of deck"]', '1510');
        $desk->see('.save-note', 'not saved, kept in this browser');
        $desk->see('[role=alert]', 'The database does not answer. Your change is kept in this window');

        // What is not saved is not handed over: one stays with the reason.
        $asked = fn (): int => (int) $desk->script('return performance.getEntriesByType("resource").filter((e) => e.name.endsWith("/api/layouts/deck-strip")).length');
        $before = $asked();
        $desk->press('.head .actions a', 'Hand over');
        $desk->until(fn (): bool => $asked() > $before + 1, 'saving to be tried again');
        self::assertStringEndsWith('/layouts/deck-strip', $desk->driver->getCurrentURL());

        // Even a reload loses nothing.
        Desk::server('start', 'mariadb');
        $desk->go(Desk::url('/layouts/deck-strip'));
        $desk->see('.ledger');
        $desk->until(fn (): bool => str_contains($desk->see('.save-note')->getText(), ', revision '), 'saving when it is back', 30);
        $desk->holds('[aria-label="x of deck"]', '1510');
        self::assertSame(1510, self::rect(Desk::api($desk, 'layouts/deck-strip'), 'deck')['x']);
    }

    public function testEachTabKeepsItsOwnAndWhatAClosedOneLeftIsFound(): void
    {
        $desk = $this->browser();
        Desk::signIn($desk, '/layouts/pier-market');
        $element = Desk::api($desk, 'layouts/pier-market')['document']['elements'][0]['id'];
        $field = "[aria-label=\"x of $element\"]";
        $away = 'window.fetch = ((real) => (url, how) => how?.method === "PUT" ? Promise.reject(new TypeError("away")) : real(url, how))(window.fetch)';
        $first = $desk->driver->getWindowHandle();
        $was = $desk->value($field);
        $desk->script($away);
        $desk->type($field, '7');
        $desk->see('.save-note', 'not saved, kept in this browser');

        $desk->driver->switchTo()->newWindow('tab');
        $second = $desk->driver->getWindowHandle();
        $desk->go(Desk::url('/layouts/pier-market'))->holds($field, $was);
        self::assertNull($desk->find('.note', 'was found in this browser'), 'the other tab is there, and has it still');

        $desk->driver->switchTo()->window($first);
        $desk->driver->navigate()->refresh();
        $desk->see('.note', 'was found in this browser');
        $desk->holds($field, '7');
        $desk->until(static fn (): bool => self::rect(Desk::api($desk, 'layouts/pier-market'), $element)['x'] === 7, 'it to be saved');
        // The way back is there after a reload, and after a rehearsal.
        $desk->press('.head .actions a', 'Rehearse');
        $desk->see('.strip');
        $desk->driver->navigate()->back();
        $desk->holds($field, '7');
        $desk->press('.head .actions button', 'Undo')->holds($field, (string) $was);
        $desk->until(static fn (): bool => self::rect(Desk::api($desk, 'layouts/pier-market'), $element)['x'] === (int) $was, 'undo to be saved');
        $desk->driver->navigate()->refresh();
        $desk->press('.head .actions button', 'Redo')->holds($field, '7');

        // A tab that is closed leaves what it had.
        $desk->until(static fn (): bool => self::rect(Desk::api($desk, 'layouts/pier-market'), $element)['x'] === 7, 'redo to be saved');
        $desk->script($away);
        $desk->type($field, '9');
        $desk->see('.save-note', 'not saved, kept in this browser');
        $desk->driver->close();
        $desk->driver->switchTo()->window($second);
        $desk->driver->navigate()->refresh();
        $desk->see('.note', 'was found in this browser');
        $desk->holds($field, '9');
        $desk->until(static fn (): bool => self::rect(Desk::api($desk, 'layouts/pier-market'), $element)['x'] === 9, 'it to be saved from there');
    }

    public function testALostSessionAsksToSignInAgainAndSavesWhatWasTyped(): void
    {
        $desk = $this->browser();
        Desk::signIn($desk, '/layouts/deck-strip');
        $desk->see('.ledger');
        // Typed before the session is lost, and left after: what the page asks for by itself may find out first, and puts the gate above all.
        $desk->enter('[aria-label="y of next"]')->sendKeys(WebDriverKeys::CONTROL . 'a' . WebDriverKeys::NULL . '61');
        $desk->driver->manage()->deleteAllCookies();
        $desk->script('document.querySelector(\'[aria-label="y of next"]\')?.blur()');
        $desk->see('#sign-in-title', 'Sign in again');
        $desk->see('.gate.above #password')->sendKeys("harbour\n");
        $desk->until(fn (): bool => $desk->find('.gate.above') === null && self::rect(Desk::api($desk, 'layouts/deck-strip'), 'next')['y'] === 61, 'what was typed to be saved');
    }

    public function testTwoWhoSaveAtOnceBothKeepTheirVersions(): void
    {
        $hers = $this->browser();
        $his = $this->browser();
        foreach ([$hers, $his] as $browser) {
            Desk::signIn($browser, '/layouts/gate-totem-day');
            $browser->see('.ledger');
        }
        $hers->type('[aria-label="x of gate"]', '70');
        $hers->until(fn (): bool => self::rect(Desk::api($hers, 'layouts/gate-totem-day'), 'gate')['x'] === 70, 'her version');
        $his->type('[aria-label="x of gate"]', '80');
        $his->see('[role=alert]', 'was saved as revision');
        $his->press('[role=alert] button', 'Put mine on top');
        $his->until(fn (): bool => self::rect(Desk::api($his, 'layouts/gate-totem-day'), 'gate')['x'] === 80, 'his version on top');
        $notes = array_column(Desk::api($his, 'layouts/gate-totem-day/revisions')['revisions'], 'note');
        self::assertNotEmpty(array_filter($notes, static fn (?string $note): bool => str_contains((string) $note, 'kept aside')));
    }

    public function testWhatTwoChangedAtOnceIsTakenPartByPart(): void
    {
        $hers = $this->browser();
        $his = $this->browser();
        foreach ([$hers, $his] as $browser) {
            Desk::signIn($browser, '/layouts/lane-open');
            $browser->see('.ledger');
        }
        [$first, $second] = array_column(Desk::api($hers, 'layouts/lane-open')['document']['elements'], 'id');
        $hers->type("[aria-label=\"x of $first\"]", '3');
        $hers->until(fn (): bool => self::rect(Desk::api($hers, 'layouts/lane-open'), $first)['x'] === 3, 'her version');
        $his->type("[aria-label=\"y of $second\"]", '5');
        $his->press('[role=alert] button', 'Compare');
        $his->see('.versions tr', $first);
        $his->see('.versions tr', 'place and size');
        $his->press('.modal button', 'Go on with these');
        $his->until(fn (): bool => self::rect(Desk::api($his, 'layouts/lane-open'), $second)['y'] === 5, 'both to be saved');
        self::assertSame(3, self::rect(Desk::api($his, 'layouts/lane-open'), $first)['x'], 'hers is in it');
        $his->holds("[aria-label=\"x of $first\"]", '3');
    }

    /** A page that stays open while the desk is built anew finds its files gone: it asks the server for the station, once. */
    public function testAPageFromBeforeAnUpdateGoesOn(): void
    {
        $desk = $this->browser();
        $this->signInAgain($desk);
        $tools = new ChromeDevToolsDriver($desk->driver);
        $tools->execute('Network.enable');
        $tools->execute('Network.setBlockedURLs', ['urls' => ['*HandoverView*']]);
        $desk->press('nav a', 'Handover');
        $asked = fn (): bool => $desk->script('return document.readyState === "complete" && sessionStorage.getItem("upper-pane:stale")') === '/handover';
        $desk->until($asked, 'the server to be asked');
        $tools->execute('Network.setBlockedURLs', ['urls' => []]);
        $desk->go(Desk::url('/handover'));
        $desk->see('h1', 'Handover');
        self::assertNull($desk->script('return sessionStorage.getItem("upper-pane:stale")'));
    }

    private function browser(int $width = 1280, int $height = 800, ?string $profile = null): Chrome
    {
        return $this->browsers[] = Chrome::open($width, $height, $profile);
    }

    private function signInAgain(Chrome $desk): void
    {
        $desk->go(Desk::url('/'));
        $desk->see('.passage, #login');
        if ($desk->find('#login') !== null) {
            Desk::signIn($desk);
        }
    }

    private function shows(Chrome $player): string
    {
        return (string) $player->script('return [...document.querySelectorAll("[data-element=side]")].filter((e) => e.style.visibility !== "hidden").map((e) => e.dataset.item).join()');
    }

    /**
     * @param array<string, mixed> $layout
     * @return array{x: int, y: int}
     */
    private static function rect(array $layout, string $element): array
    {
        return array_column($layout['document']['elements'], 'rect', 'id')[$element];
    }
}
