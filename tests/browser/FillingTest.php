<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** Templates: what a designer leaves open is filled in beside the true picture, and nothing else can be. */
final class FillingTest extends TestCase
{
    private const SAYS = '[...document.querySelectorAll(".glass .stage-canvas *")].filter((one) => one.childElementCount === 0).map((one) => one.textContent).join("|")';

    private Chrome $desk;
    private string $layout;

    protected function setUp(): void
    {
        $this->desk = Chrome::open(1280, 800);
        Desk::signIn($this->desk, '/layouts');
        $style = ['family' => 'Inter', 'size_px' => 90, 'color' => '#ffffff'];
        $text = static fn (string $id, int $y, string $words): array => ['id' => $id, 'kind' => 'text', 'text' => $words, 'style' => $style]
            + ['rect' => ['x' => 0, 'y' => $y, 'width' => 900, 'height' => 260]];
        $this->layout = Desk::post($this->desk, 'layouts', ['name' => 'Soup', 'document' => [
            'canvas' => ['width' => 1920, 'height' => 1080],
            'elements' => [$text('dish', 0, 'Dish'), $text('fare', 400, 'for {price, number, 0.00}') + ['message' => true]],
        ]])['id'];
    }

    protected function tearDown(): void
    {
        foreach (array_filter(Desk::api($this->desk, 'filled')['filled'], fn (array $one): bool => ($one['template']['id'] ?? '') === $this->layout) as $one) {
            Desk::post($this->desk, "filled/{$one['id']}", [], 'DELETE');
        }
        Desk::post($this->desk, "layouts/$this->layout", [], 'DELETE');
        $this->desk->driver->quit();
    }

    public function testWhatIsOpenedInTheComposerIsFilledInBesideThePicture(): void
    {
        $this->desk->go(Desk::url("/layouts/$this->layout"))->press('.ledger button', 'dish')->press('.open-slots summary')->press('.open-slots button', 'its words');
        $this->desk->press('[aria-label="Dish has to be filled in"]')->type('[aria-label="Languages of Dish"]', "en, pt\n");
        $this->desk->type('[aria-label="Hint of Dish"]', "As one says it.\n");
        $this->desk->press('.ledger button', 'fare')->press('.open-slots summary')->press('.open-slots button', 'a number in it');
        $this->desk->type('[aria-label="To of Price"]', "20\n");
        $slots = $this->desk->until(function (): array {
            $slots = Desk::api($this->desk, "layouts/$this->layout")['document']['slots'] ?? [];

            return ($slots[1]['to'] ?? null) === 20 && ($slots[0]['languages'] ?? null) === ['en', 'pt'] && ($slots[0]['hint'] ?? null) === 'As one says it.' ? $slots : [];
        }, 'the slots to be saved');
        self::assertSame([['dish', 'text', true], ['price', 'number', false]], array_map(static fn (array $one): array => [$one['id'], $one['kind'], $one['required'] ?? false], $slots));

        $this->desk->go(Desk::url("/layouts/$this->layout/template"))->see('.looks', 'the most that fits');
        $this->desk->until(fn (): bool => str_contains((string) $this->desk->script('return document.querySelector(".looks").textContent'), 'Dish Dish Dish'), 'the longest words');
        $this->desk->press('.actions a', 'Fill it in')->see('.filling .facts', 'Dish to be filled in');
        $this->desk->see('.hint', 'As one says it.');
        $this->desk->see('.figures.left', 'room for');
        // In turn it would say the one or the other, as the clock has it.
        $this->desk->press('[aria-label="In which language"] option[value=en]')->type('[aria-label="Dish, English"]', 'Fish soup')->type('[aria-label="Price"]', '7.5');
        $this->says('Fish soup|for 7.50');
        $this->desk->see('.found', 'no text in pt');
        $this->desk->type('[aria-label="Dish, Portuguese"]', implode(' ', array_fill(0, 40, 'caldeirada')))->see('.over', 'words too many');
        $this->desk->type('[aria-label="Price"]', '70')->see('.found.stop', '70');
        $this->desk->type('[aria-label="Price"]', "\u{E003}")->type('[aria-label="Dish, Portuguese"]', 'Sopa de peixe');
        $this->says('Fish soup|for –');
        // Typed onto the picture, in the language that is looked at; Escape leaves it.
        $this->desk->press('[aria-label="In which language"] option[value=pt]');
        $this->says('Sopa de peixe|for –');
        $this->desk->press('[aria-label="Dish, on the picture"]')->type('[aria-label="Dish, typed on the picture"]', "Sopa da casa\u{E00C}");
        $this->says('Sopa da casa|for –');
        $this->desk->holds('[aria-label="Dish, Portuguese"]', 'Sopa da casa');
        $this->desk->press('.head button', 'Undo')->holds('[aria-label="Dish, Portuguese"]', 'Sopa de peixe')->press('.head button', 'Redo');
        $this->desk->until(fn (): bool => ($this->filled()['document']['values']['dish'] ?? null) === ['en' => 'Fish soup', 'pt' => 'Sopa da casa'], 'it to be saved');
    }

