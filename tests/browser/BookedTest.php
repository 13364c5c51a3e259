<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;
use UpperPane\Tests\Browser\Support\Hands;
use UpperPane\Tests\Browser\Support\Screen;
use UpperPane\Tests\Core\Make;

/** What is booked: on the players, in the month, and with two people at it. */
final class BookedTest extends TestCase
{
    private const RED = '#a3262a';
    private const BLUE = '#2f5d8a';

    /** @var list<Chrome> */
    private array $browsers = [];

    protected function tearDown(): void
    {
        array_map(static fn (Chrome $chrome) => $chrome->close(), $this->browsers);
        Desk::server('start', 'mariadb', 'fpm', 'nginx');
    }

    public function testABookingBeginsOnThePlayerToTheMillisecondAlsoWhenNothingAnswersAnyMore(): void
    {
        $desk = $this->browser();
        Desk::signIn($desk);
        $film = array_values(array_filter(Desk::api($desk, 'media')['media'], static fn (array $one): bool => $one['kind'] === 'film'))[0];
        $heard = ['id' => 'f', 'media' => ['id' => $film['id'], 'name' => $film['name'], 'width' => $film['width'], 'height' => $film['height'], 'length_ms' => $film['length_ms']], 'volume' => 40];
        $ground = static fn (string $fill): array => ['id' => 'all', 'kind' => 'shape', 'rect' => ['x' => 0, 'y' => 0, 'width' => 1080, 'height' => 1920], 'fill' => $fill];
        $made = [];
        foreach (['Red of mine' => [$ground(self::RED)], 'Blue of mine' => [$ground(self::BLUE), Make::zone('z', 0, 1600, 568, 320, [$heard])]] as $name => $elements) {
            $made[] = Desk::post($desk, 'layouts', ['name' => $name, 'document' => array_diff_key(Make::layout($elements, 1080, 1920), ['id' => 1, 'name' => 1])])['id'];
        }
        [$red, $blue] = $made;
        $code = (string) ($player = $this->browser(960, 540))->go(Desk::url('/player'))->see('[data-code]')->getAttribute('data-code');
        Desk::post($desk, 'players', ['code' => $code, 'display' => 'gate-totem-c']);

        // Booked for a minute from 50 s on, on the clock of Lisbon; handed over, taken by the player, and then nobody answers.
        $from = time() + 50;
        $local = static fn (int $utc): string => (new \DateTimeImmutable("@$utc"))->setTimezone(new \DateTimeZone('Europe/Lisbon'))->format('Y-m-d\TH:i:s');
        $schedule = Desk::post($desk, 'schedules', ['name' => 'Totem of mine', 'display' => 'gate-totem-c', 'document' => [
            'format' => 'upper-pane/schedule@1', 'timezone' => 'Europe/Lisbon', 'standby' => ['layout' => $red],
            'bookings' => [['id' => 'b', 'name' => 'Soon', 'plays' => ['layout' => $blue], 'rank' => 'dated', 'start' => $local($from), 'end' => $local($from + 60)]],
        ]])['id'];
        Desk::handOver($desk, ['source' => ['kind' => 'schedule', 'id' => $schedule], 'displays' => ['gate-totem-c']]);
        $player->see('.stage-canvas [data-element=all]', null, 30);
        $player->until(static fn (): bool => Screen::of($player)->is(600, 270, self::RED), 'the standby');
        Desk::server('stop', 'nginx', 'fpm', 'mariadb');
        $player->until(static fn (): bool => Screen::of($player)->is(600, 270, self::BLUE), 'the booking to begin without any server', 90);
        self::assertGreaterThanOrEqual($from, time());

        // The film in it is heard as loud as it is set, or the browser's holding it back is what the player reports.
        $isTold = 'const v = document.querySelector("video"); return v.volume === 0.4 && v.muted === (upperPanePlayer.told !== null)';
        $player->until(static fn (): bool => $player->script($isTold) === true, 'its sound, or why there is none');

        // The pictures on both sides of either change, of which the player needs no server.
        $address = (string) strtok((string) $player->driver->getCurrentURL(), '#');
        foreach (['.000Z' => [$from => self::BLUE, $from + 60 => self::RED], '.999Z' => [$from - 1 => self::RED, $from + 59 => self::BLUE]] as $ms => $instants) {
            foreach ($instants as $utc => $colour) {
                $player->go('about:blank')->go($address . '#at=' . gmdate('Y-m-d\TH:i:s', $utc) . $ms);
                $player->see('.stage-canvas [data-element=all]');
                $player->until(static fn (): bool => Screen::of($player)->is(600, 270, $colour), "$colour at " . gmdate('H:i:s', $utc) . $ms);
            }
        }
    }

