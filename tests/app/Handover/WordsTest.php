<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** What is said where: in what is saved, and on what hangs. */
final class WordsTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testALayoutIsFoundByAnyOfItsWordsInAnyOrder(): void
    {
        $hall = $this->made(self::saying("Próximas saídas\nàs 10:40", 'Pier 4'), 'Hall');
        $found = ['id' => $hall['id'], 'kind' => 'layout', 'name' => 'Hall', 'says' => 'Próximas saídas às 10:40', 'saved' => true, 'displays' => 0, 'some' => []];
        self::assertSame([$found], $this->found('SAIDAS prox'));
        self::assertSame([[], [], []], [$this->found('saídas pier'), $this->found('arrivals'), $this->found('  ')], 'one text has all of the words');
        self::assertSame([[], []], [$this->found('10%40'), $this->found('Pier_4')], 'a sign means itself');
    }

    /** Until it is handed over the old words hang there still. */
    public function testWordsThatHangThoughTheyAreSavedNoMoreAreFound(): void
    {
        $inner = $this->made(self::saying('Closed on Sunday'), 'Hours');
        $item = ['id' => 'i', 'layout' => ['ref' => $inner['id']], 'duration_ms' => 9000];
        $outer = $this->made(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [$item])]), 'Window');
        [$copy] = $this->ask('POST', '/api/displays/wide/copies', ['count' => 1])[1]['displays'];
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $outer['id']], 'displays' => ['wide', $copy['id']]]);
        $standing = fn (string ...$typed): array => array_map($this->standing(...), $typed);
        self::assertSame([[['Hours', true, 2, ['Wide', $copy['name']]]]], $standing('sunday'));

        $this->ask('PUT', "/api/layouts/{$inner['id']}", ['base' => 1, 'document' => ['elements' => self::saying('Open every day')['elements']] + $inner['document']]);
        self::assertSame([[['Hours', false, 2, ['Wide', $copy['name']]]], [['Hours', true, 0, []]]], $standing('sunday', 'every day'));
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $outer['id']], 'displays' => [$copy['id']]]);
        self::assertSame([[['Hours', false, 1, ['Wide']]], [['Hours', true, 1, [$copy['name']]]]], $standing('sunday', 'every day'));
    }

    public function testWhoIsNotSignedInFindsNothing(): void
    {
        $this->client->getCookieJar()->clear();
        self::assertSame(401, $this->ask('GET', '/api/words?search=a')[0]);
    }

    /** @return list<mixed> */
    private function standing(string $typed): array
    {
        return array_map(static fn (array $one): array => [$one['name'], $one['saved'], $one['displays'], $one['some']], $this->found($typed));
    }

    /** @return list<array<string, mixed>> */
    private function found(string $typed): array
    {
        return $this->ask('GET', '/api/words?' . http_build_query(['search' => $typed]))[1]['found'];
    }

    /** @return array<string, mixed> a layout */
    private static function saying(string ...$texts): array
    {
        $elements = [];
        foreach (array_values($texts) as $n => $text) {
            $elements[] = ['id' => "t$n", 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 100 * $n, 'width' => 900, 'height' => 90], 'text' => $text, 'style' => ['size_px' => 40]];
        }

        return Make::layout($elements);
    }
}
