<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Day;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Handover\Documents;
use UpperPane\Core\Layout\Composer;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Library;
use UpperPane\Core\Layout\Style\HouseStyle;
use UpperPane\Core\Layout\Style\Styles;
use UpperPane\Core\Layout\Surroundings;
use UpperPane\Core\Layout\Template\Filled;
use UpperPane\Core\Layout\Template\FilledRows;
use UpperPane\Core\Layout\Template\Filling;
use UpperPane\Core\Layout\Template\PlainLayout;
use UpperPane\Core\Layout\Template\Sample;
use UpperPane\Core\Layout\Template\Slots;
use UpperPane\Core\Layout\Told\Speaking;
use UpperPane\Core\Time\Schedule\Played;
use UpperPane\Core\Units\Instant;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\Typewriter;

/**
 * A template that is filled in: what no slot opens stays as it was.
 *
 * @phpstan-import-type Doc from Make
 */
final class TemplateTest extends TestCase
{
    private const SLOTS = [
        ['id' => 'headline', 'name' => 'Headline', 'kind' => 'text', 'element' => 'head', 'required' => true, 'languages' => ['en', 'pt']],
        ['id' => 'line', 'name' => 'Line', 'kind' => 'text', 'element' => 'line'],
        ['id' => 'photo', 'name' => 'Photo', 'kind' => 'picture', 'element' => 'hero', 'hint' => 'A boat.'],
        ['id' => 'price', 'name' => 'Price', 'kind' => 'number', 'element' => 'fare', 'argument' => 'price', 'from' => 0, 'to' => 999, 'decimals' => 2],
        ['id' => 'day', 'name' => 'Day', 'kind' => 'date', 'element' => 'fare', 'argument' => 'day', 'from' => '2026-01-01', 'to' => '2026-12-31'],
        ['id' => 'offer', 'name' => 'Offer', 'kind' => 'switch', 'elements' => ['badge', 'line']],
        ['id' => 'tone', 'name' => 'Tone', 'kind' => 'choice', 'options' => [
            ['id' => 'calm', 'name' => 'Calm', 'set' => [['element' => 'badge', 'field' => 'fill', 'value' => '#000011']]],
            ['id' => 'loud', 'name' => 'Loud', 'set' => [
                ['element' => 'badge', 'field' => 'fill', 'value' => '@sand'],
                ['element' => 'head', 'field' => 'style/color', 'value' => '#ff0000'],
                ['element' => 'head', 'field' => 'style/plate', 'value' => ['color' => '#000000', 'px' => 4]],
            ]],
        ]],
        ['id' => 'films', 'name' => 'Films', 'kind' => 'list', 'element' => 'main', 'at_most' => 2],
    ];

    /** @param array<string, mixed> $values */
    #[DataProvider('puts')]
    public function testWhatIsFilledInIsPutThere(array $values, string $element, string $field, mixed $want): void
    {
        [$filled, $template] = [self::filled($values), self::template()];
        $plain = self::plain($filled, $template);
        $found = array_column($plain['elements'], null, 'id')[$element];
        self::assertSame($want, array_reduce(explode('/', $field), static fn (mixed $at, string $name): mixed => is_array($at) ? $at[$name] ?? null : null, $found));
        self::assertSame(['offer-1', 'Offer one'], [$plain['id'], $plain['name']]);
        self::assertArrayNotHasKey('slots', $plain);
    }

    /** @return iterable<string, array{array<string, mixed>, string, string, mixed}> */
    public static function puts(): iterable
    {
        yield 'a text in two languages, in the order of the slot' => [['headline' => ['pt' => 'Barcos', 'en' => 'Boats']], 'head', 'texts', ['en' => 'Boats', 'pt' => 'Barcos']];
        yield 'the first beside them' => [['headline' => ['pt' => 'Barcos', 'en' => 'Boats']], 'head', 'text', 'Boats'];
        yield 'what says nothing is not there' => [['headline' => ['pt' => 'Barcos', 'en' => " \n"]], 'head', 'texts', ['pt' => 'Barcos']];
        yield 'one for all' => [['headline' => 'Boats'], 'head', 'texts', null];
        yield 'no pattern, even where the template has one' => [['line' => 'now {price}'], 'line', 'text', 'now {price}'];
        yield 'and no message' => [['line' => 'now {price}'], 'line', 'message', null];
        yield 'without what was set otherwise in the words before' => [['headline' => 'Boats'], 'head', 'marks', null];
        yield 'white space is nothing' => [['headline' => "\u{2003} "], 'head', 'text', 'Headline'];
        yield 'a picture' => [['photo' => ['name' => 'p.jpg', 'width' => 4, 'height' => 3]], 'hero', 'media/name', 'p.jpg'];
        yield 'without the crop of the one before' => [['photo' => ['name' => 'p.jpg', 'width' => 4, 'height' => 3]], 'hero', 'crop', null];
        yield 'a mark' => [['photo' => ['mark' => 'logo']], 'hero', 'media/id', 'm1'];
        yield 'a number with its decimals' => [['price' => 18], 'fare', 'text', 'From 18.00 on –'];
        yield 'rounded half away from zero' => [['price' => 2.675], 'fare', 'text', 'From 2.68 on –'];
        yield 'a day' => [['day' => '2026-06-01', 'price' => 5], 'fare', 'text', 'From 5.00 on 6/1/26'];
        yield 'a message is none any more' => [['price' => 5], 'fare', 'message', null];
        yield 'off' => [['offer' => false], 'badge', 'hidden', true];
        yield 'on' => [['offer' => true], 'badge', 'hidden', null];
        yield 'a choice' => [['tone' => 'calm'], 'badge', 'fill', '#000011'];
        yield 'of a name' => [['tone' => 'loud'], 'badge', 'fill', '#f5e6b8'];
        yield 'in an object' => [['tone' => 'loud'], 'head', 'style/color', '#ff0000'];
        yield 'of an object' => [['tone' => 'loud'], 'head', 'style/plate/px', 4];
        yield 'items' => [['films' => [Make::film('f')]], 'main', 'playlist/items', [Make::film('f')]];
        yield 'and what is put in between stays' => [['films' => [Make::film('f')]], 'main', 'playlist/interleave/every', 2];
        yield 'no items are nothing' => [['films' => []], 'main', 'playlist/items/0/id', 'a'];
    }

