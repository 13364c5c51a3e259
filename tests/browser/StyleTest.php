<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** House styles and settings of places: what a change reaches is seen before it happens. */
final class StyleTest extends TestCase
{
    /** The words themselves, as they are drawn. */
    private const WORDS = '[...document.querySelectorAll(".stage-canvas *")].find((one) => one.childElementCount === 0 && one.textContent === "Pier")';

    private Chrome $desk;

    /** @var list<string> what is taken away afterwards */
    private array $made = [];

    protected function setUp(): void
    {
        $this->desk = Chrome::open(1280, 800);
        Desk::signIn($this->desk, '/layouts/styles');
    }

    protected function tearDown(): void
    {
        foreach ($this->made as $path) {
            Desk::post($this->desk, $path, [], 'DELETE');
        }
        $this->desk->driver->quit();
    }

    /** A designer changes the house colour: she sees where, hands it over, and takes it back. */
    public function testAHouseColourIsChangedEverywhere(): void
    {
        $text = ['id' => 't', 'kind' => 'text', 'text' => 'Pier', 'rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 200], 'style' => ['size_px' => 150, 'color' => '@sea']];
        $layout = Desk::post($this->desk, 'layouts', ['name' => 'In sea', 'document' => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => [$text]]])['id'];
        $before = Desk::api($this->desk, 'displays/check-in-2/releases')['releases'][0]['source'];
        Desk::handOver($this->desk, ['source' => ['kind' => 'layout', 'id' => $layout], 'displays' => ['check-in-2']]);

        $this->desk->press('.styles a', 'Pellan Islands')->see('[aria-label="Contrasts"]', '✓');
        $this->desk->type('[aria-label="Hex of sea"]', '#7a1f26');
        $this->desk->see('aside', 'In sea');
        $this->desk->see('aside', 'Check-in 2');
        $this->desk->until(fn (): bool => count($this->desk->script('return [...document.querySelectorAll(".pair")[0]?.querySelectorAll(".stage-canvas") ?? []]')) === 2, 'it before and after');
        self::assertSame('#14665b', Desk::api($this->desk, 'styles/pellan')['document']['colours']['sea'], 'nothing is changed yet');
        // What is typed is there after a reload; and what goes wrong is told.
        $this->desk->driver->navigate()->refresh();
        $this->desk->holds('[aria-label="Hex of sea"]', '#7a1f26');
        $this->desk->type('[aria-label="Hex of ink"]', 'black')->see('.said-error', 'is "black"; a colour is #rrggbb');
        $this->desk->type('[aria-label="Hex of ink"]', '#17272e')->see('aside', 'In sea');

        $this->desk->press('.actions button', 'Change it everywhere')->see('[role=status]', 'from now on');
        self::assertSame('#7a1f26', Desk::api($this->desk, 'styles/pellan')['document']['colours']['sea']);
        $this->desk->press('aside button', 'Hand over to')->see('[role=status]', 'Being handed over');
        $shown = static fn (Chrome $page): string => (string) $page->script('return getComputedStyle(' . self::WORDS . ').color');
        $page = Chrome::open(1920, 1080);
        try {
            $page->go(Desk::url(Desk::players($this->desk, 'check-in-2')[0]['address']))->see('.stage-canvas', 'Pier');
            $page->until(static fn (): bool => $shown($page) === 'rgb(122, 31, 38)', 'the player to show it', 90);
        } finally {
            $page->driver->quit();
        }
        $this->desk->press('aside button', 'Take it back');
        $this->desk->until(fn (): bool => Desk::api($this->desk, 'styles/pellan')['document']['colours']['sea'] === '#14665b', 'it to be taken back');
        $this->desk->holds('[aria-label="Hex of sea"]', '#14665b');
        $this->desk->type('[aria-label="Hex of sea"]', '#000000');
        $this->desk->press('.actions button', 'Discard')->holds('[aria-label="Hex of sea"]', '#14665b');
        Desk::handOver($this->desk, ['source' => ['kind' => $before['kind'], 'id' => $before['id']], 'displays' => ['check-in-2']]);
        $this->made = ["layouts/$layout"];
    }

