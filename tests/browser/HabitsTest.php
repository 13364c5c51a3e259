<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** What the hand expects at every station: finding, searching, sorting, and addresses that can be sent to somebody. */
final class HabitsTest extends TestCase
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

    public function testEverythingIsFoundWithTheKeyboard(): void
    {
        Desk::signIn($this->desk, '/');
        $this->find('totem boarding');
        $this->desk->see('.finder [aria-selected=true]', 'Gate totem, boarding');
        $this->keys(WebDriverKeys::ENTER);
        $this->desk->see('.ledger');
        self::assertMatchesRegularExpression('#/layouts/[a-z0-9-]+$#', $this->desk->driver->getCurrentURL());
        $this->desk->holds('[aria-label="Name of the layout"]', 'Gate totem, boarding');
        $this->find('strip tolm maid');
        $this->desk->see('.finder [aria-selected=true]', 'Deck strip, Tolm Maid');
        $this->keys(WebDriverKeys::ENTER);
        $this->desk->holds('[aria-label="Name of the layout"]', 'Deck strip, Tolm Maid'); // from one layout to another
        $this->find('draw zone');
        $this->desk->see('.finder [aria-selected=true]', 'Draw a zone');
        $this->keys(WebDriverKeys::ENTER);
        $this->desk->see('.bar [aria-checked=true]', 'zone');
        $this->find('nothing of this name');
        $this->desk->see('.finder', 'no screen says them');
        $this->keys(WebDriverKeys::ESCAPE);
        $this->find('deck leave');
        $this->desk->see('.finder [aria-selected=true]', '“Leave by deck 2”');
        $this->desk->see('.finder [aria-selected=true]', 'Deck strip, Tolm Maid, on Deck strip');
        $this->keys(WebDriverKeys::ESCAPE);
        $this->desk->until(fn (): bool => $this->desk->find('.finder') === null, 'the finder to close');
        $this->desk->see('.bar [aria-checked=true]', 'zone');
        $this->find('check-in');
        $this->desk->see('.finder [aria-selected=true]', 'Check-in');
        $before = $this->desk->see('.finder [aria-selected=true]')->getText();
        $this->keys(WebDriverKeys::ARROW_DOWN);
        $this->desk->until(fn (): bool => $this->desk->see('.finder [aria-selected=true]')->getText() !== $before, 'the next one to be chosen');
        $this->find('new layout', pressed: false);
        $this->keys(WebDriverKeys::ENTER);
        $this->desk->see('.modal', 'For which display');
    }

    public function testListsAreSearchedAndSortedAndRememberItInTheAddress(): void
    {
        Desk::signIn($this->desk, '/playback');
        $rows = fn (): int => count($this->desk->driver->findElements(WebDriverBy::cssSelector('main tbody tr')));
        $this->desk->until(fn (): bool => $rows() > 8, 'all players');
        $this->desk->press('.choice button', 'without player');
        $states = fn (): array => array_unique(array_map(static fn ($cell): string => trim($cell->getText()), $this->desk->driver->findElements(WebDriverBy::cssSelector('td .state'))));
        $this->desk->until(fn (): bool => $states() === ['no player is bound'], 'the displays without a player alone');
        $this->desk->type('[aria-label="Search players"]', 'nowhere');
        $this->desk->see('.empty', 'Nothing fits this search.');
        $this->desk->go(Desk::url('/playback?search=totem%20a'));
        $this->desk->until(fn (): bool => $rows() === 1, 'the one that the address asks for');

        $this->desk->go(Desk::url('/media?order=size&kind=picture'));
        $areas = fn (): array => array_map(
            static fn ($facts): int => (int) array_product(array_map(intval(...), preg_match('/(\d+) × (\d+)/', $facts->getText(), $m) === 1 ? [$m[1], $m[2]] : [0])),
            $this->desk->driver->findElements(WebDriverBy::cssSelector('.grid li > .figures:not(.foot)')),
        );
        $this->desk->until(fn (): bool => count($areas()) > 5, 'the pictures');
        $sorted = $areas();
        rsort($sorted);
        self::assertSame($sorted, $areas());

        $this->desk->go(Desk::url('/layouts?only=open'));
        $this->desk->see('.choice [aria-checked=true]', 'to hand over');
        $this->desk->see('main', 'Layouts');
        $this->desk->go(Desk::url('/layouts?search=leave%20by'));
        $this->desk->see('.design', 'says “Leave by deck 2”');
        self::assertCount(1, $this->desk->driver->findElements(WebDriverBy::cssSelector('.design')));
        $this->desk->go(Desk::url('/displays?orientation=portrait'));
        $this->desk->see('tbody', 'Gate totem A');
        self::assertNull($this->desk->find('tbody', 'Check-in 1'));
    }

    /** Once, and not display by display. */
    public function testWhatChangedSinceItWasHandedOverLeadsToAllDisplaysOnWhichItHangs(): void
    {
        Desk::signIn($this->desk, '/layouts');
        $layout = Desk::api($this->desk, 'layouts/lane-open');
        $save = fn (array $document, int $base): int => Desk::post($this->desk, 'layouts/lane-open', ['base' => $base, 'document' => $document], 'PUT')['revision'];
        $changed = $save(['background' => ['color' => '#123456']] + $layout['document'], $layout['revision']);
        $this->desk->go(Desk::url('/layouts?search=Lane%20sign,%20open'));
        $this->desk->press('.design a', 'changed since handover');
        $this->desk->see('.head .actions button', 'Hand over to 6 displays');
        self::assertSame(6, substr_count($this->desk->driver->getCurrentURL(), 'display=lane-'));
        $save($layout['document'], $changed);
        $this->desk->go(Desk::url('/layouts?search=Lane%20sign,%20open'));
        $this->desk->see('.design', 'on 6 displays');
        self::assertNull($this->desk->find('.design a', 'changed since handover'), 'it is as it was');
    }

    public function testAnAddressThatIsNoneSaysSo(): void
    {
        Desk::signIn($this->desk, '/layouts/nowhere');
        $this->desk->see('.empty', 'This layout cannot be opened.');
        $this->desk->go(Desk::url('/nowhere'));
        $this->desk->see('main', 'There is nothing at this address');
        $this->desk->press('nav a', 'Displays')->see('tbody', 'Check-in 1');
    }

    private function find(string $words, bool $pressed = true): void
    {
        if ($pressed) {
            $this->keys(WebDriverKeys::CONTROL . 'k' . WebDriverKeys::NULL);
        }
        $this->desk->type('.finder input', $words);
    }

    private function keys(string $keys): void
    {
        $this->desk->driver->getKeyboard()->sendKeys($keys);
    }

    /** A dialogue begins where something is typed, and a press beside it throws nothing away. */
    public function testADialogueKeepsWhatIsTyped(): void
    {
        Desk::signIn($this->desk, '/displays');
        // One in which nothing is typed goes.
        $this->desk->see('button', 'New display…');
        $this->keys('?');
        $this->desk->see('.modal.show');
        $this->pressBeside();
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'the list of keys to go');
        $this->desk->press('button', 'New display…');
        $this->desk->until(fn (): bool => $this->desk->script('return document.activeElement.placeholder') === 'Check-in 5', 'the name to have the focus');
        $this->desk->driver->getKeyboard()->sendKeys('Berth 9');
        $this->pressBeside();
        $this->desk->see('.modal.show');
        $this->desk->holds('.modal input[placeholder="Check-in 5"]', 'Berth 9');
        $this->desk->driver->getKeyboard()->sendKeys("\u{E00C}");
        $this->desk->until(fn (): bool => $this->desk->find('.modal.show') === null, 'Escape to leave it');
        $this->desk->until(fn (): bool => str_contains((string) $this->desk->script('return document.activeElement.textContent'), 'New display'), 'the focus to come back');
    }

    /** What closes does so at the next tick: two frames later it is on its way. */
    private function pressBeside(): void
    {
        $this->desk->driver->executeAsyncScript(<<<'JS'
            const [done] = arguments
            const modal = document.querySelector('.modal.show')
            for (const type of ['mousedown', 'mouseup', 'click']) modal.dispatchEvent(new MouseEvent(type, { bubbles: true }))
            requestAnimationFrame(() => requestAnimationFrame(done))
            JS);
    }
}