    public function testWhatNoSlotOpensStaysToTheLastByte(): void
    {
        $template = Layout::fromArray(self::template());
        $filling = Filling::of(self::filled(['headline' => 'Boats']), $template);
        $layout = $filling->layout(new Speaking())->toArray();
        $before = $template->toArray();
        foreach ($before['elements'] as $place => $element) {
            if (!in_array($element['id'], ['head', 'fare'], true)) {
                self::assertSame($element, $layout['elements'][$place]);
            }
        }
        self::assertSame(array_diff_key($before, ['id' => 1, 'name' => 1, 'elements' => 1, 'slots' => 1]), array_diff_key($layout, ['id' => 1, 'name' => 1, 'elements' => 1]));
        self::assertSame(Typewriter::FAMILY, $layout['elements'][0]['style']['family'] ?? null);
        self::assertEquals(self::template(), $before, 'a template is written as it was read');
    }

    public function testDefaultsStandWhereNothingIsFilledIn(): void
    {
        $defaults = ['headline' => ['en' => 'Hello'], 'photo' => ['mark' => 'logo'], 'price' => 7.125, 'day' => '2026-06-01', 'offer' => false, 'tone' => 'loud', 'films' => [Make::film('f')]];
        $slots = [];
        foreach (self::SLOTS as $slot) {
            $slots[] = $slot + (isset($defaults[$slot['id']]) ? ['default' => $defaults[$slot['id']]] : []);
        }
        $template = self::template($slots);
        $elements = array_column(self::plain(self::filled([]), $template)['elements'], null, 'id');
        self::assertSame(['en' => 'Hello'], $elements['head']['texts']);
        self::assertSame(['m1', 'From 7.13 on 6/1/26', true, '#f5e6b8', 'f'], [
            $elements['hero']['media']['id'], $elements['fare']['text'], $elements['badge']['hidden'], $elements['badge']['fill'], $elements['main']['playlist']['items'][0]['id'],
        ]);
        self::assertSame([], self::codes(self::filled([]), $template), 'a default is a value');
        self::assertSame('Headline', Layout::fromArray($template)->toArray()['elements'][0]['text'], 'read as it stands, it is as it stands');
        self::assertSame(['#000011', null], [array_column(self::plain(self::filled(['tone' => 'calm', 'offer' => true]), $template)['elements'], null, 'id')['badge']['fill'] ?? null, null]);
    }

    public function testMessagesTellInTheLanguageOfTheirTurn(): void
    {
        $template = self::template([self::SLOTS[3], self::SLOTS[0]]);
        $template['elements'][2]['texts'] = ['en' => 'From {price}', 'pt' => 'Desde {price}'];
        $texts = static fn (Speaking $speaking): mixed => array_intersect_key(self::plain(self::filled(['price' => 1234.5]), $template, $speaking)['elements'][2], ['text' => 1, 'texts' => 1]);
        self::assertSame(['text' => 'From 1,234.50', 'texts' => ['en' => 'From 1,234.50', 'pt' => 'Desde 1.234,50']], $texts(new Speaking()));
        self::assertSame(['text' => 'Desde 1.234,50'], $texts(new Speaking('pt')));
        self::assertSame(['text' => 'From 1.234,50'], $texts(new Speaking('de')), 'the first, told in the language that is asked for');
        self::assertSame(['text' => 'Desde 1.234,50', 'texts' => ['pt' => 'Desde 1.234,50', 'en' => 'From 1,234.50']], $texts(new Speaking(null, ['pt', 'en'])));
        // A day is that day in every zone; what the place says is told with it.
        $template = self::template([self::SLOTS[4]]);
        $template['elements'][2]['text'] = '{day, date, full}, {place_phone}';
        $around = new Surroundings('Pacific/Honolulu', new Typewriter(), speaking: new Speaking(null, ['pt'], ['phone' => '555']));
        $filling = Filling::of(self::filled(['day' => '2026-06-01']), Layout::fromArray($template));
        self::assertSame('segunda-feira, 1 de junho de 2026, 555', PlainLayout::of($filling->layout($around->speaking), $around->styled(self::styles()))['elements'][2]['text']);
    }

    public function testWhatRowsTellIsToldLater(): void
    {
        $template = self::template([self::SLOTS[3]]);
        $template['elements'][2] = array_replace($template['elements'][2], ['text' => "{to}: {price} '{'", 'rows' => ['source' => 's', 'language' => 'pt']]);
        $plain = self::plain(self::filled(['price' => 1.5]), $template)['elements'][2];
        self::assertSame(["{to}: 1,50 '{'", true], [$plain['text'], $plain['message']], 'the number in the language of the rows');
        $around = (new Surroundings('UTC', new Typewriter()))->fed(Make::fed([['to' => 'Tolm']]))->styled(self::styles());
        $layout = Filling::of(self::filled(['price' => 1.5]), Layout::fromArray($template))->layout(new Speaking());
        self::assertContains('Tolm: 1,50 {', self::said(Composer::compose($layout, null, $around), $around));
    }

