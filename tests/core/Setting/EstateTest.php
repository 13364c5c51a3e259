<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Setting;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Randomizer;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Setting\Estate;
use UpperPane\Tests\Core\Make;

/** Settings of places: the nearest decides, lists add up, and each value says where it comes from. */
final class EstateTest extends TestCase
{
    public function testTheExampleOfTheContract(): void
    {
        $estate = Estate::fromArray(['format' => Estate::FORMAT, 'id' => 'pellan', 'name' => 'Pellan Islands', 'places' => [
            ['id' => 'all', 'name' => 'Everywhere', 'settings' => [
                'timezone' => 'Europe/Lisbon', 'style' => 'pellan', 'languages' => ['en'], 'vars' => ['phone' => '555 0100'], 'overlays' => ['add' => ['logo']],
            ]],
            ['id' => 'vennick', 'name' => 'Vennick', 'parent' => 'all', 'settings' => [
                'timezone' => 'Atlantic/Azores', 'languages' => ['pt', 'en'], 'overlays' => ['add' => ['storm'], 'without' => ['logo']],
            ]],
        ], 'displays' => [['id' => 'pier-vennick', 'place' => 'vennick', 'settings' => ['vars' => ['berth' => '2'], 'tags' => ['portrait']]]]]);
        $told = $estate->at('pier-vennick')->toArray();
        self::assertSame(['value' => 'Atlantic/Azores', 'from' => 'vennick', 'instead_of' => [['from' => 'all', 'value' => 'Europe/Lisbon']]], $told['timezone']);
        self::assertSame(['value' => ['storm'], 'from' => ['vennick']], $told['overlays']);
        self::assertSame(['value' => '555 0100', 'from' => 'all', 'instead_of' => []], $told['vars.phone']);
        self::assertSame(['timezone', 'style', 'languages', 'vars.phone', 'vars.berth', 'overlays', 'tags'], array_keys($told), 'what nobody states is left out');
        self::assertArrayNotHasKey('tags', $estate->at('vennick')->toArray());
        self::assertSame([['pier-vennick'], [], ['pier-vennick'], []], array_map(static fn (array $of): array => $estate->reach(...$of), [
            ['all', 'vars.phone'], ['all', 'timezone'], ['vennick', 'overlays'], ['all', 'overlays'],
        ]));
        $at = $estate->at('pier-vennick');
        self::assertSame(['Atlantic/Azores', 'pellan', ['pt', 'en'], ['phone' => '555 0100', 'berth' => '2'], null], [$at->timezone(), $at->style(), $at->languages(), $at->vars(), $at->standby()]);
    }

    /** Over random trees, against an implementation that walks up from each place anew and knows nothing of this one. */
    public function testItIsAsWalkingUpTells(): void
    {
        $random = Make::random(19);
        $told = 0;
        for ($i = 0; $i < Make::rounds(60); $i++) {
            $document = self::random($random);
            $estate = Estate::fromArray($document);
            $byId = array_column([...$document['places'], ...$document['displays']], null, 'id');
            foreach (array_keys($byId) as $id) {
                $found = $estate->at((string) $id)->toArray();
                self::assertEquals(self::walked($byId, (string) $id), $found, "round $i at $id");
                $told += count($found);
            }
            foreach (['timezone', 'vars.a', 'languages', 'overlays', 'tags'] as $setting) {
                $place = (string) array_keys($byId)[$random->getInt(0, count($byId) - 1)];
                $comesFrom = static fn (string $id): bool => in_array($place, (array) (self::walked($byId, $id)[$setting]['from'] ?? []), true);
                $reached = array_values(array_filter(array_map(static fn (array $display): string => $display['id'], $document['displays']), $comesFrom));
                self::assertSame($reached, $estate->reach($place, $setting), "round $i, $setting of $place");
            }
        }
        self::assertGreaterThan(1000, $told);
    }

    /**
     * @param list<array<string, mixed>> $places
     * @param list<array<string, mixed>> $displays
     */
    #[DataProvider('wrong')]
    public function testWhatCannotBe(string $path, array $places, array $displays = []): void
    {
        try {
            Estate::fromArray(['format' => Estate::FORMAT, 'id' => 'e', 'name' => 'E', 'places' => $places, 'displays' => $displays]);
            self::fail("$path is taken");
        } catch (Refused $e) {
            self::assertSame($path, $e->path, $e->getMessage());
        }
    }

