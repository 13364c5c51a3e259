<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use UpperPane\App\Layout\Designs;
use UpperPane\App\Storage\Prune;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** What is filled into a template is a layout wherever something plays it, and goes by the revision that it was filled into. */
final class FilledTest extends ApiTestCase
{
    private string $template;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $this->template = $this->made(self::template(), 'Offer')['id'];
    }

    public function testItIsFilledInSeenAndHandedOver(): void
    {
        $filled = $this->fill(['head' => 'Late boats']);
        self::assertSame(['Late boats', 'Late boats'], [$this->says($this->ask('GET', "/api/filled/$filled/picture")[1]), $this->says($this->look(['head' => 'Late boats']))]);
        $row = $this->ask('GET', '/api/filled')[1]['filled'][0];
        self::assertSame(
            [$filled, ['id' => $this->template, 'name' => 'Offer', 'newest' => 1, 'revision' => 1], ['width' => 1920, 'height' => 1080]],
            [$row['id'], $row['template'], $row['canvas']],
        );
        self::assertSame(2, $this->ask('GET', '/api/layouts')[1]['layouts'][0]['slots']);
        $this->handOver(['source' => ['kind' => 'filled', 'id' => $filled], 'displays' => ['wide']]);
        self::assertSame('Late boats', $this->onDisplay());
        self::assertSame('wide', $this->ask('GET', "/api/filled/$filled/first-shown")[1]['seen'][0]['display']);

        $this->ask('PUT', "/api/filled/$filled", ['base' => 1, 'document' => ['values' => ['head' => 'Later boats']] + $this->document()]);
        self::assertSame(['wide'], $this->older());
        self::assertSame([409, 'design.used'], $this->refusal('DELETE', "/api/layouts/$this->template"));
    }

    public function testItPlaysWhereALayoutIsNamed(): void
    {
        $filled = $this->fill(['head' => 'Late boats']);
        $list = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [['id' => 'a', 'layout' => ['ref' => $filled], 'duration_ms' => 9000]]]])[1]['id'];
        self::assertSame('Late boats', $this->says($this->ask('GET', "/api/playlists/$list/picture")[1]));
        $document = ['timezone' => 'UTC', 'standby' => ['layout' => $filled], 'bookings' => []];
        $schedule = $this->ask('POST', '/api/schedules', ['name' => 'Week', 'display' => 'wide', 'document' => $document])[1]['id'];
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $schedule], 'displays' => ['wide']]);
        self::assertSame('Late boats', $this->onDisplay());
        self::assertSame([409, 'design.used'], $this->refusal('DELETE', "/api/filled/$filled"));
    }

    public function testWhatSuitsNoSlotIsRefusedAndWhatIsMissingIsTold(): void
    {
        self::assertSame([422, '/values/none'], $this->refused(['none' => 'x']));
        self::assertSame([422, '/values/head'], $this->refused(['head' => 4]));
        self::assertSame([422, '/values/price'], $this->refused(['price' => 'cheap']));
        self::assertSame(422, $this->ask('POST', '/api/filled', ['name' => 'x', 'document' => ['template' => 'nowhere', 'values' => []]])[0]);
        $told = $this->look([]);
        self::assertSame([['slot.missing'], 1], [array_column($told['findings'], 'code'), $told['stops']]);
        $told = $this->look(['head' => str_repeat('A very long line ', 40)]);
        self::assertSame([['slot.long'], 0], [array_column($told['findings'], 'code'), $told['room']['head']['']['letters']]);
        $told = $this->look(['head' => 'Boats', 'price' => 4]);
        self::assertGreaterThan(10, $told['room']['head']['']['letters']);
        self::assertSame(['head', [['x' => 0, 'y' => 0, 'width' => 1200, 'height' => 150]]], [$told['slots'][0]['id'], $told['slots'][0]['places']]);
        self::assertSame('Headline', $this->says($this->ask('POST', '/api/templates/nothing', ['document' => self::template()])[1]));
        self::assertSame('Headline Headline', $this->says($this->ask('POST', '/api/templates/longest', ['document' => self::template()])[1]), 'as many words as fit');
        self::assertSame(404, $this->ask('POST', '/api/templates/widest', ['document' => self::template()])[0]);
    }

    public function testWhatIsMissingStopsTheHandover(): void
    {
        $filled = $this->fill([]);
        $list = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [['id' => 'a', 'layout' => ['ref' => $filled], 'duration_ms' => 9000]]]])[1]['id'];
        foreach (['filled' => $filled, 'playlist' => $list] as $kind => $id) {
            $offers = $this->ask('POST', '/api/handover/preview', ['source' => ['kind' => $kind, 'id' => $id], 'displays' => ['wide']])[1]['offers'];
            self::assertContains('slot.missing', array_column($offers[0]['findings'], 'code'), $kind);
            self::assertSame(1, $offers[0]['stops'], $kind);
        }
    }

    public function testANewRevisionOfTheTemplateIsTakenOverInOneAct(): void
    {
        [$one, $two] = [$this->fill(['head' => 'Boats', 'price' => 5]), $this->fill(['head' => 'A headline of many words'], 'Two')];
        $this->handOver(['source' => ['kind' => 'filled', 'id' => $one], 'displays' => ['wide']]);
        $next = self::template();
        $next['elements'][0]['style']['color'] = '#ffcc00';
        $next['elements'][0]['rect']['width'] = 300;
        $next['slots'] = [$next['slots'][0]];
        self::assertSame(200, $this->ask('PUT', "/api/layouts/$this->template", ['base' => 1, 'document' => ['name' => 'Offer'] + $next])[0]);
        self::assertSame('#ffffff', $this->colour($one), 'what was filled in goes by the revision that it was filled into');
        self::assertSame([], $this->older(), 'and nothing is older');
        $told = $this->ask('GET', "/api/layouts/$this->template/filled")[1]['filled'];
        self::assertSame([[$one, 1, true, 1], [$two, 1, true, 0]], array_map(static fn (array $row): array => [$row['id'], $row['template_revision'], $row['is_older'], $row['displays']], $told));
        $newer = $this->ask('GET', "/api/filled/$two/newer")[1];
        self::assertSame([[], true], [$newer['left'], str_contains($newer['worse'][0], 'is too long for "head"')]);
        self::assertSame(['price'], $this->ask('GET', "/api/filled/$one/newer")[1]['left']);

        self::assertSame(409, $this->ask('POST', "/api/layouts/$this->template/filled", ['filled' => [$one, $this->fill(['head' => 'x'], 'Other', $this->made(self::template(), 'Other')['id'])]])[0]);
        self::assertSame('#ffffff', $this->colour($one), 'all or none');
        self::assertSame([['id' => $one, 'revision' => 2]], $this->ask('POST', "/api/layouts/$this->template/filled", ['filled' => [$one]])[1]['filled']);
        self::assertSame(['#ffcc00', '#ffffff'], [$this->colour($one), $this->colour($two)]);
        self::assertSame(['head' => 'Boats'], $this->ask('GET', "/api/filled/$one")[1]['document']['values']);
        $revisions = $this->ask('GET', "/api/filled/$one/revisions")[1]['revisions'];
        self::assertSame('took over revision 2 of the template', $revisions[0]['note']);
        self::assertSame(200, $this->ask('POST', "/api/filled/$one/restore", ['base' => 2, 'revision' => $revisions[1]['id']])[0], 'it can be taken back');
        self::assertSame('#ffffff', $this->colour($one));
    }

    /** Where a display shows a language in which what stands there says nothing, the estate says so; elsewhere nobody has to translate. */
    public function testWhatLacksALanguageThatADisplayShowsIsAFindingOfTheEstate(): void
    {
        $found = fn (): array => array_column($this->ask('GET', '/api/estate')[1]['findings'], null, 'code')['filled.language'] ?? ['elements' => [], 'measure' => []];
        $document = self::template();
        $document['slots'][0]['languages'] = ['en', 'pt'];
        $template = $this->made($document, 'In two')['id'];
        $filled = $this->fill(['head' => ['en' => 'Late boats']], template: $template);
        self::assertSame([], $found()['elements'], 'it stands nowhere');
        $this->handOver(['source' => ['kind' => 'filled', 'id' => $filled], 'displays' => ['wide']]);
        self::assertSame([['wide'], ['filled' => $filled, 'missing' => ['pt']]], array_values(array_intersect_key($found(), ['elements' => 1, 'measure' => 1])));
        $this->ask('PUT', '/api/places/hall/settings', ['setting' => 'languages', 'value' => ['en']]);
        self::assertSame([], $found()['elements'], 'nothing but English is shown there');
        $this->ask('PUT', '/api/displays/wide/settings', ['setting' => 'languages', 'value' => ['pt', 'en']]);
        self::assertSame(['wide'], $found()['elements']);
        $this->ask('PUT', "/api/filled/$filled", ['base' => 1, 'document' => ['values' => ['head' => ['en' => 'Late boats', 'pt' => 'Barcos tardios']]] + $this->document(template: $template)]);
        $this->handOver(['source' => ['kind' => 'filled', 'id' => $filled], 'displays' => ['wide']]);
        self::assertSame([], $found()['elements']);
    }

    /** What goes by a revision keeps all that this names, however long ago that was. */
    public function testARevisionThatSomethingIsFilledIntoStays(): void
    {
        $picture = ['id' => 'hero', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 200, 'width' => 400, 'height' => 200], 'media' => $this->media()->media()?->toArray()];
        $document = self::template();
        $document['elements'][] = $picture;
        $this->ask('PUT', "/api/layouts/$this->template", ['base' => 1, 'document' => ['name' => 'Offer'] + $document]);
        $filled = $this->fill(['head' => 'Boats'], revision: 2);
        foreach (range(2, 4) as $base) {
            $this->ask('PUT', "/api/layouts/$this->template", ['base' => $base, 'document' => ['name' => "Offer $base"] + self::template()]);
        }
        self::assertSame([409, 'media.used'], $this->refusal('DELETE', '/api/media/pier'));
        $this->entities()->getConnection()->executeStatement("UPDATE design_revision SET saved_at = '2020-01-01 00:00:00'");
        static::getContainer()->get(Prune::class)->run();
        self::assertSame([false, true, false, true], array_map(fn (int $number): bool => static::getContainer()->get(Designs::class)->numbered($this->template, $number) !== null, [1, 2, 3, 5]));
        self::assertSame('Boats', $this->says($this->ask('GET', "/api/filled/$filled/picture")[1]));
        $this->ask('DELETE', "/api/filled/$filled");
        static::getContainer()->get(Prune::class)->run();
        self::assertNotNull(static::getContainer()->get(Designs::class)->numbered($this->template, 2), 'also while it lies in the bin');
    }

    /** @return array<string, mixed> */
    private static function template(): array
    {
        $style = ['family' => 'Inter', 'size_px' => 96, 'color' => '#ffffff'];

        return ['slots' => [
            ['id' => 'head', 'name' => 'Headline', 'kind' => 'text', 'element' => 'head', 'required' => true],
            ['id' => 'price', 'name' => 'Price', 'kind' => 'number', 'element' => 'fare', 'argument' => 'price', 'from' => 0, 'to' => 99],
        ]] + Make::layout([Make::told('head', 'Headline', 1200, 150, message: false, style: $style), Make::told('fare', 'From {price}', 900, 60, style: $style)], id: 'offer');
    }

    /**
     * @param array<string, mixed> $values
     * @return array<string, mixed>
     */
    private function document(array $values = [], int $revision = 1, ?string $template = null): array
    {
        return ['name' => 'One', 'template' => $template ?? $this->template, 'template_revision' => $revision, 'values' => $values === [] ? new \stdClass() : $values];
    }

    /** @param array<string, mixed> $values */
    private function fill(array $values, string $name = 'One', ?string $template = null, int $revision = 1): string
    {
        [$status, $made] = $this->ask('POST', '/api/filled', ['name' => $name, 'document' => array_diff_key($this->document($values, $revision, $template), ['name' => 1])]);
        self::assertSame(201, $status, json_encode($made) ?: '');

        return $made['id'];
    }

    /**
     * @param array<string, mixed> $values
     * @return array<string, mixed>
     */
    private function look(array $values): array
    {
        return $this->ask('POST', '/api/filling', ['document' => ['format' => 'upper-pane/filled@1', 'id' => 'new'] + $this->document($values)])[1];
    }

    /**
     * @param array<string, mixed> $values
     * @return array{int, string}
     */
    private function refused(array $values): array
    {
        [$status, $said] = $this->ask('POST', '/api/filled', ['name' => 'x', 'document' => array_diff_key($this->document($values), ['name' => 1])]);

        return [$status, $said['error']['path'] ?? ''];
    }

    /** @return array{int, string} */
    private function refusal(string $method, string $path): array
    {
        [$status, $said] = $this->ask($method, $path);

        return [$status, $said['error']['code'] ?? ''];
    }

    /** @param array<string, mixed> $picture */
    private function says(array $picture): string
    {
        return self::first($picture['run_sheet'], 'text');
    }

    private function colour(string $filled): string
    {
        return self::first($this->ask('GET', "/api/filled/$filled/picture")[1]['run_sheet'], 'color');
    }

    private function onDisplay(): string
    {
        return self::first($this->sheetOn('wide'), 'text');
    }

    /** @param array<mixed> $sheet */
    private static function first(array $sheet, string $field): string
    {
        $found = '';
        array_walk_recursive($sheet, static function (mixed $value, int|string $name) use ($field, &$found): void {
            $found = $found === '' && $name === $field && is_string($value) ? $value : $found;
        });

        return $found;
    }
}