    /** Sizes are those of the canvas of each variant; names in a layout within it count on its own canvas. */
    public function testNamesAreWorkedOutForEachCanvas(): void
    {
        $template = self::template();
        $template['elements'][0]['style'] = ['family' => '@head', 'size_px' => '@line', 'color' => '@sand'];
        $template['background'] = ['color' => '@sand'];
        $place = ['rect' => ['x' => 0, 'y' => 0, 'width' => 1080, 'height' => 200]];
        $places = ['head' => $place, 'line' => $place + ['size_px' => 33], 'fare' => $place + ['size_px' => '@line']];
        $template['variants'] = [['id' => 'v', 'canvas' => ['width' => 1080, 'height' => 1920], 'places' => $places]];
        $inner = Make::layout([['style' => ['family' => '@head', 'size_px' => '@line']] + Make::told('t', 'x', message: false)], 200, 100, 'inner');
        $plain = self::plain(self::filled(['films' => [['id' => 'l', 'layout' => $inner, 'duration_ms' => 9000], ['id' => 'm', 'media' => ['mark' => 'logo'], 'duration_ms' => 9000]]]), $template);
        self::assertSame(['family' => 'Barlow', 'size_px' => 54, 'color' => '#f5e6b8', 'weight' => 600], $plain['elements'][0]['style']);
        self::assertSame(['head' => 96, 'line' => 33, 'fare' => 96], array_map(static fn (array $one): int => $one['size_px'], $plain['variants'][0]['places']));
        [$nested, $marked] = $plain['elements'][5]['playlist']['items'];
        self::assertSame(['family' => 'Barlow', 'size_px' => 5, 'weight' => 600], $nested['layout']['elements'][0]['style']);
        self::assertSame(['m1', '#f5e6b8'], [$marked['media']['id'], $plain['background']['color']]);
        self::assertStringNotContainsString('"@', (string) json_encode($plain));
    }

    /**
     * @param array<string, mixed> $values
     * @param list<array<string, mixed>> $want measures
     */
    #[DataProvider('findings')]
    public function testWhatIsWrongIsFound(array $values, string $code, array $want, Speaking $speaking = new Speaking()): void
    {
        $findings = Filling::of(self::filled($values + ['headline' => ['en' => 'a', 'pt' => 'b']]), Layout::fromArray(self::template()))->findings(self::around($speaking));
        $found = array_values(array_filter($findings->all, static fn (Finding $one): bool => $one->code === $code));
        self::assertSame($want, array_map(static fn (Finding $one): array => $one->measure, $found));
        foreach (['slot.missing', 'slot.range', 'slot.count'] as $stop) {
            self::assertSame($stop === $code && $want !== [], in_array('stop', array_map(static fn (Finding $one): string => $one->code === $stop ? $one->level->value : '', $findings->all), true));
        }
    }

    public function testItSaysInWhichLanguagesItLacksATextOnce(): void
    {
        $lacking = static fn (array $values): array => Filling::of(self::filled($values), Layout::fromArray(self::template()))->lacking();
        self::assertSame([[], [], [], ['en'], ['pt']], [
            $lacking([]), $lacking(['headline' => 'one for all']), $lacking(['headline' => ['en' => 'a', 'pt' => 'b']]), $lacking(['headline' => ['pt' => 'b']]),
            $lacking(['headline' => ['en' => 'a', 'pt' => ' '], 'price' => 4]),
        ]);
    }

    /** @return iterable<string, array{0: array<string, mixed>, 1: string, 2: list<array<string, mixed>>, 3?: Speaking}> */
    public static function findings(): iterable
    {
        yield 'nothing' => [[], 'slot.missing', []];
        yield 'white space is nothing' => [['headline' => ['en' => ' ', 'pt' => "\u{200B}"]], 'slot.missing', [['slot' => 'headline']]];
        yield 'a text in one language of two' => [['headline' => ['pt' => 'b']], 'slot.language', [['slot' => 'headline', 'missing' => ['en']]]];
        yield 'a text for all is one in each' => [['headline' => 'b'], 'slot.language', []];
        yield 'both' => [[], 'slot.language', []];
        // 20 px a letter of 40 px, words break: "aaaa bbbb" is 180 px wide in a box of 190.
        yield 'one word too many' => [['headline' => ['en' => 'aaaa bbbb c', 'pt' => 'x']], 'slot.long', [['slot' => 'headline', 'language' => 'en', 'words' => 1]]];
        yield 'in each language' => [['headline' => ['en' => 'aaaa bbbb c d', 'pt' => 'aaaaaaaaaa']], 'slot.long', [
            ['slot' => 'headline', 'language' => 'en', 'words' => 2], ['slot' => 'headline', 'language' => 'pt', 'words' => 1],
        ]];
        $pt = ['slot' => 'headline', 'language' => 'pt', 'words' => 1];
        yield 'in the one that is shown' => [['headline' => ['en' => 'aaaa bbbb c', 'pt' => 'aaaaaaaaaa']], 'slot.long', [$pt], new Speaking('pt')];
        yield 'one for all' => [['headline' => 'aaaa bbbb c d e'], 'slot.long', [['slot' => 'headline', 'language' => null, 'words' => 3]]];
        yield 'it may be smaller' => [['line' => 'aaaa bbbb cccc dddd'], 'slot.long', []];
        yield 'so small and no smaller' => [['line' => 'aaaa bbbb cccc dddd eeee ffff gggg hhhh i'], 'slot.long', [['slot' => 'line', 'language' => null, 'words' => 1]]];
        yield 'a picture of the same shape' => [['photo' => ['name' => 'p.jpg', 'width' => 800, 'height' => 400]], 'slot.shape', []];
        yield 'of another' => [['photo' => ['name' => 'p.jpg', 'width' => 400, 'height' => 400]], 'slot.shape', [['slot' => 'photo', 'lost' => 0.5, 'bars' => 0.0]]];
        yield 'of a slightly other' => [['photo' => ['name' => 'p.jpg', 'width' => 600, 'height' => 400]], 'slot.shape', []];
        yield 'large enough' => [['photo' => ['name' => 'p.jpg', 'width' => 400, 'height' => 200]], 'slot.small', []];
        yield 'too small' => [['photo' => ['name' => 'p.jpg', 'width' => 200, 'height' => 100]], 'slot.small', [['slot' => 'photo', 'scale' => 2.0]]];
        yield 'both ends are in' => [['price' => 999, 'day' => '2026-01-01'], 'slot.range', []];
        yield 'beyond' => [['price' => 999.5, 'day' => '2027-01-01'], 'slot.range', [
            ['slot' => 'price', 'value' => 999.5, 'from' => 0.0, 'to' => 999.0], ['slot' => 'day', 'value' => '2027-01-01', 'from' => '2026-01-01', 'to' => '2026-12-31'],
        ]];
        yield 'as many as there may be' => [['films' => [Make::film('a'), Make::film('b')]], 'slot.count', []];
        yield 'more' => [['films' => [Make::film('a'), Make::film('b'), Make::film('c')]], 'slot.count', [['slot' => 'films', 'count' => 3, 'at_most' => 2]]];
    }