    /** In the fields of the composer the names stand first; a face, a size and a colour by name, and back to ones of its own. */
    public function testNamesStandFirstInTheFields(): void
    {
        $text = ['id' => 't', 'kind' => 'text', 'text' => 'Pier', 'rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 200], 'style' => ['size_px' => 150]];
        $layout = Desk::post($this->desk, 'layouts', ['name' => 'In names', 'document' => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => [$text]]])['id'];
        $this->made = ["layouts/$layout"];
        $this->desk->go(Desk::url("/layouts/$layout"))->press('.ledger th button', 't')->see('[aria-label="Colour of the house"]');
        $style = fn (): array => Desk::api($this->desk, "layouts/$layout")['document']['elements'][0]['style'];
        $this->desk->press('[aria-label="Colour: sea"]');
        $this->choose('Size', '@title');
        $this->choose('Face', '@head');
        $this->desk->until(static fn (): bool => [$style()['color'] ?? '', $style()['size_px'], $style()['family'] ?? ''] === ['@sea', '@title', '@head'], 'the names to be saved');
        $drawn = 'const s = getComputedStyle(' . self::WORDS . '); return [s.color, s.fontFamily]';
        $this->desk->until(fn (): bool => $this->desk->script($drawn)[0] === 'rgb(20, 102, 91)' && str_contains($this->desk->script($drawn)[1], 'Barlow'), 'it to be drawn so');
        $this->choose('Size', '');
        $this->desk->until(static fn (): bool => $style()['size_px'] === 108, 'its own size, as large as the named one');
        $this->desk->press('[aria-label="Colour: sand"]')->press('.head .actions button', 'Undo');
        $this->desk->until(static fn (): bool => $style()['color'] === '@sea', 'undo');
    }

