<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use UpperPane\Core\Layout\Kind\Board\ReadyBoards;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Boards in the desk: how they begin, what is told of them as they stand, and what becomes of them with other rows. */
final class BoardsTest extends ApiTestCase
{
    private string $source;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $table = array_map(static fn (int $n): array => [
            'to' => "Pier $n", 'departs' => sprintf('2026-06-01T%02d:30:00Z', $n), 'day' => '2026-06-01', 'fare' => 1.5 * $n, 'note' => str_repeat('long ', $n), 'berth' => $n === 3 ? null : $n,
        ], range(1, 15));
        $this->source = $this->ask('POST', '/api/sources', ['name' => 'Boats', 'document' => ['from' => ['table' => $table]]])[1]['id'];
    }

    public function testWhatABoardMakesOfItsRowsIsToldBesideTheChecks(): void
    {
        $told = $this->analysed();
        self::assertSame(
            [15, 5, 3, 15_000, 15],
            [$told['boards']['board']['rows'], $told['boards']['board']['at_once'], count($told['boards']['board']['pages']), $told['boards']['board']['total_ms'], $told['boards']['board']['values']],
        );
        self::assertSame('(500 + 0) / (100 + 0) = 5: 5 at once; 15 rows, 3 pages of 5 s: 15 s; 15 values of a design of 1', $told['says']['board']);
        self::assertCount(3, array_values(array_filter($told['run_sheet']['layers'], static fn (array $layer): bool => ($layer['zone'] ?? '') === 'board'))[0]['scenes']);
    }

    /** @return iterable<string, array{string, int, int, list<string>}> stress, rows, pages, and what is found of data and boards */
    public static function stresses(): iterable
    {
        yield 'none' => ['none', 0, 1, ['board.empty']];
        yield 'one' => ['one', 1, 1, []];
        yield 'ten thousand' => ['many', 10_000, 2000, ['board.brisk', 'board.overflow']];
        yield 'the longest' => ['longest', 15, 3, ['board.brisk', 'board.overflow']];
        yield 'nothing in them' => ['missing', 15, 3, ['data.missing']];
    }

    /** @param list<string> $found */
    #[DataProvider('stresses')]
    public function testItIsLookedAtWithRowsAsTheyMayComeSomeDay(string $stress, int $rows, int $pages, array $found): void
    {
        $told = $this->analysed(['stress' => $stress], '{note}');
        self::assertSame([$rows, $pages], [$told['boards']['board']['rows'], count($told['boards']['board']['pages'])]);
        $codes = array_unique(array_column($told['findings'], 'code'));
        self::assertEqualsCanonicalizing($found, array_filter($codes, static fn (string $code): bool => preg_match('/^(data|board)/', $code) === 1));
    }

    public function testASourceThatIsNotThereIsAFinding(): void
    {
        $this->source = 'nowhere';
        self::assertContains('data.unknown', array_column($this->analysed()['findings'], 'code'));
    }

    public function testEveryReadyBoardSuitsEveryShapeAndTellsFieldsThatThereAre(): void
    {
        self::assertSame(ReadyBoards::NAMES, $this->ask('GET', '/api/boards/ready')[1]['ready']);
        foreach (array_keys(ReadyBoards::NAMES) as $ready) {
            foreach ([[1920, 1080], [1080, 1920], [1920, 300], [192, 96]] as [$width, $height]) {
                $rect = ['x' => 0, 'y' => 0, 'width' => $width, 'height' => $height];
                [$status, $answer] = $this->ask('POST', '/api/boards/ready', ['ready' => $ready, 'rows' => ['source' => $this->source], 'rect' => $rect, 'ground' => '#f7f5ee']);
                self::assertSame(200, $status, (string) json_encode($answer));
                $board = ['id' => 'board', 'kind' => 'board', 'rect' => $rect] + $answer['fields'];
                $told = $this->ask('POST', '/api/analysis', ['document' => ['background' => ['color' => '#f7f5ee']] + Make::layout([$board], $width, $height)])[1];
                self::assertGreaterThan(0, $told['boards']['board']['at_once'], "$ready on $width x $height");
                // The one berth that is not known is told of, where berths are: results are the only ones with two figures.
                self::assertSame(
                    $ready === 'results' ? ['data.missing'] : [],
                    array_values(array_intersect(['data.missing', 'data.unknown', 'board.room', 'text.contrast'], array_column($told['findings'], 'code'))),
                    "$ready on $width x $height",
                );
                self::assertSame('#17272e', $board['pattern']['elements'][0]['style']['color'], 'dark on what is light');
            }
        }
        // With addresses of pictures in a field and a picture that was brought in, offers have pictures.
        // What tells one row from another is no title.
        $rows = [
            ['id' => 'T-1', 'title' => 'Tolm', 'text' => 'Out at eight', 'price' => 24, 'photo' => '/a/tolm.png'],
            ['id' => 'V-1', 'title' => 'Vennick', 'text' => 'Two days', 'price' => 96, 'photo' => null],
        ];
        $trips = $this->ask('POST', '/api/sources', ['name' => 'Trips', 'document' => ['from' => ['table' => $rows]]])[1]['id'];
        $kinds = function () use ($trips, $rect): array {
            $fields = $this->ask('POST', '/api/boards/ready', ['ready' => 'offers', 'rows' => ['source' => $trips], 'rect' => $rect])[1]['fields'];

            return array_column($fields['pattern']['elements'], 'kind', 'id');
        };
        self::assertSame(['title' => 'text', 'text' => 'text', 'price' => 'text'], $kinds(), 'nothing was brought in');
        $this->media();
        $this->entities()->flush();
        self::assertSame(['photo' => 'picture', 'title' => 'text', 'text' => 'text', 'price' => 'text'], $kinds());
        self::assertSame(['photo'], $this->ask('POST', '/api/rows', ['rows' => ['source' => $trips]])[1]['pictures']);
        $refused = $this->ask('POST', '/api/boards/ready', ['ready' => 'menu', 'rows' => ['source' => $this->source], 'rect' => $rect]);
        self::assertSame([422, '/ready'], [$refused[0], $refused[1]['error']['path']]);
        $unknown = $this->ask('POST', '/api/boards/ready', ['ready' => 'news', 'rows' => ['source' => 'nowhere'], 'rect' => $rect]);
        self::assertSame([422, 'data.unknown', '/rows/source'], [$unknown[0], $unknown[1]['error']['code'], $unknown[1]['error']['path']]);
    }

    /**
     * @param array<string, mixed> $more
     * @return array<string, mixed>
     */
    private function analysed(array $more = [], string $text = '{to}'): array
    {
        $board = ['page_ms' => 5000] + Make::board($text, 500, 100);
        $board['rows'] = ['source' => $this->source];
        $board['pattern']['elements'][0]['style'] = ['family' => 'Inter', 'size_px' => 40];
        [$status, $told] = $this->ask('POST', '/api/analysis', ['document' => ['background' => ['color' => '#ffffff']] + Make::layout([$board])] + $more);
        self::assertSame(200, $status, (string) json_encode($told));

        return $told;
    }
}