    /** On a display its variant is looked at, and its px count where it has more than the canvas. */
    public function testItIsLookedAtAsADisplayShowsIt(): void
    {
        $template = self::template();
        $template['variants'] = [['id' => 'v', 'canvas' => ['width' => 1080, 'height' => 1920], 'places' => [
            'head' => ['rect' => ['x' => 0, 'y' => 0, 'width' => 900, 'height' => 100]],
            'hero' => ['rect' => ['x' => 0, 'y' => 200, 'width' => 400, 'height' => 400]],
        ]]];
        $values = ['headline' => 'aaaa bbbb c', 'photo' => ['name' => 'p.jpg', 'width' => 400, 'height' => 400], 'price' => 5000];
        $on = static fn (int $width, int $height): array => array_map(static fn (Finding $one): string => $one->code, Filling::of(self::filled($values), Layout::fromArray($template))
            ->findings(self::around()->on(Display::fromArray(Make::display($width, $height))))->all);
        self::assertSame(['slot.range', 'slot.long', 'slot.shape'], $on(1920, 1080));
        self::assertSame(['slot.range'], $on(1080, 1920));
        self::assertSame(['slot.range', 'slot.small'], $on(2160, 3840));
    }

    /** @param list<array<string, mixed>> $slots */
    #[DataProvider('wrongSlots')]
    public function testSlotsThatCannotBe(string $path, array $slots): void
    {
        self::assertRefused($path, static fn (): Layout => Layout::fromArray(self::template($slots)));
    }

    /** @return iterable<string, array{string, list<array<string, mixed>>}> */
    public static function wrongSlots(): iterable
    {
        [$text, , $picture, $number, $day, $switch, $choice, $list] = self::SLOTS;
        yield 'an element that is not there' => ['/slots/0/element', [['element' => 'gone'] + $text]];
        yield 'a text for a picture' => ['/slots/1/element', [$text, ['element' => 'hero'] + self::SLOTS[1]]];
        yield 'a picture for a text' => ['/slots/0/element', [['element' => 'head'] + $picture]];
        yield 'a list for a text' => ['/slots/0/element', [['element' => 'head'] + $list]];
        yield 'an argument where there is no message' => ['/slots/0/element', [['element' => 'head'] + $number]];
        yield 'a switch of what is not there' => ['/slots/0/elements/1', [['elements' => ['head', 'gone']] + $switch]];
        yield 'a switch of nothing' => ['/slots/0/elements', [['elements' => []] + $switch]];
        yield 'two of one id' => ['/slots/1/id', [$text, ['id' => 'headline'] + $picture]];
        yield 'an argument twice' => ['/slots/1/argument', [$number, ['argument' => 'price'] + $day]];
        yield 'an argument of the place' => ['/slots/0/argument', [['argument' => 'place_x'] + $number]];
        yield 'no kind' => ['/slots/0/kind', [['kind' => 'film'] + $text]];
        yield 'no name' => ['/slots/0/name', [array_diff_key($text, ['name' => 1])]];
        yield 'a field of another kind' => ['/slots/0/at_most', [$text + ['at_most' => 3]]];
        yield 'no languages' => ['/slots/0/languages', [['languages' => []] + $text]];
        yield 'a language twice' => ['/slots/0/languages/1', [['languages' => ['en', 'en']] + $text]];
        yield 'from beyond to' => ['/slots/0/to', [['from' => 5, 'to' => 4] + $number]];
        yield 'a day from beyond to' => ['/slots/0/to', [['from' => '2027-01-01'] + $day]];
        yield 'a day that is none' => ['/slots/0/from', [['from' => '2026-02-30'] + $day]];
        yield 'a default of another type' => ['/slots/0/default', [$number + ['default' => 'x']]];
        yield 'a default in a language of none' => ['/slots/0/default/de', [$text + ['default' => ['de' => 'x']]]];
        yield 'a default that is no option' => ['/slots/0/default', [$choice + ['default' => 'wild']]];
        yield 'a film for a picture' => ['/slots/0/default', [$picture + ['default' => ['name' => 'f.webm', 'width' => 4, 'height' => 3, 'length_ms' => 5]]]];
        $set = static fn (array ...$sets): array => [['options' => [['id' => 'o', 'name' => 'O', 'set' => array_values($sets)]]] + $choice];
        yield 'no options' => ['/slots/0/options', [['options' => []] + $choice]];
        yield 'an option of an element that is not there' => ['/slots/0/options/0/set/0/element', $set(['element' => 'gone', 'field' => 'fill', 'value' => '#000000'])];
        yield 'the id' => ['/slots/0/options/0/set/0/field', $set(['element' => 'badge', 'field' => 'id', 'value' => 'x'])];
        yield 'a field that is not there' => ['/slots/0/options/0/set/0/field', $set(['element' => 'badge', 'field' => 'colour', 'value' => '#000000'])];
        yield 'a path without a name' => ['/slots/0/options/0/set/0/field', $set(['element' => 'head', 'field' => 'style/', 'value' => '#000000'])];
        $words = ['element' => 'head', 'field' => 'text', 'value' => 'x'];
        yield 'a value that cannot be there' => ['/slots/0/options/0/set/1/value', $set($words, ['element' => 'head', 'field' => 'style/size_px', 'value' => 0])];
        yield 'in an object' => ['/slots/0/options/0/set/0/value/color', $set(['element' => 'head', 'field' => 'style/plate', 'value' => ['color' => 'red', 'px' => 4]])];
    }