    public function testANewRevisionOfTheTemplateIsTakenOver(): void
    {
        $template = Desk::api($this->desk, "layouts/$this->layout")['document'];
        $slot = ['id' => 'dish', 'name' => 'Dish', 'kind' => 'text', 'element' => 'dish'];
        Desk::post($this->desk, "layouts/$this->layout", ['base' => 1, 'document' => ['slots' => [$slot]] + $template], 'PUT');
        $made = array_map(fn (string $name): string => Desk::post($this->desk, 'filled', [
            'name' => $name,
            'document' => ['template' => $this->layout, 'template_revision' => 2, 'values' => ['dish' => 'Soup of the day with bread']],
        ])['id'], ['Monday', 'Tuesday']);
        $template['elements'][0]['rect']['width'] = 300;
        Desk::post($this->desk, "layouts/$this->layout", ['base' => 2, 'document' => ['slots' => [$slot]] + $template], 'PUT');

        $this->desk->go(Desk::url("/filled/{$made[0]}"))->see('.older', 'goes by revision 2 of 3');
        $this->desk->press('.older button', 'see what would change')->see('.older', 'is too long');
        $this->desk->press('.older button', 'Take it over')->see('.over', 'words too many');
        $this->desk->go(Desk::url("/layouts/$this->layout/template"))->see('.filled', 'stays at revision 2');
        $this->desk->see('.filled .older', 'is too long');
        $this->desk->press('.between button', 'All 1 take over revision 3')->see('[role=status]', '1 filled layout took over revision 3');
        self::assertSame([3, 3], array_map(fn (string $id): int => Desk::api($this->desk, "filled/$id")['document']['template_revision'], $made));
    }

    public function testOneTemplateAndTheRowsOfASourceMakeMany(): void
    {
        $template = Desk::api($this->desk, "layouts/$this->layout")['document'];
        $slot = ['id' => 'dish', 'name' => 'Dish', 'kind' => 'text', 'element' => 'dish'];
        Desk::post($this->desk, "layouts/$this->layout", ['base' => 1, 'document' => ['slots' => [$slot]] + $template], 'PUT');
        $rows = [['dish' => 'Fish soup', 'fare' => 7.5], ['dish' => 'Lamb pie', 'fare' => 8.9]];
        $source = Desk::post($this->desk, 'sources', ['name' => 'Dishes of the week', 'document' => ['from' => ['table' => $rows]]]);
        $this->desk->go(Desk::url("/layouts/$this->layout/template"))->press('[aria-label="One for each row of"] option', 'Dishes of the week');
        $this->desk->press('[aria-label="What Dish says"] option', 'dish')->type('[aria-label="Each is called"]', 'Today {dish}');
        $this->desk->see('.told', 'Today Lamb pie');
        $this->desk->press('.choose button', 'Fill in 2 rows')->see('.filled', 'Today Fish soup');
        $this->desk->see('.fillings', 'the rows say the same');
        Desk::post($this->desk, "sources/{$source['id']}", ['base' => 1, 'document' => ['from' => ['table' => [...$rows, ['dish' => 'Tea', 'fare' => 2]]]] + $source['document']], 'PUT');
        $this->desk->driver->navigate()->refresh();
        $this->desk->see('.fillings', '1 new rows, 0 changed');
        $this->desk->press('.fillings button', 'Fill in again')->see('.filled', 'Today Tea');
        $this->desk->press('.fillings button', 'forget the rows');
        $this->desk->until(fn (): bool => $this->desk->find('.fillings') === null, 'the rows to be forgotten');
        Desk::post($this->desk, "sources/{$source['id']}", [], 'DELETE');
    }

    public function testAPictureIsCutToTheShapeOfItsPlace(): void
    {
        $this->desk->go(Desk::url('/filled/price-tolm'));
        $this->desk->press('[aria-label="Choose Photo"]')->press('.pick', 'lights-of-tolm.png')->see('.modal.show .board img');
        $this->desk->see('.modal.show', '900 × 900 of 1600 × 900 px, 44 % is left out');
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelector(".board img").naturalWidth') === 1600, 'the picture');
        $part = $this->desk->see('.board .part');
        $before = $this->desk->script('return document.querySelector(".part").style.left');
        $part->sendKeys("\u{E014}");
        $this->desk->until(fn (): bool => $this->desk->script('return document.querySelector(".part").style.left') !== $before, 'the part to move');
        $this->desk->press('.modal.show button', 'Take this part')->see('.picture', 'lights-of-tolm, part of 900 x 900.png');
        $photo = $this->desk->until(fn (): array => Desk::api($this->desk, 'filled/price-tolm')['document']['values']['photo'] ?? [], 'it to be saved');
        self::assertSame([900, 900], [$photo['width'], $photo['height']]);
        $this->desk->press('[aria-label="Take Photo out"]');
        $this->desk->until(fn (): bool => !isset(Desk::api($this->desk, 'filled/price-tolm')['document']['values']['photo']), 'it to go');
        Desk::post($this->desk, "media/{$photo['id']}", [], 'DELETE');
    }

    private function says(string $words): void
    {
        $this->desk->until(fn (): bool => $this->desk->script('return ' . self::SAYS) === $words, "the picture to say $words");
    }

    /** @return array<string, mixed> */
    private function filled(): array
    {
        foreach (Desk::api($this->desk, 'filled')['filled'] as $one) {
            if (($one['template']['id'] ?? '') === $this->layout) {
                return Desk::api($this->desk, "filled/{$one['id']}");
            }
        }

        return [];
    }
}
