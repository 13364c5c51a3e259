<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** Each finds the desk as it is for her: what is not hers is not there. */
final class RolesTest extends TestCase
{
    private Chrome $desk;

    protected function tearDown(): void
    {
        $this->desk->driver->quit();
    }

    public function testAnEditorFindsHerPlacesAndWhatSheFillsIn(): void
    {
        $this->desk = Chrome::open(1280, 800);
        Desk::signIn($this->desk, '/', 'marta');
        $this->desk->see('.one', 'Pier Tolm');
        self::assertSame(['My places', 'Filled in'], $this->ways());
        self::assertStringNotContainsString('Check-in', (string) $this->desk->script('return document.querySelector(".wall").textContent'));
        $this->desk->press('.passage a', 'Filled in')->see('.design', 'Price of the day, Pier Tolm');
        self::assertStringNotContainsString('Lane 3', (string) $this->desk->script('return document.querySelector(".grid").textContent'));
        foreach (['/layouts', '/layouts/pier-market', '/schedules', '/displays/settings', '/bench', '/accounts'] as $path) {
            $this->desk->go(Desk::url($path))->see('.empty', 'There is nothing at this address');
        }
        $this->desk->go(Desk::url('/'))->see('.one .stage-canvas');
        self::assertStringContainsString('Pier Hare Skerry has no player', $this->desk->see('main')->getText());
        $ways = $this->desk->script('return [...document.querySelectorAll("main a, .shelf a")].map((a) => a.pathname).filter((to) => /^.(handover|playback|layouts)/.test(to))');
        self::assertSame([], $ways, 'she is told, and led nowhere');
        $this->desk->go(Desk::url('/filled'))->see('.design a.name');
        self::assertNull($this->desk->find('.design a', 'hand over'));
        $this->desk->press('.actions button', 'Fill in')->see('.templates', 'Price of the day');
    }

    /** On a telephone, from the sign-in to the screen; and off again. */
    public function testAnEditorChangesThePriceOfTheDayFromATelephone(): void
    {
        $this->desk = Chrome::open(390, 844);
        Desk::signIn($this->desk, '/', 'marta');
        $page = Chrome::open(1080, 1920);
        try {
            $admin = Chrome::open(1280, 800);
            Desk::signIn($admin, '/');
            $page->go(Desk::url(Desk::players($admin, 'pier-tolm')[0]['address']))->see('.stage-canvas');
            $admin->driver->quit();

            $this->desk->press('.passage a', 'Filled in')->press('.design a.name', 'Price of the day, Pier Tolm');
            $this->desk->type('[aria-label="Price"]', '6.9')->see('.show', 'It comes in turn with 2 others');
            $this->desk->press('.show .go')->see('.show .standing', 'Pier Tolm');
            $page->see('.stage-canvas', '6.90 €', 90);
            $this->desk->see('.show .standing', 'beside what plays');
            self::assertLessThanOrEqual(390, $this->desk->script('return document.documentElement.scrollWidth'), 'nothing is wider than the telephone');

            // In its place until midnight: what it pushes aside is said first.
            $this->desk->press('.show [role=radio]', 'in its place')->press('.show [role=radio]', 'until midnight')->see('.show .means', 'It takes the place of Pier round');
            $this->desk->script('document.querySelector(".off").scrollIntoView({block: "center"})');
            $this->desk->press('.off')->see('.show [role=status]', 'Being taken off');
            $this->desk->until(fn (): bool => $this->desk->find('.show .standing') === null, 'it to be taken off', 60);
        } finally {
            $page->driver->quit();
        }
        $this->desk->go(Desk::url('/filled/price-tolm'))->type('[aria-label="Price"]', '7.5');
        $this->desk->until(fn (): bool => (float) (Desk::api($this->desk, 'filled/price-tolm')['document']['values']['price'] ?? 0) === 7.5, 'it to be saved');
    }

    public function testOthersFindWhatIsTheirs(): void
    {
        $this->desk = Chrome::open(1280, 800);
        Desk::signIn($this->desk, '/displays', 'olav');
        self::assertSame(['Displays'], $this->ways());
        $this->desk->see('.actions button', 'New display');
        $this->desk->press('.passage .own summary')->press('.passage .own button', 'Sign out')->see('#login');
        Desk::signIn($this->desk, '/displays', 'rui');
        self::assertSame(['Displays', 'Media', 'Overlays', 'Handover', 'Playback'], $this->ways());
        self::assertNull($this->desk->find('.actions button', 'New display'));
        $this->desk->go(Desk::url('/displays/check-in-1'))->see('.leaf', 'Installers survey displays');
        self::assertTrue($this->desk->script('return document.querySelector(".leaf fieldset.contents").disabled'));
    }

    public function testAnAdministratorGivesRolesAndInvitesGuests(): void
    {
        $this->desk = Chrome::open(1280, 800);
        Desk::signIn($this->desk, '/accounts');
        $this->desk->press('.actions button', 'New account')->see('.modal.show');
        $fields = $this->desk->driver->findElements(\Facebook\WebDriver\WebDriverBy::cssSelector('.modal.show input'));
        $fields[0]->sendKeys('eva');
        $fields[1]->sendKeys('Eva');
        $fields[2]->sendKeys('lighthouse');
        $this->desk->press('[aria-label="Role 1"] option[value=operator]')->press('[aria-label="Place of role 1"] option[value=gates]');
        $this->desk->press('.modal.show button[type=submit]')->see('tbody', 'operator at Gates');

        $this->desk->press('.actions button', 'Invite a guest')->see('.modal.show');
        $this->desk->type('.modal.show input[type=text]', 'Market people')->press('[aria-label="Place of the guest"] option[value=piers]');
        $this->desk->press('.modal.show button[type=submit]');
        $link = (string) $this->desk->see('[aria-label="The link"]')->getAttribute('value');
        $guest = Chrome::open(390, 844);
        try {
            $guest->go($link)->see('.invitation', 'editor at Island piers');
            $guest->press('.invitation button', 'Come in')->see('.one', 'Pier Tolm');
            $guest->go(Desk::url('/account'))->see('.account', 'editor at Island piers');
        } finally {
            $guest->driver->quit();
        }
        $this->desk->driver->navigate()->refresh();
        $this->desk->see('tbody', 'Market people');
        foreach (['Eva', 'Market people'] as $name) {
            $this->desk->press("[aria-label=\"Take $name away\"]")->press('.modal.show .btn-primary, .modal.show .btn-danger', 'Take it away');
            $this->desk->until(fn (): bool => $this->desk->find('tbody tr', $name) === null, "$name to go");
        }
    }

    /** @return list<string> the stations of the passage */
    private function ways(): array
    {
        $this->desk->see('.passage li');

        return $this->desk->script('return [...document.querySelectorAll(".passage li a")].map((a) => a.firstChild.textContent.trim())');
    }
}
