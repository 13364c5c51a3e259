<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** One template and the rows of a source make many; again when the rows are others. */
final class FillFromRowsTest extends ApiTestCase
{
    private const DISHES = [['name' => 'Fish soup', 'fare' => 7.5], ['name' => 'Lamb pie', 'fare' => 8.9]];

    private string $template;
    private string $source;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $slots = [
            ['id' => 'dish', 'name' => 'Dish', 'kind' => 'text', 'element' => 'dish', 'required' => true],
            ['id' => 'price', 'name' => 'Price', 'kind' => 'number', 'element' => 'fare', 'argument' => 'price', 'decimals' => 2],
        ];
        $elements = [Make::told('dish', 'Dish', 900, 150, message: false), Make::told('fare', 'for {price}', 900, 150)];
        $this->template = $this->made(['slots' => $slots] + Make::layout($elements), 'Dish of the day')['id'];
        $this->source = $this->ask('POST', '/api/sources', ['name' => 'Dishes', 'document' => ['from' => ['table' => self::DISHES]]])[1]['id'];
    }

    public function testEachRowIsFilledInAndAgainWhenTheRowsAreOthers(): void
    {
        $told = $this->ask('POST', "/api/layouts/$this->template/rows/preview", $this->asked())[1];
        self::assertSame([2, ['Fish soup', 'Lamb pie'], 'Dish: Fish soup'], [$told['count'], array_column($told['told'], 'key'), $told['told'][0]['name']]);
        self::assertSame([], $this->filled(), 'looking fills nothing in');

        [$status, $made] = $this->ask('POST', "/api/layouts/$this->template/rows", $this->asked());
        self::assertSame([201, 2, ['new' => 0, 'changed' => 0, 'gone' => []]], [$status, $made['filled'], $made['news']], json_encode($made) ?: '');
        self::assertSame(['Dish: Fish soup' => ['Fish soup', 7.5], 'Dish: Lamb pie' => ['Lamb pie', 8.9]], $before = $this->filled());

        $this->change([['name' => 'Fish soup', 'fare' => 6.9], ['name' => 'Tea', 'fare' => 2]]);
        $news = $this->ask('GET', "/api/layouts/$this->template/rows")[1]['fillings'][0]['news'];
        self::assertSame(['new' => 1, 'changed' => 1, 'gone' => ['Dish: Lamb pie']], $news);
        self::assertSame($before, $this->filled(), 'nothing happens by itself');
        $soup = $this->id('Dish: Fish soup');
        self::assertSame(200, $this->ask('POST', "/api/layouts/$this->template/rows/{$made['id']}/again")[0]);
        self::assertSame(['Dish: Fish soup' => ['Fish soup', 6.9], 'Dish: Lamb pie' => ['Lamb pie', 8.9], 'Dish: Tea' => ['Tea', 2]], $this->filled(), 'what has no row any more stays');
        self::assertSame($soup, $this->id('Dish: Fish soup'), 'the same goes on');

        self::assertSame(204, $this->ask('DELETE', "/api/layouts/$this->template/rows/{$made['id']}")[0]);
        self::assertSame([[], 3], [$this->ask('GET', "/api/layouts/$this->template/rows")[1]['fillings'], count($this->filled())]);
        self::assertSame(404, $this->ask('POST', "/api/layouts/$this->template/rows/{$made['id']}/again")[0]);
    }

    public function testRowsOfOneKeyAreKeptApartAndWhatWasDeletedIsFilledInAnew(): void
    {
        $this->change([['name' => 'Tea', 'fare' => 2], ['name' => 'Tea', 'fare' => 3]]);
        $made = $this->ask('POST', "/api/layouts/$this->template/rows", $this->asked())[1];
        self::assertSame(2, $made['filled']);
        $this->ask('DELETE', '/api/filled/' . $this->id('Dish: Tea'));
        self::assertSame(1, $this->ask('GET', "/api/layouts/$this->template/rows")[1]['fillings'][0]['news']['new']);
        self::assertSame(2, $this->ask('POST', "/api/layouts/$this->template/rows/{$made['id']}/again")[1]['filled']);
    }

    public function testTheRowsGoWithTheirTemplateAndComeBackWithIt(): void
    {
        $made = $this->ask('POST', "/api/layouts/$this->template/rows", $this->asked())[1];
        self::assertSame(409, $this->ask('DELETE', "/api/layouts/$this->template")[0], 'something is filled into it');
        foreach ($this->ask('GET', '/api/filled')[1]['filled'] as $one) {
            $this->ask('DELETE', "/api/filled/{$one['id']}");
        }
        self::assertSame(204, $this->ask('DELETE', "/api/layouts/$this->template")[0]);
        $count = fn (string $table): mixed => $this->entities()->getConnection()->fetchOne("SELECT COUNT(*) FROM $table");
        self::assertSame([0, 0], [$count('rows_filling'), $count('rows_filled')]);
        $binned = array_column($this->ask('GET', '/api/bin')[1]['binned'], 'id', 'kind')['layout'];
        self::assertSame(204, $this->ask('POST', "/api/bin/$binned/back", [])[0]);
        self::assertSame([$made['id'], 2], [$this->ask('GET', "/api/layouts/$this->template/rows")[1]['fillings'][0]['id'], $count('rows_filled')]);
    }

    public function testWhatCannotBe(): void
    {
        $refused = fn (array $other): array => [($said = $this->ask('POST', "/api/layouts/$this->template/rows", $other + $this->asked()))[0], $said[1]['error']['path'] ?? ''];
        self::assertSame([422, '/map/none'], $refused(['map' => ['none' => 'name']]));
        self::assertSame([422, '/rows/0/price'], $refused(['map' => ['price' => 'name']]));
        self::assertSame([422, '/key'], $refused(['key' => 'colour']));
        self::assertSame([422, '/rows/source'], $refused(['rows' => ['source' => 'nowhere', 'path' => '$[*]', 'fields' => ['name' => '$.name']]]));
        self::assertSame([], $this->filled());
    }

    /** @return array<string, mixed> */
    private function asked(): array
    {
        return [
            'rows' => ['source' => $this->source, 'path' => '$[*]', 'fields' => ['name' => '$.name', 'fare' => ['of' => '$.fare', 'type' => 'number']]],
            'map' => ['dish' => 'name', 'price' => 'fare'],
            'name' => 'Dish: {name}',
            'key' => 'name',
        ];
    }

    /** @param list<array<string, mixed>> $rows */
    private function change(array $rows): void
    {
        $saved = $this->ask('GET', "/api/sources/$this->source")[1];
        self::assertSame(200, $this->ask('PUT', "/api/sources/$this->source", ['base' => $saved['revision'], 'document' => ['from' => ['table' => $rows]] + $saved['document']])[0]);
    }

    /** @return array<string, array{string, int|float}> what is filled in, by name */
    private function filled(): array
    {
        $filled = [];
        foreach ($this->ask('GET', '/api/filled')[1]['filled'] as $one) {
            $values = $this->ask('GET', "/api/filled/{$one['id']}")[1]['document']['values'];
            $filled[$one['name']] = [$values['dish'], $values['price']];
        }
        ksort($filled);

        return $filled;
    }

    private function id(string $name): string
    {
        return array_column($this->ask('GET', '/api/filled')[1]['filled'], 'id', 'name')[$name];
    }
}