    /** @return iterable<string, array{0: string, 1: list<array<string, mixed>>, 2?: list<array<string, mixed>>}> */
    public static function wrong(): iterable
    {
        $place = static fn (string $id, ?string $parent = null, mixed ...$settings): array => ['id' => $id, 'name' => $id]
            + ($parent === null ? [] : ['parent' => $parent]) + ['settings' => $settings];
        yield 'a parent that is not there' => ['/places/1/parent', [$place('a'), $place('b', 'gone')]];
        yield 'a display as a parent' => ['/places/0/parent', [$place('a', 'd')], [['id' => 'd', 'place' => 'a']]];
        yield 'itself' => ['/places/0/parent', [$place('a', 'a')]];
        yield 'a circle, not what hangs on it' => ['/places/1/parent', [$place('x', 'a'), $place('a', 'c'), $place('b', 'a'), $place('c', 'b')]];
        yield 'the first of two circles' => ['/places/1/parent', [$place('r'), $place('a', 'b'), $place('c', 'd'), $place('b', 'a'), $place('d', 'c')]];
        yield 'a display of the id of a place' => ['/displays/0/id', [$place('a')], [['id' => 'a', 'place' => 'a']]];
        yield 'two places of one id' => ['/places/1/id', [$place('a'), $place('a')]];
        yield 'a display nowhere' => ['/displays/0/place', [$place('a')], [['id' => 'd', 'place' => 'gone']]];
        yield 'a setting that is none' => ['/places/0/settings/colour', [$place('a', colour: 'red')]];
        yield 'null' => ['/places/0/settings/style', [$place('a', style: null)]];
        yield 'tags of a place' => ['/places/0/settings/tags', [$place('a', tags: ['x'])]];
        yield 'no zone' => ['/places/0/settings/timezone', [$place('a', timezone: 'Tolm')]];
        yield 'no language' => ['/places/0/settings/languages/1', [$place('a', languages: ['en', 'english please'])]];
        yield 'a var with a capital' => ['/places/0/settings/vars/Phone', [$place('a', vars: ['Phone' => 'x'])]];
        yield 'a var that is neither text nor number' => ['/places/0/settings/vars/phone', [$place('a', vars: ['phone' => true])]];
        yield 'a standby of nothing' => ['/places/0/settings/standby', [$place('a', standby: new \stdClass())]];
        yield 'a list that is no change' => ['/places/0/settings/overlays', [$place('a', overlays: ['logo'])]];
        yield 'an id that is none' => ['/places/0/settings/triggers/add/0', [$place('a', triggers: ['add' => ['x y']])]];
    }

    /** @return array{format: string, id: string, name: string, places: list<array<string, mixed>>, displays: list<array<string, mixed>>} */
    private static function random(Randomizer $random): array
    {
        $pick = static fn (mixed ...$of): mixed => $of[$random->getInt(0, count($of) - 1)];
        $ids = static fn (): array => array_values(array_unique(array_map(static fn (): mixed => $pick('o1', 'o2', 'o3', '4'), range(0, $random->getInt(0, 2)))));
        $settings = static function (bool $isDisplay) use ($random, $pick, $ids): array {
            $all = [
                'timezone' => $pick('Europe/Lisbon', 'Atlantic/Azores'), 'style' => $pick('day', 'night'), 'languages' => $pick(['en'], ['pt', 'en'], []), 'standby' => ['layout' => $pick('l1', 'l2')],
                'vars' => array_filter(['a' => $pick('1', 2, null), 'b' => $pick('x', null, 1.5)], static fn (mixed $value): bool => $value !== null),
                'overlays' => array_filter(['only' => $pick(null, null, $ids()), 'without' => $pick(null, $ids()), 'add' => $ids()], static fn (mixed $value): bool => $value !== null),
                'triggers' => ['add' => $ids()],
            ] + ($isDisplay ? ['tags' => ['x']] : []);

            return array_filter($all, static fn (): bool => $random->getInt(0, 2) === 0);
        };
        [$places, $displays] = [[], []];
        for ($n = 0, $count = $random->getInt(1, 9); $n < $count; $n++) {
            // Parents stand before and behind their places.
            $places[] = ['id' => "p$n", 'name' => "P$n", 'settings' => $settings(false)] + ($n === 0 || $random->getInt(0, 5) === 0 ? [] : ['parent' => 'p' . $random->getInt(0, $n - 1)]);
        }
        for ($n = 0, $count = $random->getInt(0, 8); $n < $count; $n++) {
            $displays[] = ['id' => $n === 3 ? '3' : "d$n", 'place' => 'p' . $random->getInt(0, count($places) - 1), 'settings' => $settings(true)];
        }

        return ['format' => Estate::FORMAT, 'id' => 'e', 'name' => 'E', 'places' => $random->shuffleArray($places), 'displays' => $displays];
    }

    /**
     * @param array<array-key, array<string, mixed>> $byId places and displays
     * @return array<string, array<string, mixed>>
     */
    private static function walked(array $byId, string $id): array
    {
        $way = [];
        for ($at = $id; $at !== null; $at = $byId[$at]['place'] ?? $byId[$at]['parent'] ?? null) {
            $way[] = $at;
        }
        $told = [];
        foreach ($way as $place) {
            $settings = $byId[$place]['settings'];
            $single = array_intersect_key($settings, array_flip(['timezone', 'style', 'languages', 'standby']));
            foreach ($settings['vars'] ?? [] as $name => $value) {
                $single["vars.$name"] = $value;
            }
            foreach ($single as $name => $value) {
                isset($told[$name]) ? $told[$name]['instead_of'][] = ['from' => $place, 'value' => $value] : $told[$name] = ['value' => $value, 'from' => $place, 'instead_of' => []];
            }
        }
        foreach (['overlays', 'triggers'] as $name) {
            $list = [];
            foreach (array_reverse($way) as $place) {
                $change = $byId[$place]['settings'][$name] ?? null;
                if ($change === null) {
                    continue;
                }
                $told[$name] = [];
                $list = isset($change['only']) ? array_map(static fn (string $one): array => [$one, $place], $change['only']) : $list;
                $list = array_values(array_filter($list, static fn (array $one): bool => !in_array($one[0], $change['without'] ?? [], true)));
                foreach ($change['add'] ?? [] as $one) {
                    in_array($one, array_column($list, 0), true) ? null : $list[] = [$one, $place];
                }
                $told[$name] = ['value' => array_column($list, 0), 'from' => array_column($list, 1)];
            }
        }

        return $told + (isset($byId[$id]['settings']['tags']) ? ['tags' => ['value' => $byId[$id]['settings']['tags'], 'from' => $id, 'instead_of' => []]] : []);
    }
}
