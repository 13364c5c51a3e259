<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Agent;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** Somebody is walked to a display on the Bench, and the player of this machine answers. */
final class BenchTest extends TestCase
{
    private Agent $agent;
    private Chrome $desk;
    private Chrome $player;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk, '/bench/before?display=info-post');
        $this->player = Chrome::open(1080, 1920);
        $this->player->go(Desk::url(Desk::players($this->desk, 'info-post')[0]['address']));
        $this->player->see('.stage-canvas [data-element=main]');
    }

    protected function tearDown(): void
    {
        $this->desk->close();
        $this->player->close();
        if (isset($this->agent)) {
            $this->agent->stop();
        }
    }

    public function testSomebodyIsWalkedThereByKeysAndWhatThePlayerAnswersIsTold(): void
    {
        $c = $this->desk;
        $c->see('.head .said-error', 'No agent answers on this machine');
        $this->agent = Agent::started();
        $c->see('.head .facts', 'hands on what is said here to one page');
        $c->press('.words button', 'nobody');
        $this->rests();
        $c->press('.traces-part button', 'Record');
        $person = $c->see('[aria-label="Where somebody stands"]');
        // From beyond the last band: so far that it is greeted, then to the glass, then to and fro at the edge of a band.
        $this->walk($person, WebDriverKeys::ARROW_LEFT, fn (): bool => $this->stands() === 'greeting');
        $this->walk($person, WebDriverKeys::ARROW_LEFT, fn (): bool => $this->stands() === 'islands');
        self::assertSame(['islands'], $this->states());
        $c->press('.press', 'help');
        $c->see('.stands .state', 'help');
        self::assertMatchesRegularExpression('/because .*help.* \d+ ms/i', $c->see('.passed .entered')->getText());
        self::assertSame(['help'], $this->states());
        $person->sendKeys(WebDriverKeys::END);
        $this->rests();
        $c->see('.stands .state', 'rest');
        $c->press('.traces-part button', 'End it');
        $c->see('.traces tr', 'recorded ');
        // It is tried on the map, and comes to the same.
        $c->go(Desk::url('/triggers/info-post'));
        $c->press('.traces button', 'recorded ');
        $words = 'return [...document.querySelectorAll(".bed text.state, .bed text.why")].map((one) => one.textContent)';
        $c->until(static fn (): bool => array_intersect(['greeting', 'islands', 'help'], (array) $c->script($words)) !== [], 'it is tried');
    }

    public function testATraceIsPlayedAndASensorThatSendsNonsenseIsToldAndChangesNothing(): void
    {
        $c = $this->desk;
        $this->agent = Agent::started();
        $c->see('.head .facts', 'hands on what is said here to one page');
        $this->rests();
        $c->press('[aria-label="Play press and touch each"]');
        $c->see('.passed .entered', 'help');
        $c->press('.traces button', 'stop');
        $c->press('.words button', 'nobody');
        $this->rests();
        $c->script('const s = document.querySelector("[aria-label=\'What is wrong with it\']"); s.value = "text"; s.dispatchEvent(new Event("change"))');
        $c->see('.passed .left-out', 'is no distance');
        self::assertSame(['rest'], $this->states());
        self::assertSame('rest', $this->stands());
    }

    private function walk(\Facebook\WebDriver\WebDriverElement $person, string $key, \Closure $until): void
    {
        $this->desk->until(static function () use ($person, $key, $until): bool {
            if ($until()) {
                return true;
            }
            $person->sendKeys($key);

            return false;
        }, 'somebody to have come there');
    }

    private function rests(): void
    {
        $this->player->until(fn (): bool => $this->states() === ['rest'], 'it rests', 90);
    }

    private function stands(): string
    {
        return $this->desk->see('.stands .state')->getText();
    }

    /**
     * @phpstan-impure
     *
     * @return array<mixed> of each map
     */
    private function states(): array
    {
        return (array) $this->player->script('return upperPanePlayer.entered.map(([, one]) => one.state)');
    }
}
