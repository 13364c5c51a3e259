<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Chrome;
use UpperPane\Tests\Browser\Support\Desk;

/** Sources of data as a designer meets them: what the Bench's feeds tell, what breaks, and what is typed. */
final class DataTest extends TestCase
{
    private const ROWS = '.found-rows table tbody tr';

    private Chrome $desk;

    /** @var list<string> ids of what is made */
    private array $made = [];

    protected function setUp(): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk);
    }

    protected function tearDown(): void
    {
        self::told('well');
        foreach ($this->made as $id) {
            Desk::post($this->desk, "sources/$id", [], 'DELETE');
        }
        $this->desk->close();
    }

    public function testRowsAreChosenByPressingAndShownAtAnyInstant(): void
    {
        $this->desk->go(Desk::url('/data'))->press('tbody a', 'Sailings');
        $this->desk->see(self::ROWS, 'Great Pellan');
        // It begins with the level that tells most; a level within it is another one.
        self::assertSame('$.routes[*].sailings[*]', $this->desk->value('.way input'));
        $this->desk->press('.outline button.level', 'stops')->see('.found-rows thead', 'arrives');
        self::assertSame('$.routes[*].sailings[*].stops[*]', $this->desk->value('.way input'));
        $this->desk->press('.outline button.level', 'sailings')->see('.found-rows thead', 'berth');
        $this->desk->press('.outline button.level', 'late_min')->until(fn (): bool => $this->desk->find('.found-rows thead', 'late_min') === null, 'the field to go');

        $tomorrow = (new \DateTimeImmutable('tomorrow', new \DateTimeZone('Europe/Lisbon')))->format('Y-m-d');
        $this->desk->press('.conditions .foot button', 'add a condition');
        $this->choose('[aria-label="Condition 1"] [aria-label=Field]', 'departs');
        $this->choose('[aria-label="Condition 1"] [aria-label="What holds"]', 'upcoming');
        $this->desk->type('[aria-label="As of"]', "$tomorrow 23:50")->see('.box', 'None of the');
        $this->desk->type('[aria-label="As of"]', "$tomorrow 10:43")->see('.next', 'other rows from');
        $this->desk->press('.found-rows thead .name', 'departs');
        $rows = $this->desk->until(fn (): ?int => count($this->texts(self::ROWS)) ?: null, 'rows');
        self::assertSame(sprintf('%d rows', $rows), $this->desk->see('.found-rows h2')->getText());
        self::assertStringContainsString('10:50', $this->texts(self::ROWS)[0]);
        $this->desk->see('.spans svg');
        $this->desk->type('[aria-label="At most so many rows"]', '2')->count(self::ROWS, 2);
        self::assertSame(sprintf('%d rows', $rows), $this->desk->see('.found-rows h2')->getText(), 'all that there are, before the limit');

        $this->desk->type('.way input', '$.routes[')->see('.asked [role=alert]', 'after 9 characters');
        $this->desk->type('.way input', '$.routes[*]')->see('.found-rows thead', 'fare');
    }

    public function testAFeedThatBreaksKeepsWhatItSaid(): void
    {
        $this->desk->go(Desk::url('/data/notices'))->see(self::ROWS, 'Berth 3 closed on Thursday');
        $breaks = ['broken' => 'no XML that can be read', 'empty' => 'Nothing is in what came', 'failing' => 'The server answers 503', 'other-type' => 'a web page'];
        foreach ($breaks + ['huge' => 'More than 20,000,000 bytes'] as $how => $why) {
            self::told($how);
            $this->desk->press('.head .actions button', 'Fetch now');
            $this->desk->see('.shelf', $why, 60);
            $this->desk->see(self::ROWS, 'Berth 3 closed on Thursday');
        }
        $this->desk->press('.head .actions button', 'Kept fetches')->see('.modal td', 'nothing came: The server answers 503');
        $this->desk->press('.modal .btn-close');
        // On the page of the Bench it is made well again.
        $this->desk->press('.passage a', 'Bench')->press('[aria-label="What notices.xml does"] [role=radio]', 'well');
        $this->desk->see('[aria-label="What notices.xml does"] [aria-checked=true]', 'well');
        $this->desk->press('tbody tr:nth-child(4) button', 'fetch now')->see('tbody tr:nth-child(4) .status.well', 'fresh', 60);
        $this->desk->press('tbody a', 'Service notices')->see('.head .facts', 'fresh', 60);
        $this->desk->see(self::ROWS, 'Berth 3 closed on Thursday');
    }

    public function testATableIsTypedAndPasted(): void
    {
        $this->desk->go(Desk::url('/data'))->press('.head .actions button', 'New source');
        $this->desk->press('.modal [role=radio]', 'in a table typed here')->type('.modal input[maxlength="200"]', 'Prices of the kiosk');
        $this->desk->press('.modal button', 'Make it')->see('.typed tbody input');
        $this->made[] = basename($this->desk->driver->getCurrentURL());
        $this->desk->script(<<<'JS'
            const data = new DataTransfer()
            data.setData('text/plain', 'Newspaper\t2.5\nIce cream\t3\nPostcard\t')
            document.querySelector('.typed tbody input').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
            JS);
        $this->desk->count(self::ROWS, 3)->see(self::ROWS, 'Ice cream');
        $this->desk->type('[aria-label="price, row 3"]', '0.8');
        $this->desk->until(fn (): bool => str_contains($this->texts(self::ROWS)[2], '0.8'), 'the figure');
        $this->desk->press('.head .actions button', 'Undo')->until(fn (): bool => str_contains($this->texts(self::ROWS)[2], '–'), 'the figure to be gone');
        $this->desk->type('[aria-label="Name of the column price"]', 'euros')->see('.found-rows thead', 'euros');
        $this->desk->press('.found-rows thead .kind', 'number')->type('.modal [inputmode=numeric]', '0')->press('.modal button', 'Take it so');
        // Half away from zero.
        $this->desk->until(fn (): bool => preg_match('/Newspaper\s+3$/', $this->texts(self::ROWS)[0]) === 1, 'the rounded figure');
    }

    public function testAFileThatCannotBeReadIsNoSource(): void
    {
        $file = sys_get_temp_dir() . '/tides.csv';
        file_put_contents($file, "place,high water\nTolm,\"07:10\n");
        $this->desk->go(Desk::url('/data'))->press('.head .actions button', 'New source');
        $this->desk->press('.modal [role=radio]', 'in a file')->give('.modal input[type=file]', $file);
        $this->desk->press('.modal button', 'Make it')->see('.modal [role=alert]', 'Line 2, column 6: a quoted field begins here and is never closed');
        // More than any other request may have.
        file_put_contents($file, "place,high water\nTolm,07:10\n" . str_repeat('Vennick,' . str_repeat('later ', 40) . "\n", 30_000));
        $this->desk->give('.modal input[type=file]', $file)->press('.modal button', 'Make it')->see(self::ROWS, '07:10');
        $this->made[] = basename($this->desk->driver->getCurrentURL());
        self::assertSame('tides', $this->desk->value('.typed-line.title'));
        self::assertCount(1, array_filter(Desk::api($this->desk, 'data')['sources'], static fn (array $one): bool => $one['name'] === 'tides'));
    }

    private function choose(string $select, string $value): void
    {
        $this->desk->until(fn (): bool => $this->desk->script(
            'const field = document.querySelector(arguments[0]); if (!field || ![...field.options].some((o) => o.value === arguments[1])) return false;
             field.value = arguments[1]; field.dispatchEvent(new Event("change", { bubbles: true })); return true',
            $select,
            $value,
        ) === true, "choosing $value in $select");
    }

    /** @return list<string> */
    private function texts(string $selector): array
    {
        /** @var list<string> $texts */
        $texts = $this->desk->script('return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText)', $selector);

        return $texts;
    }

    /** Tells the feed of notices what to do. */
    private static function told(string $how): void
    {
        $answer = file_get_contents(getenv('UPPER_PANE_FEEDS') . '/switches', false, stream_context_create([
            'http' => ['method' => 'PUT', 'header' => 'Content-Type: application/json', 'content' => json_encode(['notices.xml' => $how])],
        ]));
        self::assertIsString($answer);
    }
}
