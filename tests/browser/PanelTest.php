<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverDimension;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Agent;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\StandIns;

/** An operator's panel on a telephone, and what is learnt at a sensor. */
final class PanelTest extends TestCase
{
    private Chrome $chrome;
    private ?Chrome $player = null;
    private ?StandIns $standIns = null;
    private ?Agent $agent = null;

    protected function setUp(): void
    {
        $this->chrome = Chrome::open();
    }

    protected function tearDown(): void
    {
        $this->chrome->close();
        $this->player?->close();
        $this->standIns?->stop();
        $this->agent?->stop();
    }

    /** A composition stands on one zone of the wall, the rest of it goes on; the programme is back by one press; and a row that is pressed is carried there. */
    public function testAKeyPutsACompositionOnOneZoneOfTheHallWallAndBack(): void
    {
        $c = $this->chrome;
        $this->standIns = StandIns::of('hall', 'info-post');
        Desk::signIn($c, '/account', 'rui');
        $c->driver->manage()->window()->setSize(new WebDriverDimension(390, 844));
        $c->go(Desk::url('/panel/departure-hall'));
        $c->see('.display .status', 'the player says so', 60);
        $c->see('.display .stage-canvas', 'Welcome aboard');
        self::assertNull($c->find('.key.on'));
        self::assertLessThanOrEqual($c->script('return innerWidth'), $c->script('return document.documentElement.scrollWidth'), 'nothing lies beyond the telephone');

        $c->press('.keys .key', 'Fares');
        $c->see('.key.on', 'Fares', 60);
        $c->see('.display .stands', 'Fares on board since');
        $c->see('.display .stage-canvas', 'Fares, one way');
        $c->see('.display .stage-canvas', 'Welcome aboard');
        // Another key takes its place, by the keyboard.
        $c->driver->getKeyboard()->sendKeys('2');
        $c->see('.key.on', 'Opening hours', 60);
        $c->press('.stands button', 'Back to the programme');
        $c->until(static fn (): bool => $c->script('return document.querySelector(".stands, .key.on, .key.asked")') === null, 'it is over', 60);

        $c->press('.keys .key', 'Storm warning');
        $c->see('.rows button', 'Vennick');
        $c->press('.rows button', 'Vennick');
        $c->see('.key.on', 'Storm warning', 60);
        $c->see('.display .said', 'Hall wall: storm since');
        $c->press('.keys .key', 'Back from that');
        $c->until(static fn (): bool => $c->find('.key.on', 'Storm warning') === null, 'it is over', 60);
    }

    /** Whoever may not hand over is told so; and whoever is signed out meanwhile signs in again, and goes on. */
    public function testWhoMayNotPressItIsToldSo(): void
    {
        $c = $this->chrome;
        $enter = static fn (string $login): Chrome => $c->type('input[autocomplete=username]', $login)->type('input[type=password]', 'harbour')->press('.go', 'Sign in');
        $c->go(Desk::url('/panel/departure-hall'));
        $enter('marta');
        $c->see('.trouble', 'its keys are for whoever may hand over');
        $c->driver->manage()->deleteAllCookies();
        $c->go(Desk::url('/panel/departure-hall'));
        $enter('rui');
        $c->see('.keys .key', 'Fares');
        $c->driver->manage()->deleteAllCookies();
        $c->see('.in');
        self::assertNull($c->find('.keys .key'));
        $enter('rui');
        $c->see('.keys .key', 'Fares');
    }

    public function testAPanelIsArrangedAndAKeyThatCanDoNothingSaysWhy(): void
    {
        $c = $this->chrome;
        Desk::signIn($c, '/triggers/panels');
        $c->type('[aria-label="Name of a new panel"]', 'Café');
        $c->press('.new button', 'Make it');
        $c->press('.group-head button', 'add a key');
        $c->see('.group tbody tr');
        $c->type('.group tbody .typed-line', 'Menu');
        $c->see('[aria-label="Display of Menu"]');
        $c->script('const s = document.querySelector(\'[aria-label="Display of Menu"]\'); s.value = "info-post"; s.dispatchEvent(new Event("change"))');
        $c->enter('[aria-label="Keyboard key of Menu"]')->sendKeys("m\n");
        $c->script('const s = document.querySelector(\'[aria-label="Zone of Menu"]\'); s.value = "nowhere"; s.dispatchEvent(new Event("change"))');
        $c->until(static fn (): bool => preg_match('/saved .* revision [2-9]/', $c->see('.head .facts')->getText()) === 1, 'it is saved');
        $c->go((string) $c->see('.head a.btn')->getDomProperty('href'));
        $c->see('.keys .key', 'Menu');
        $c->driver->getKeyboard()->sendKeys('m');
        $c->see('.trouble', 'has no zone "nowhere"');
        self::assertNull($c->find('.stands'), 'nothing of it is done');
    }

    /** Who installs a sensor presses a button before it, and chooses what it is. */
    public function testWhatASensorIsCalledIsLearntByActingBeforeIt(): void
    {
        $c = $this->chrome;
        $this->agent = Agent::started();
        Desk::signIn($c, '/displays/info-post', 'olav');
        $this->player = Chrome::open(540, 960);
        $this->player->go(Desk::url(Desk::players($c, 'info-post')[0]['address']));
        $this->player->see('.stage-canvas [data-element=main]');
        $c->press('.heard button', 'Learn');
        $c->see('.heard .learning', 'Act before it');
        $c->until(function () use ($c): bool {
            $this->agent?->say(['sensor' => 'box', 'button' => '7']);

            return $c->find('.heard li', 'box: button 7') !== null;
        }, 'it to be heard', 60);
        $c->see('.heard li.unknown', 'no sensor “box”');
        $c->script('const s = document.querySelector(\'[aria-label="What box: button 7 is"]\'); s.value = "0"; s.dispatchEvent(new Event("change"))');
        $c->see('.survey', 'box');
        $c->see('.heard li', 'no signal hears it');
        $box = ['id' => 'box', 'kind' => 'buttons', 'buttons' => ['7']];
        $c->until(static fn (): bool => in_array($box, Desk::api($c, 'displays/info-post')['document']['sensors'], false), 'it is saved');
        $c->press('.heard button', 'End learning');
        $c->see('.heard button', 'Learn');
    }
}