    /** @param array<string, mixed> $values */
    #[DataProvider('wrongValues')]
    public function testValuesThatCannotBe(string $path, array $values): void
    {
        self::assertRefused($path, static fn (): Filling => Filling::of(self::filled($values), Layout::fromArray(self::template())));
    }

    /** @return iterable<string, array{string, array<string, mixed>}> */
    public static function wrongValues(): iterable
    {
        yield 'no slot' => ['/values/colour', ['colour' => 'red']];
        yield 'null' => ['/values/line', ['line' => null]];
        yield 'no text' => ['/values/headline', ['headline' => 5]];
        yield 'a language of none' => ['/values/headline/de', ['headline' => ['en' => 'x', 'de' => 'x']]];
        yield 'null in a language' => ['/values/headline/pt', ['headline' => ['en' => 'x', 'pt' => null]]];
        yield 'languages where there is one for all' => ['/values/line', ['line' => ['en' => 'x']]];
        yield 'too long' => ['/values/line', ['line' => str_repeat('x', 20_001)]];
        yield 'no number' => ['/values/price', ['price' => '18.5']];
        yield 'no day' => ['/values/day', ['day' => '2026-02-30']];
        yield 'neither on nor off' => ['/values/offer', ['offer' => 'yes']];
        yield 'no option' => ['/values/tone', ['tone' => 'wild']];
        yield 'a film for a picture' => ['/values/photo', ['photo' => ['name' => 'f.webm', 'width' => 4, 'height' => 3, 'length_ms' => 5]]];
        yield 'no picture' => ['/values/photo/width', ['photo' => ['name' => 'p.jpg', 'height' => 3]]];
        yield 'no items' => ['/values/films', ['films' => 'x']];
        yield 'an item that cannot be' => ['/values/films/1/media', ['films' => [Make::film('a'), ['id' => 'b']]]];
        yield 'two items of one id' => ['/values/films/1/id', ['films' => [Make::film('a'), Make::film('a')]]];
        yield 'one that is put in between already' => ['/values/films', ['films' => [Make::film('extra')]]];
        yield 'a layout that cannot be' => ['/values/films/0/layout/elements/0/kind', ['films' => [['id' => 'a', 'duration_ms' => 5, 'layout' => Make::layout([['id' => 'x', 'kind' => 'y']])]]]];
    }

    public function testNamesThatMeanNothing(): void
    {
        $names = static fn (array $values, array $template): \Closure => static fn () => Filling::of(self::filled($values), Layout::fromArray($template))->checkNames(self::around());
        self::assertRefused('/values/photo/mark', $names(['photo' => ['mark' => 'none']], self::template()));
        self::assertRefused('/values/films/0/media/mark', $names(['films' => [['id' => 'i', 'media' => ['mark' => 'none'], 'duration_ms' => 5]]], self::template()));
        $choice = self::SLOTS[6];
        $choice['options'][1]['set'][0]['value'] = '@none';
        self::assertRefused('/slots/0/options/1/set/0/value', $names([], self::template([$choice])));
        self::assertRefused('/slots/0/options/1/set/0/value', static fn () => Composer::compose(Layout::fromArray(self::template([$choice])), null, self::around()));
        $choice['options'][1]['set'][0] = ['element' => 'head', 'field' => 'style/plate', 'value' => ['color' => '@none', 'px' => 3]];
        self::assertRefused('/slots/0/options/1/set/0/value/color', $names([], self::template([$choice])));
        self::assertRefused('/slots/0/default/mark', $names([], self::template([self::SLOTS[2] + ['default' => ['mark' => 'none']]])));
        $named = ['style' => ['color' => '@sea', 'size_px' => 9]] + Make::told('t', 'x', message: false);
        self::assertRefused('/elements/0/style/color', static fn () => PlainLayout::checkPlain(Make::layout([$named])));
        self::assertRefused('/elements/0/playlist/items/0/layout/background/color', static fn () => PlainLayout::checkPlain(
            Make::layout([Make::zone('z', 0, 0, 9, 9, [['id' => 'i', 'layout' => ['background' => ['color' => '@sea']] + Make::layout([]), 'duration_ms' => 5]])]),
        ));
    }

