<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** What was handed over is put back, wherever one sees that it was wrong. */
final class BackTest extends TestCase
{
    private Chrome $desk;

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk);
    }

    protected function tearDown(): void
    {
        $this->desk->close();
    }

    public function testAnEarlierReleaseIsPutBackFromTheDisplayPlaybackAndHandover(): void
    {
        $desk = $this->desk;
        $stands = fn (): string => Desk::displays($desk)['pier-great-pellan']['release']['name'] ?? '';
        $pictures = ['shop-charts', 'shop-woollens'];
        Desk::handOver($desk, ['source' => ['kind' => 'media', 'id' => $pictures[0]], 'displays' => ['pier-great-pellan']]);
        Desk::handOver($desk, ['source' => ['kind' => 'media', 'id' => $pictures[1]], 'displays' => ['pier-great-pellan']]);

        // From the display: any of those that were handed over to it.
        $desk->go(Desk::url('/displays?display=pier-great-pellan'));
        $first = (int) array_column(Desk::api($desk, 'displays/pier-great-pellan/releases')['releases'], 'number', 'name')['great-pellan-market.png'];
        $desk->press("[aria-label=\"Put release $first back\"]");
        $desk->see('.modal', '"great-pellan-market.png" takes the place of "shop-woollens.png".');
        $desk->press('.modal button', 'Put back on 1 display');
        $desk->see('.modal [role=status]', 'Back.');
        self::assertSame('great-pellan-market.png', $stands());

        // The record of the display says who did it.
        $desk->go(Desk::url('/displays?display=pier-great-pellan'));
        $desk->press('[aria-label="Record of Pier Great Pellan"]');
        $desk->see('.modal li', "ines put \"great-pellan-market.png\" back, release $first as release ");

        // From Playback: what was there before.
        $desk->go(Desk::url('/playback'));
        $desk->press('[aria-label="Put back what was on Pier Great Pellan before"]');
        $desk->see('.modal', '"shop-woollens.png" takes the place of "great-pellan-market.png".');
        $desk->press('.modal button', 'Put back on 1 display');
        $desk->see('.modal [role=status]', 'Back.');

        // From Handover: a handover is undone as a whole.
        $desk->go(Desk::url('/handover?media=shop-charts&display=pier-great-pellan&display=pier-tolm'));
        $desk->see('article', 'exact');
        $desk->press('.head .actions button', 'Hand over to 2 displays');
        $desk->see('li.done', 'handed over to');
        $desk->press('[aria-label="Undo: shop-charts.png"]');
        $desk->see('.modal', 'takes the place of "shop-charts.png".');
        $desk->press('.modal button', 'Put back on 2 displays');
        $desk->see('.modal [role=status]', 'Back.');
        self::assertSame('shop-woollens.png', $stands());

        // The work behind it is seen, and goes on whoever looks.
        $desk->go(Desk::url('/work'));
        $desk->see('tr', 'handed over to Pier Great Pellan, Pier Tolm');
        $desk->see('tr', 'makes releases and hands them over');
    }

    public function testWhatWasDeletedComesBackAndItsRecordSaysWhoDidWhat(): void
    {
        $desk = $this->desk;
        $desk->go(Desk::url('/layouts'))->see('.design');
        $document = ['canvas' => ['width' => 800, 'height' => 600], 'background' => ['color' => '#1b3a4b'], 'elements' => []];
        $layout = Desk::post($desk, 'layouts', ['name' => 'Tide over', 'document' => $document])['id'];
        $desk->go(Desk::url("/layouts/$layout"));
        $desk->type('[aria-label="Name of the layout"]', 'Tide under');
        $desk->see('.head', 'revision 2');
        $desk->press('[aria-label="Record of Tide under"]');
        $desk->see('.modal li', 'ines saved revision 2');
        Desk::post($desk, "layouts/$layout", [], 'DELETE');

        $desk->go(Desk::url('/bin'));
        $desk->press('[aria-label="Record of Tide under"]');
        $desk->see('.modal li', 'ines deleted it');
        $desk->press('.modal .btn-close');
        $desk->press('[aria-label="Put Tide under back"]');
        $desk->see('[role=status]', '"Tide under" is back.')->findElement(WebDriverBy::tagName('a'))->click();
        $desk->see('.head', 'revision 2');
    }
}