    /** Two languages on one sign take turns; what has no room in one of them is found; a place that has chosen shows its own. */
    public function testATextStandsInTwoLanguages(): void
    {
        $text = ['id' => 't', 'kind' => 'text', 'text' => 'Late boats', 'rect' => ['x' => 0, 'y' => 0, 'width' => 700, 'height' => 130], 'style' => ['size_px' => 100]];
        $layout = Desk::post($this->desk, 'layouts', ['name' => 'In two', 'document' => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => [$text]]])['id'];
        $this->made = ["layouts/$layout"];
        $this->desk->go(Desk::url("/layouts/$layout"))->press('.ledger th button', 't')->press('.languages summary');
        $this->desk->type('[aria-label="Another language"]', 'pt')->press('.languages button', 'Add');
        $this->desk->type('[aria-label="Text in pt"]', 'Barcos tardios de hoje');
        $saved = fn (): array => Desk::api($this->desk, "layouts/$layout")['document']['elements'][0];
        $this->desk->until(static fn (): bool => ($saved()['texts'] ?? []) === ['en' => 'Late boats', 'pt' => 'Barcos tardios de hoje'], 'both to be saved');
        $this->desk->press('.shelf .all', 'all findings')->see('.shelf', 'In pt: "t" needs');
        $this->desk->press('.shelf .all', 'close')->type('[aria-label="Text in pt"]', 'Barcos');
        $this->desk->type('[aria-label="how long each language stands, in s"]', '1');
        foreach (['Barcos', 'Late boats', 'Barcos'] as $words) {
            $this->desk->see('.stage-canvas', $words);
        }
        $this->desk->type('[aria-label="Text"]', 'Late');
        $this->desk->until(static fn (): bool => [$saved()['text'], $saved()['texts']['en'], $saved()['turn_ms'] ?? null] === ['Late', 'Late', 1000], 'the first to follow the text');
        $this->desk->press('[aria-label="Take pt out"]');
        $this->desk->until(static fn (): bool => !isset($saved()['texts']), 'it to be one text again');
    }

    /** A style out of a layout, at one press; then a place takes it, and only what hangs there is another. */
    public function testAStyleIsMadeOfALayoutAndHoldsAtAPlace(): void
    {
        $this->desk->press('.head button', 'New style')->see('.modal');
        $this->desk->type('.modal input', 'Lane style');
        $this->desk->script('const f = document.querySelector(".modal select"); f.value = "layout:lane-open"; f.dispatchEvent(new Event("change", { bubbles: true }))');
        $this->desk->press('.modal button', 'Make it')->see('[role=status]', 'colours');
        $style = basename((string) parse_url($this->desk->driver->getCurrentURL(), PHP_URL_PATH));
        $this->made = ["styles/$style"];
        $this->desk->type('[aria-label="Name of a new colour"]', 'Sea Green')->see('.said-error', 'small letters');

        $this->desk->go(Desk::url('/displays/settings?setting=style'))->press('tbody button', 'Vehicle lanes');
        $this->desk->script("const f = document.querySelector('aside select'); f.value = '$style'; f.dispatchEvent(new Event('change', { bubbles: true }))");
        $this->desk->see('aside', 'Would hold on 6 displays');
        $this->desk->see('aside', 'Lane sign 1');
        self::assertArrayNotHasKey('style', (array) Desk::api($this->desk, 'places/lanes/settings')['settings'], 'nothing is stated yet');
        $this->desk->press('aside button', 'State it')->see('[role=status]', 'Stated.');
        $this->desk->see('tr.chosen', 'stated here');
        $this->desk->press('aside button', 'back to what comes from above')->see('aside', 'Would hold on');
        $this->desk->press('aside button', 'Leave it to')->see('[role=status]', 'Stated.');
        $this->desk->see('tr.chosen', 'Pellan Islands Ferries');
    }

    /** One pier has another number, and nothing else is another. */
    public function testAPlaceTellsItsOwnNumber(): void
    {
        $this->desk->go(Desk::url('/displays/settings?setting=vars.phone'))->press('tbody button', 'Vennick pier');
        $this->desk->type('aside input', '555 0177')->press('aside button', 'See what it reaches')->see('aside', 'Would hold on 1 display');
        $this->desk->press('aside button', 'State it')->see('tr.chosen', '555 0177');
        self::assertSame('555 0100', Desk::api($this->desk, 'places/piers/settings')['resolved']['vars.phone']['value']);
        $compare = 'const f = document.querySelector(".compared select"); f.value = arguments[0]; f.dispatchEvent(new Event("change", { bubbles: true }))';
        $this->desk->script($compare, 'piers');
        $told = static fn (RemoteWebElement $cell): string => (string) preg_replace('/\s+/', ' ', $cell->getText());
        $this->desk->see('.compared tbody tr', 'phone');
        $cells = $this->desk->driver->findElements(WebDriverBy::cssSelector('.compared tbody tr > *'));
        self::assertSame(['phone', '555 0177 from Vennick pier', '555 0100 from Pellan Islands Ferries'], array_slice(array_map($told, $cells), -3));
        $this->desk->script($compare, 'tolm-maid');
        $this->desk->press('.compared button', 'House style')->see('tr.chosen', 'Pellan Islands');
        $this->desk->see('.compared', 'Pellan night boats');
        $this->desk->press('.compared button', 'phone');
        $this->desk->type('aside input', '555 0144')->press('aside button', 'See what it reaches')->press('aside button', 'State it');
        $this->desk->see('tr.chosen', '555 0144');
    }

    /** When a place is open: each day is pressed on or off, and what that reaches is seen first. */
    public function testAPlaceSaysWhenItIsOpen(): void
    {
        $this->desk->go(Desk::url('/displays/settings?setting=hours'))->press('tbody button', 'Vehicle lanes');
        $this->desk->see('aside [aria-pressed=true]', 'Sun');
        $this->desk->press('aside .days button', 'Sun')->see('aside', 'Would hold on 6 displays; nothing that stands on them depends on it');
        $this->desk->press('aside button', 'Other hours on other days')->press('aside button', 'State it');
        $this->desk->see('tr.chosen', 'Mo–Sa 05:00–23:30; Sa, Su 09:00–17:00');
        self::assertSame([['days' => ['MO', 'TU', 'WE', 'TH', 'FR', 'SA'], 'hours' => ['05:00', '23:30']], ['days' => ['SA', 'SU'], 'hours' => ['09:00', '17:00']]], Desk::api(
            $this->desk,
            'places/lanes/settings',
        )['settings']['hours']);
        $this->desk->press('aside button', 'back to what comes from above')->press('aside button', 'Leave it to')->see('tr.chosen', 'Pellan Islands Ferries');
    }

    private function choose(string $label, string $value): void
    {
        $this->desk->script(
            'const [label, value] = arguments; const f = [...document.querySelectorAll(".form label")].find((one) => one.firstChild.textContent.trim() === label).querySelector("select");'
                . 'f.value = value; f.dispatchEvent(new Event("change", { bubbles: true }))',
            $label,
            $value,
        );
    }
}
