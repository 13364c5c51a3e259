<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** Triggers, drawn, proven and tried before anybody stands before the display. */
final class TriggerTest extends TestCase
{
    private Chrome $chrome;

    protected function setUp(): void
    {
        $this->chrome = Chrome::open();
    }

    protected function tearDown(): void
    {
        $this->chrome->close();
    }

    /** A way taken out is found at once, told with its cure, and stops the handover until it is there again. */
    public function testAWayThatIsTakenOutIsFoundBeforeHandover(): void
    {
        $c = $this->chrome;
        Desk::signIn($c, '/triggers/info-post');
        $c->see('.shelf', 'Every state can be reached');
        $c->see('.graph .state', 'islands');
        // Nothing leads to the greeting any more.
        foreach (['rest', 'islands'] as $state) {
            $this->field($state, 'far')->click();
            $c->see(".chosen[aria-label='$state on far']");
            self::choose($c, '.chosen select', '');
            $c->until(fn (): bool => $this->field($state, 'far')->getText() === '·' || $this->field($state, 'far')->getText() === 'nothing?', "$state answers nothing");
        }
        $c->see('.shelf', 'No way leads from rest, "rest", to "greeting".');
        $c->until(static fn (): bool => preg_match('/saved .* revision [2-9]/', $c->see('.head .facts')->getText()) === 1, 'it is saved');
        $c->go(Desk::url('/handover?layout=info-post-day&display=info-post'));
        $c->see('main', 'No way leads from rest');
        $c->go(Desk::url('/triggers/info-post'));
        $this->field('rest', 'far')->click();
        self::choose($c, '.chosen select', 'greeting');
        $c->until(fn (): bool => $this->field('rest', 'far')->getText() === 'greeting', 'it leads there again');
        $c->until(static fn (): bool => !str_contains($c->see('.shelf')->getText(), 'No way leads'), 'nothing stops it');
    }

    public function testAMapIsMadeFromASentenceAndTriedByKeys(): void
    {
        $c = $this->chrome;
        Desk::signIn($c, '/triggers');
        $c->press('.actions button', 'New triggers…');
        self::choose($c, '.make select', 'info-post');
        $c->type('.make input', 'Offers at the post');
        $c->press('.make button', 'Make it');
        $c->see('.ways', 'from a sentence…');
        $c->press('.ways button', 'from a sentence…');
        self::choose($c, '.sentence label:nth-of-type(1) select', 'near 2');
        $c->until(static fn (): bool => self::choose($c, '.sentence label:nth-of-type(2) select', 'layout:post-greeting'), 'layouts are there');
        self::choose($c, '.sentence label:nth-of-type(3) select', 'main');
        $c->press('.sentence button', 'Make it');
        $c->see('.graph .state', 'info-post-greeting');
        $c->until(fn (): bool => $this->field('rest', 'near')->getText() === 'info-post-greeting', 'somebody near is answered');
        self::assertSame('again', $this->field('info-post-greeting', 'near')->getText());
        $c->press('.traces button', 'come near and stay');
        $c->until(static fn (): bool => str_contains($c->see('.try .told')->getText(), '2 answers'), 'it answers, and rests');
        // To the next change, twice: what is shown, and rest.
        $c->see('.bed')->click();
        $c->script("document.querySelector('.bed').focus()");
        $c->see('.bed')->sendKeys([\Facebook\WebDriver\WebDriverKeys::HOME]);
        $c->press(".steps button[title^='Previous change']");
        $c->press(".steps button[title^='Previous change']");
        $c->press(".steps button[title^='Previous change']");
        $c->press(".steps button[title^='Next change']");
        $c->see('.try .told', 'info-post-greeting, because of near');
        $c->see('.graph .state.now', 'info-post-greeting');
        // A state without a name that others know is put back.
        $c->press('.graph .state', 'info-post-greeting');
        $c->type(".chosen[aria-label^='State'] input", 'hello');
        $c->see('.graph .state', 'hello');
        self::assertSame('hello', $this->field('rest', 'near')->getText());
        $c->press('.actions button', 'Undo');
        $c->see('.graph .state', 'info-post-greeting');
        $c->press('.actions button', 'Let it run there');
        $c->see('.head', 'runs on Info post');
        $c->press('.actions button', 'Let it run there no more');
        $c->see('.head', 'runs nowhere yet');
    }

    private function field(string $state, string $signal): \Facebook\WebDriver\Remote\RemoteWebElement
    {
        return $this->chrome->see(".ways td button[aria-label^='$state, $signal:']");
    }

    private static function choose(Chrome $c, string $selector, string $value): bool
    {
        $c->see($selector);

        return (bool) $c->script(
            'const s = document.querySelector(arguments[0]); if (![...s.options].some((o) => o.value === arguments[1])) return false;'
            . ' s.value = arguments[1]; s.dispatchEvent(new Event("change", {bubbles: true})); return true',
            $selector,
            $value,
        );
    }
}