    public function testARefMayMeanWhatWasFilledIn(): void
    {
        $filled = self::filled(['headline' => ['en' => 'Boats', 'pt' => 'Barcos']])->toArray();
        $library = Library::of([$filled, self::template()]);
        $outer = Layout::fromArray(Make::layout([Make::zone('z', 0, 0, 1920, 1080, [['id' => 'i', 'layout' => ['ref' => 'offer-1'], 'duration_ms' => 9000]])]));
        $around = self::around(new Speaking(null, ['pt']));
        self::assertContains('Barcos', self::said(Composer::compose($outer, $library, $around), $around));
        $played = Composer::over($library, $around)->played(Played::fromNode(Node::root(['layout' => 'offer-1'])), $outer->canvas);
        self::assertSame(['offer-1', 'Offer one'], [$played->id, $played->name]);
        self::assertRefused('/template', static fn () => Library::of([])->filledIn(Filled::fromArray($filled)));
        self::assertRefused('/elements/0/playlist/items/0/layout/ref', static fn () => Composer::compose($outer, Library::of([$filled]), $around));
        // A template within itself.
        $template = self::template();
        $template['elements'][5]['playlist']['items'] = [['id' => 'i', 'layout' => ['ref' => 'offer-1'], 'duration_ms' => 9000]];
        self::assertRefused('/elements/0/playlist/items/0/layout/ref', static fn () => Composer::compose($outer, Library::of([$filled, $template]), $around));
        $photo = self::filled(['photo' => ['id' => 'm9', 'name' => 'p', 'width' => 1, 'height' => 1]])->toArray();
        self::assertSame(['offer', 'm9'], [...Documents::named($filled)['designs'], ...Documents::named($photo)['media']]);
    }

    /** What is taken out of a template is open no more; what a variant shows is no template by itself. */
    public function testSlotsGoWithTheirElements(): void
    {
        $template = Layout::fromArray(self::template());
        $ids = static fn (Layout $layout): array => array_map(static fn ($slot): string => $slot->head()->id, $layout->slots);
        self::assertSame(['line', 'photo', 'price', 'day', 'offer', 'tone', 'films'], $ids($template->without('head')));
        self::assertSame([['badge']], array_values(array_filter(array_column($template->without('line')->toArray()['slots'], 'elements'))));
        self::assertSame(['headline', 'photo', 'price', 'day', 'tone', 'films'], $ids($template->without('badge', 'line')));
        self::assertSame(['photo', 'price', 'day', 'films'], $ids($template->without('badge', 'line', 'head')), 'a choice that sets nothing any more is none');
        self::assertSame([], $ids($template->withElements([])));
        self::assertSame($ids($template), $ids($template->restacked(['head'], 1)));
        $withVariant = $template->withVariant('v', $template->without('head'));
        self::assertSame([[], $ids($template), $ids($template)], [$ids($withVariant->seenAs('v')), $ids($withVariant->seenAs(null)), $ids($withVariant->putBack('v', $withVariant->seenAs('v')))]);
    }

    public function testManyAreFilledInAtOnce(): void
    {
        $rows = [
            ['name' => 'Tolm', 'fare' => 12.5, 'on' => Day::parse('2026-06-01'), 'at' => Instant::parse('2026-06-01T23:30:00Z'), 'open' => true, 'tone' => 'loud', 'none' => null],
            ['name' => "Long\nname", 'fare' => 1234.5, 'on' => null, 'at' => null, 'open' => false, 'tone' => 'calm', 'none' => null],
        ];
        $formats = new Formats('pt', 'Europe/Lisbon');
        $of = static fn (array $map, ?string $name = null): array => FilledRows::of(Layout::fromArray(self::template()), Node::at($map, '/map'), $name)->filled($rows, $formats, ['none' => 'nada']);
        $found = $of(['headline' => ['en' => 'name', 'pt' => 'Para {name}: {fare}'], 'price' => 'fare', 'day' => 'on', 'offer' => 'open', 'tone' => 'tone', 'line' => 'none'], 'To {name}');
        self::assertSame([
            ['format' => Filled::FORMAT, 'id' => 'offer-1', 'name' => 'To Tolm', 'template' => 'offer', 'values' => [
                'headline' => ['en' => 'Tolm', 'pt' => 'Para Tolm: 12,5'], 'price' => 12.5, 'day' => '2026-06-01', 'offer' => true, 'tone' => 'loud',
            ]],
            ['format' => Filled::FORMAT, 'id' => 'offer-2', 'name' => 'To Long name', 'template' => 'offer', 'values' => [
                'headline' => ['en' => "Long\nname", 'pt' => "Para Long\nname: 1.234,5"], 'price' => 1234.5, 'offer' => false, 'tone' => 'calm',
            ]],
        ], $found);
        self::assertSame('2026-06-02', $of(['day' => 'at'])[0]['values']['day'], 'the day on the clock of the place');
        self::assertSame(['12,5', 'Offer 1'], [$of(['line' => 'fare'])[0]['values']['line'], $of([])[0]['name']]);
        self::assertSame('nada', $of(['line' => '{none}'])[0]['values']['line']);
        foreach ($found as $one) {
            Filling::of(Filled::fromArray($one), Layout::fromArray(self::template()));
        }
        self::assertRefused('/map/colour', static fn () => $of(['colour' => 'name']));
        self::assertRefused('/map/line', static fn () => $of(['line' => '{']));
        self::assertRefused('/rows/0/price', static fn () => $of(['price' => 'name']));
        self::assertRefused('/rows/0/price', static fn () => $of(['price' => '{fare}']), 'what is told is a text');
        self::assertRefused('/rows/0/photo', static fn () => $of(['photo' => 'name']));
        self::assertRefused('/rows/0/headline/de', static fn () => $of(['headline' => ['de' => 'name']]));
    }

