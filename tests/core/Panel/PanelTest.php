<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Panel;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Panel\Panel;

/** An operator's panel, `upper-pane/panel@1`. */
final class PanelTest extends TestCase
{
    private const PANEL = ['format' => Panel::FORMAT, 'id' => 'hall', 'name' => 'Hall', 'groups' => [
        ['name' => 'Wall', 'keys' => [
            ['id' => 'storm', 'name' => 'Storm', 'display' => 'wall', 'plays' => ['layout' => 'storm'], 'zone' => 'main', 'for_min' => 30, 'press' => '1', 'colour' => '@sea'],
            ['id' => 'desk', 'name' => 'Desk hours', 'display' => 'wall', 'signal' => 'desk', 'press' => 'F2', 'fields' => ['from', 'to']],
        ]],
        ['name' => '', 'keys' => [['id' => 'film', 'name' => 'Film', 'display' => 'post', 'plays' => ['media' => 'm7'], 'colour' => '#204060']]],
    ]];

    public function testItIsReadAndFitsTheSchema(): void
    {
        $panel = Panel::fromArray(self::PANEL);
        self::assertSame(['storm', 'desk', 'film'], array_keys($panel->keys));
        [$storm, $desk, $film] = array_values($panel->keys);
        self::assertSame(['wall', 'main', 30, '1', '@sea', null, ['layout' => 'storm']], [
            $storm->display, $storm->zone, $storm->forMin, $storm->press, $storm->colour, $storm->signal, $storm->plays?->toArray(),
        ]);
        self::assertSame(['desk', null, null, 'F2', ['from', 'to']], [$desk->signal, $desk->plays, $desk->forMin, $desk->press, $desk->fields]);
        self::assertSame([null, null, null, 'm7'], [$film->zone, $film->forMin, $film->press, $film->plays?->id]);
        self::assertTrue(self::fits(self::PANEL));
    }

    /** @param array<string, mixed> $key what is another in the first key; null for left out */
    #[DataProvider('wrong')]
    public function testRefuses(array $key, string $path, bool $isInSchema = true): void
    {
        $panel = self::PANEL;
        $panel['groups'][0]['keys'][0] = array_filter($key + $panel['groups'][0]['keys'][0], static fn (mixed $one): bool => $one !== null);
        self::assertSame(!$isInSchema, self::fits($panel));
        try {
            Panel::fromArray($panel);
            self::fail('It was read.');
        } catch (DocumentRefused $e) {
            self::assertSame('/groups/0/keys' . $path, $e->path);
        }
    }

    /** @return iterable<string, array{array<string, mixed>, string, 2?: bool}> */
    public static function wrong(): iterable
    {
        yield 'nothing to do' => [['plays' => null, 'zone' => null, 'for_min' => null], '/0', false];
        yield 'two things to do' => [['signal' => 'desk'], '/0', false];
        yield 'a zone for a signal' => [['plays' => null, 'for_min' => null, 'signal' => 'desk'], '/0/zone', false];
        yield 'a length for a signal' => [['plays' => null, 'zone' => null, 'signal' => 'desk'], '/0/for_min', false];
        yield 'rows for what plays' => [['fields' => ['to']], '/0/fields', false];
        yield 'no time at all' => [['for_min' => 0], '/0/for_min'];
        yield 'a key of several signs' => [['press' => 'ab'], '/0/press'];
        yield 'a key that nobody has' => [['press' => 'F13'], '/0/press'];
        yield 'the name of another key' => [['id' => 'desk'], '/1/id', false];
        yield 'the key of another, in another case' => [['press' => 'f2'], '/0/press'];
        yield 'a display that has no name' => [['display' => ''], '/0/display'];
        yield 'something unknown' => [['sound' => true], '/0/sound'];
    }

    public function testTwoKeysArePressedByDifferentSigns(): void
    {
        $panel = self::PANEL;
        $panel['groups'][1]['keys'][0]['press'] = '1';
        $this->expectExceptionObject(DocumentRefused::because(\UpperPane\Core\Document\Reason::ValueRange, '/groups/1/keys/0/press is "1", which presses "Storm" already.', ''));
        Panel::fromArray($panel);
    }

    /** @param array<string, mixed> $panel */
    private static function fits(array $panel): bool
    {
        $validator = new Validator();
        $validator->resolver()?->registerPrefix('https://upper-pane.invalid/formats/', dirname(__DIR__, 3) . '/docs/formats');

        return $validator->validate(json_decode((string) json_encode($panel)), 'https://upper-pane.invalid/formats/panel.schema.json')->isValid();
    }
}
