<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;

/** From a starting division to a handed-over layout with a portrait variant, without a pointer: every step by keys that somebody would press. */
final class KeyboardTest extends TestCase
{
    public function testALayoutIsMadeFilledMadeReadableSolvedForOtherRastersAndHandedOver(): void
    {
        $desk = Chrome::open();
        try {
            Desk::signIn($desk, '/layouts');
            $hands = new Hands($desk);
            $desk->see('.actions button', 'New layout');

            // A layout of main zone, side column and footer.
            $hands->tabTo('.actions button', 'New layout')->press(WebDriverKeys::ENTER);
            $desk->see('.tile');
            $hands->tabTo('#for-display')->press('Check-in 2', WebDriverKeys::TAB);
            $desk->holds('[aria-label="Width in px"]', '1920');
            $hands->tabTo('#layout-name')->press(WebDriverKeys::CONTROL . 'a', WebDriverKeys::NULL, 'By keys');
            $hands->tabTo('.tile', 'Main, side and footer')->press(WebDriverKeys::ENTER);
            $hands->tabTo('.make button[type=submit]')->press(WebDriverKeys::ENTER);
            $desk->holds('[aria-label="width of main"]', '1344');

            // Filled: a picture in each zone.
            foreach (['main' => 'hare-skerry-walks', 'side' => 'bicycles-go-free', 'foot' => 'notice-berth-2'] as $zone => $media) {
                $hands->tabTo(".ledger th button[title=$zone]")->press(WebDriverKeys::ENTER);
                $desk->see("[aria-label=\"Details of $zone\"]");
                $hands->tabTo('.details .add')->press(WebDriverKeys::ENTER);
                $desk->see('.modal .pick', $media);
                $hands->tabTo('.modal .pick', $media)->press(WebDriverKeys::ENTER);
                $hands->tabTo('.modal .bar button', 'Add')->press(WebDriverKeys::ENTER);
                $desk->see('.details .items li', $media);
                $desk->until(fn (): bool => $desk->find('.modal.show') === null, 'the picker to close');
            }

            // Text over the picture, readable with the help of the checks.
            $hands->tabTo('.room')->press('t', WebDriverKeys::ENTER);
            $desk->see('.details textarea');
            $hands->tabTo('textarea[aria-label=Text]')->press(WebDriverKeys::CONTROL . 'a', WebDriverKeys::NULL, 'Welcome aboard');
            $desk->see('.shelf .first', 'text1');
            for ($cures = 0; $cures < 5; $cures++) {
                // Cures are tried once the hand rests, and offered when that has been found out.
                $isAboutIt = fn (): bool => str_contains($desk->see('.shelf .first')->getText(), '"text1":');
                $desk->until(fn (): bool => !$isAboutIt() || $desk->find('.shelf .first .fix') !== null, 'a cure to be offered');
                if (!$isAboutIt()) {
                    break;
                }
                $before = $desk->see('.shelf .first')->getText();
                if (!$hands->tabsTo('.shelf .first .fix')) {
                    // It was offered for words that were still being typed: for those that stand there by now one is waited for anew.
                    continue;
                }
                $hands->press(WebDriverKeys::ENTER);
                $desk->until(fn (): bool => $desk->see('.shelf .first')->getText() !== $before, 'the checks to answer');
            }
            $desk->until(fn (): bool => !str_contains($desk->see('.shelf .first')->getText(), '"text1":'), 'the text to be readable');

            // Its portrait variant.
            $hands->tabTo('.bar button', 'Turned variant')->press(WebDriverKeys::ENTER);
            $desk->see('[aria-label=Variant]', 'portrait');
            $desk->holds('[aria-label="width of foot"]', '1080');
            $id = (string) $desk->script('return location.pathname.split("/").pop()');
            $desk->until(fn (): bool => isset(Desk::api($desk, "layouts/$id")['document']['variants']), 'the variant to be saved');
            $document = Desk::api($desk, "layouts/$id")['document'];
            self::assertEquals(['width' => 1080, 'height' => 1920], $document['variants'][0]['canvas']);

            // Solved for two other rasters on the command line: the zones tile them.
            $file = sys_get_temp_dir() . '/upper-pane-by-keys.json';
            file_put_contents($file, json_encode(array_diff_key($document, ['variants' => 1])));
            foreach (['3840x2160' => 3840 * 2160, '1366x768' => 1366 * 768] as $raster => $area) {
                $solved = json_decode((string) shell_exec(dirname(__DIR__, 2) . '/bin/upperpane solve ' . escapeshellarg($file) . " --raster $raster"), true);
                self::assertIsArray($solved);
                $zones = array_filter($solved['elements'], static fn (array $e): bool => $e['kind'] === 'zone');
                self::assertSame($area, array_sum(array_map(static fn (array $zone): int => $zone['rect']['width'] * $zone['rect']['height'], $zones)), $raster);
            }
            unlink($file);

            // Handed over.
            $hands->tabTo('.head .actions a', 'Hand over')->press(WebDriverKeys::ENTER);
            $desk->see('article', 'exact');
            $hands->tabTo('.head .actions button', 'Hand over')->press(WebDriverKeys::ENTER);
            $desk->see('.done', 'Ticket office');
        } finally {
            $desk->close();
        }
    }
}