    /** The fewest words from the end: as many as have to go one by one. */
    public function testWordsTooManyAreCountedAsByHand(): void
    {
        $random = Make::random(17);
        $counts = [];
        for ($i = 0; $i < Make::rounds(60); $i++) {
            $words = array_map(static fn (): string => str_repeat('a', $random->getInt(1, 9)), range(1, $random->getInt(1, 12)));
            $text = implode([' ', "\n", '  '][$random->getInt(0, 2)], $words);
            $found = array_values(array_filter(
                Filling::of(self::filled(['headline' => $text]), Layout::fromArray($template = self::template()))->findings(self::around())->all,
                static fn (Finding $one): bool => $one->code === 'slot.long',
            ));
            for ($taken = 0; $text !== ''; $taken++) {
                $checked = Make::checked(Make::composed(self::plain(self::filled(['headline' => $text]), $template)), null, new Typewriter());
                if (array_filter($checked->all, static fn (Finding $one): bool => $one->code === 'text.overflow') === []) {
                    break;
                }
                $text = (string) preg_replace('/\s*\S+\s*$/D', '', $text);
            }
            self::assertSame($taken, $found[0]->measure['words'] ?? 0, implode(' ', $words));
            $counts[$taken] = true;
        }
        self::assertGreaterThan(4, count($counts));
    }

    /** As many letters as can be put behind a text one by one until it is found too long, with the words that are counted with. */
    public function testRoomIsCountedAsByHand(): void
    {
        $template = Layout::fromArray(self::template());
        $told = static fn (array $values): array => Filling::of(self::filled($values), $template)->room(self::around());
        $room = static fn (array $values): array => array_map(
            static fn (array $room): array => array_map(static fn (?array $one): ?int => $one['letters'] ?? null, $room),
            $told($values),
        );
        self::assertSame(['letters' => 37, 'words' => 6], $told([])['line'][''], 'a word takes six letters with the space behind it');
        $isLong = static fn (string $text): bool => in_array('slot.long', array_map(
            static fn (Finding $one): string => $one->code,
            Filling::of(self::filled(['headline' => $text]), $template)->findings(self::around())->all,
        ), true);
        // 190 px hold nine letters of 20 px on a line, and 50 px one line.
        self::assertSame(['headline' => ['en' => 9, 'pt' => 9], 'line' => ['' => 18 + 19]], $room([]));
        self::assertSame(['en' => 4, 'pt' => 9], $room(['headline' => ['en' => 'Boats']])['headline']);
        self::assertSame(['en' => 0, 'pt' => 0], $room(['headline' => 'Boats on the water'])['headline'], 'none where it is too long');
        foreach (['', 'a', 'Boat', 'Boats at', 'Boats '] as $text) {
            $left = $room(['headline' => $text])['headline']['en'];
            $more = (preg_match('/\S$/', $text) === 1 ? ' ' : '') . 'nnnnn nnnnn nnnnn';
            self::assertFalse($isLong($text . substr($more, 0, $left)), "$text and $left");
            self::assertTrue($isLong($text . substr($more, 0, $left + 1)) || preg_match('/\s$/', $text . substr($more, 0, $left + 1)) === 1, "$text and $left are not all");
        }
        $unknown = self::template();
        $unknown['elements'][0]['style']['family'] = 'Barlow';
        self::assertNull(Filling::of(self::filled([]), Layout::fromArray($unknown))->room(self::around())['headline']['en'], 'nobody can measure it');
    }

    public function testATemplateIsLookedAtBeforeAnybodyFillsItIn(): void
    {
        $template = Layout::fromArray(self::template());
        $seen = static function (Sample $sample) use ($template): array {
            $sampled = Filling::sample($template, $sample, self::around());
            $plain = PlainLayout::of($sampled->layout(new Speaking()), self::around());
            $elements = array_column($plain['elements'], null, 'id');
            $codes = array_map(static fn (Finding $one): string => $one->code, $sampled->findings(self::around())->all);

            return [$elements['head']['text'], $elements['line']['text'], $elements['fare']['text'], $elements['badge']['hidden'] ?? false, $codes];
        };
        self::assertSame(['Headline', '–', 'From – on –', false, ['slot.missing']], $seen(Sample::Nothing));
        self::assertSame(['Headline', '–', 'From 0.00 on 5/1/26', true, []], $seen(Sample::Least));
        self::assertSame(['Headline', 'Line Line Line Line Line Line Line Line', 'From 999.00 on 9/30/26', false, []], $seen(Sample::Longest), 'as many words as fit, and never more');
    }

    /** In a variant as many words fit as have room there, of what is seen there. */
    public function testATemplateIsLookedAtInItsVariants(): void
    {
        $template = self::template();
        $place = static fn (int $width): array => ['rect' => ['x' => 0, 'y' => 0, 'width' => $width, 'height' => 50]];
        $template['variants'] = [['id' => 'wide', 'canvas' => ['width' => 1920, 'height' => 540], 'places' => ['head' => $place(400), 'line' => $place(100)]]];
        $sampled = Filling::sample(Layout::fromArray($template), Sample::Longest, self::around(), 'wide');
        $plain = PlainLayout::of($sampled->layout(new Speaking()), self::around());
        self::assertSame([['head', 'line'], 'Headline Headline', 1920], [array_column($plain['elements'], 'id'), $plain['elements'][0]['text'], $plain['canvas']['width']]);
        self::assertSame([], $sampled->findings(self::around())->all, 'what fits is not too long');
    }

    public function testWhatAMessageTellsCanBeOpened(): void
    {
        $style = ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'];
        $elements = [
            Make::told('fare', '{n, plural, one {# place for {price}} other {# places}} call {place_phone}, {price}', 900, 60, style: $style),
            Make::told('plain', 'no {price}', 900, 60, message: false, style: $style),
            Make::told('rows', '{to}', 900, 60, style: $style, rows: ['source' => 'sailings']),
        ];
        self::assertSame(['fare' => ['n', 'price']], Slots::arguments(Layout::fromArray(Make::layout($elements))->elements));
    }