    public function testTwoWhoMoveTheSameBookingBothKeepTheirs(): void
    {
        [$hers, $his] = [$this->browser(), $this->browser()];
        foreach ([$hers, $his] as $browser) {
            Desk::signIn($browser, '/schedules/piers?display=pier-vennick');
            $browser->press('.list button', 'Great Pellan market');
            $browser->holds('[aria-label="Name of the booking"]', 'Great Pellan market');
        }
        $market = static fn (Chrome $who): array => array_column(Desk::api($who, 'schedules/piers')['document']['bookings'], null, 'id')['market'];
        $move = static function (Chrome $who, string $key): void {
            $who->script('document.querySelector("[data-booking=market]").focus()');
            (new Hands($who))->press($key);
        };
        $move($hers, "\u{E009}\u{E008}\u{E014}");
        $hers->until(static fn (): bool => str_ends_with($market($hers)['start'], 'T10:00:00'), 'an hour later');
        // The hand stays on it: the next arrow moves it on.
        $hers->until(static fn (): bool => $hers->script('return document.activeElement.dataset.booking') === 'market', 'the focus to stay');
        (new Hands($hers))->press("\u{E009}\u{E014}");
        $hers->until(static fn (): bool => str_ends_with($market($hers)['start'], 'T10:05:00'), 'five minutes more');
        $move($his, "\u{E009}\u{E012}");
        $his->see('[role=alert]', 'was saved as revision');
        self::assertStringEndsWith('T10:05:00', $market($his)['start'], 'hers stands');
        $his->press('[role=alert] button', 'Put mine on top');
        $his->until(static fn (): bool => str_ends_with($market($his)['start'], 'T08:55:00'), 'his, five minutes earlier');
        $kept = array_column(Desk::api($his, 'schedules/piers/revisions')['revisions'], 'note');
        self::assertNotEmpty(array_filter($kept, static fn (?string $note): bool => str_contains((string) $note, 'kept aside')));
        // Undone it is hers again, and then as it was before both.
        foreach (['T10:05:00', 'T09:00:00'] as $start) {
            $his->press('.actions button', 'Undo');
            $his->until(static fn (): bool => str_ends_with($market($his)['start'], $start), $start);
        }
    }

    public function testAMonthIsSeenInWeeksAndWhatNeverComesIsMarkedThere(): void
    {
        $desk = $this->browser();
        Desk::signIn($desk);
        $booking = static fn (string $id, string $rank, string $end): array => [
            'id' => $id, 'name' => "Feast $id", 'plays' => ['layout' => 'pier-market'], 'rank' => $rank, 'start' => '2027-02-10T10:00:00', 'end' => $end,
        ];
        $own = Desk::post($desk, 'schedules', ['name' => 'Great Pellan alone', 'display' => 'pier-great-pellan', 'document' => [
            'format' => 'upper-pane/schedule@1', 'timezone' => 'Europe/Lisbon', 'bookings' => [$booking('one', 'dated', '2027-02-12T18:00:00'), $booking('two', 'weekly', '2027-02-10T12:00:00')],
        ]])['id'];
        $desk->go(Desk::url("/schedules/$own?span=month&from=2027-02-17"));
        $desk->see('.facts', 'February 2027');
        $desk->until(static fn (): bool => $desk->script('return document.querySelectorAll(".week section").length') === 4, 'four weeks: the first is a Monday');
        self::assertSame('1 to 7 Feb', str_replace("\n", ' ', $desk->see('.week .date')->findElement(WebDriverBy::cssSelector('b'))->getText()) . ' ' . $desk->see('.week .date .small')->getText());
        $desk->see('.week section:nth-of-type(2) .play.dated', 'Pier board, market day');
        $desk->see('.bar.wrong', 'Feast two, once');
        $desk->see('.bar.wrong em', 'no turn here');

        // Pressed and dragged over three days: one booking, from hour to hour.
        $bed = $desk->see('.week section:nth-of-type(3) .bed');
        $width = $bed->getSize()->getWidth();
        $x = static fn (float $days): int => (int) round(($days / 7 - 0.5) * $width);
        (new WebDriverActions($desk->driver))->moveToElement($bed, $x(1.5), 20)->clickAndHold()->moveToElement($bed, $x(3.0), 20)->moveToElement($bed, $x(4.25), 20)->release()->perform();
        $desk->holds('[aria-label="Name of the booking"]', 'Booking 3');
        $bookings = static fn (): array => Desk::api($desk, "schedules/$own")['document']['bookings'];
        $desk->until(static fn (): bool => count($bookings()) === 3, 'it to be saved');
        self::assertSame(['2027-02-16T12:00:00', '2027-02-19T06:00:00'], [$bookings()[2]['start'], $bookings()[2]['end']]);

        // The next month, and what is booked for the place, which is edited there.
        $desk->press('[aria-label="Later"]');
        $desk->see('.facts', 'March 2027');
        $desk->press('.out button', 'all bookings');
        $desk->press('a.of-place', 'Sailing day');
        $desk->holds('[aria-label="Name of the booking"]', 'Sailing day');
        self::assertStringContainsString('/schedules/piers', $desk->driver->getCurrentURL());
    }

    private function browser(int $width = 1280, int $height = 800): Chrome
    {
        return $this->browsers[] = Chrome::open($width, $height);
    }
}