    public function testARevisionIsTakenOverWithAllThatItStillTakes(): void
    {
        $filled = self::filled(['headline' => ['en' => 'Boats', 'pt' => 'Barcos'], 'price' => 18.5, 'offer' => true, 'tone' => 'loud']);
        $slots = array_values(array_filter(self::SLOTS, static fn (array $slot): bool => $slot['id'] !== 'offer'));
        $slots[0]['languages'] = ['en'];
        [$document, $left] = $filled->takenOver(Layout::fromArray(self::template($slots)), 7);
        self::assertSame([['price' => 18.5, 'tone' => 'loud'], 7, ['headline', 'offer']], [$document['values'], $document['template_revision'], $left]);
        [$document, $left] = $filled->takenOver(Layout::fromArray(self::template()), 2);
        self::assertSame([$filled->toArray()['values'], []], [$document['values'], $left]);
        self::assertSame(['offer', 7], Filled::pinned(['format' => Filled::FORMAT, 'template' => 'offer', 'template_revision' => 7]));
        self::assertNull(Filled::pinned($filled->toArray()));
    }

    /** What was filled into a revision goes by that, beside what goes by the latest. */
    public function testEachGoesByItsRevision(): void
    {
        $then = self::template();
        $then['elements'][4]['fill'] = '#111111';
        $of = static fn (?int $revision): array => ['format' => Filled::FORMAT, 'id' => "r$revision", 'name' => 'x', 'template' => 'offer', 'values' => []]
            + ($revision === null ? [] : ['template_revision' => $revision]);
        $library = Library::of([self::template(), $of(1), $of(2), $of(null)], templates: ['offer' => [1 => $then]]);
        $fill = static fn (string $id): mixed => array_column($library->filling($id)?->layout(new Speaking())->toArray()['elements'] ?? [], null, 'id')['badge']['fill'];
        self::assertSame(['#111111', '#00ff00', '#00ff00'], [$fill('r1'), $fill('r2'), $fill('r')]);
    }

    /**
     * @param ?list<array<string, mixed>> $slots
     * @return Doc
     */
    private static function template(?array $slots = null): array
    {
        $style = ['family' => Typewriter::FAMILY, 'size_px' => 40, 'color' => '#ffffff'];
        $elements = [
            Make::told('head', 'Headline', 190, 50, message: false, style: $style, marks: [['from' => 0, 'to' => 4, 'color' => '#ff0000']]),
            Make::told('line', '{price}', 190, 50, style: $style, overflow: 'shrink', least_px: 20),
            Make::told('fare', 'From {price} on {day}', 900, 60, style: $style),
            ['id' => 'hero', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 200, 'width' => 400, 'height' => 200], 'fit' => 'cover']
                + ['media' => ['name' => 'sea.jpg', 'width' => 400, 'height' => 200], 'crop' => ['x' => 0, 'y' => 0, 'width' => 200, 'height' => 100]],
            ['id' => 'badge', 'kind' => 'shape', 'rect' => ['x' => 900, 'y' => 0, 'width' => 90, 'height' => 90], 'fill' => '#00ff00'],
            ['playlist' => ['items' => [Make::picture('a')], 'interleave' => ['every' => 2, 'items' => [Make::picture('extra')]]]] + Make::zone('main', 0, 600, 400, 225),
        ];

        return array_replace(Make::layout($elements, id: 'offer'), ['name' => 'Offer', 'slots' => $slots ?? self::SLOTS]);
    }

    /** @param array<string, mixed> $values */
    private static function filled(array $values): Filled
    {
        return Filled::fromArray(['format' => Filled::FORMAT, 'id' => 'offer-1', 'name' => 'Offer one', 'template' => 'offer', 'values' => $values]);
    }

    /**
     * @param Doc $template
     * @return Doc
     */
    private static function plain(Filled $filled, array $template, Speaking $speaking = new Speaking()): array
    {
        return PlainLayout::of(Filling::of($filled, Layout::fromArray($template))->layout($speaking), self::around($speaking));
    }

    /**
     * @param Doc $template
     * @return list<string>
     */
    private static function codes(Filled $filled, array $template): array
    {
        return array_values(array_filter(
            array_map(static fn (Finding $one): string => $one->code, Filling::of($filled, Layout::fromArray($template))->findings(self::around())->all),
            static fn (string $code): bool => $code === 'slot.missing',
        ));
    }

    private static function around(Speaking $speaking = new Speaking()): Surroundings
    {
        return (new Surroundings('UTC', new Typewriter()))->styled(self::styles())->speaking($speaking);
    }

    private static function styles(): Styles
    {
        return Styles::of(HouseStyle::fromArray([
            'format' => HouseStyle::FORMAT, 'id' => 's', 'name' => 'S', 'colours' => ['sand' => '#f5e6b8'], 'faces' => ['head' => ['family' => 'Barlow', 'weight' => 600]],
            'sizes' => ['line' => ['share' => 0.05]], 'marks' => ['logo' => ['id' => 'm1', 'name' => 'logo.svg', 'width' => 400, 'height' => 200]],
        ]));
    }

    /** @return list<string> */
    private static function said(\UpperPane\Core\Layout\Composed $layout, Surroundings $around): array
    {
        return array_map(static fn ($thing): string => $thing->part->look['text'] ?? '', Make::shownAt($layout, 0, $around)->at(0)->things);
    }

    private static function assertRefused(string $path, \Closure $done, string $message = ''): void
    {
        try {
            $done();
        } catch (Refused $e) {
            self::assertSame($path, $e->path, $e->getMessage());

            return;
        }
        self::fail("$path is taken. $message");
    }
}
