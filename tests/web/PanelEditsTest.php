<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Panel\Panel;
use UpperPane\Tests\Core\Make;

/** What hands do to a panel (web/src/Trigger/panels.ts), and where a key is (web/src/panel/panel.ts). */
final class PanelEditsTest extends TestCase
{
    /** However often keys are moved, added and taken out: it is read by the core, and no key is lost or there twice. */
    public function testKeysAreMovedAddedAndTakenOut(): void
    {
        $random = Make::random(71);
        $panel = ['format' => Panel::FORMAT, 'id' => 'p', 'name' => 'P', 'groups' => [['name' => 'A', 'keys' => []], ['name' => 'B', 'keys' => []], ['name' => 'C', 'keys' => []]]];
        $module = new Module('Trigger/panels.ts');
        for ($n = 0, $count = 0; $n < 4; $n++, $count += 3) {
            foreach ([[$n % 3, ['plays' => ['layout' => 'l']], 'Storm'], [2, ['signal' => 's'], 'Desk'], [0, ['signal' => 's'], 'Storm']] as [$group, $does, $name]) {
                $panel = $module->call('added', $panel, $group, 'wall', $does, $name);
            }
        }
        for ($round = 0; $round < Make::rounds(12); $round++) {
            $ids = array_keys(Panel::fromArray($panel)->keys);
            $calls = array_map(static fn (string $id): array => ['moved', [$panel, $id, $random->getInt(0, 1) === 0 ? 1 : -1]], $ids);
            foreach ($module->calls($calls) as $at => $after) {
                $there = array_keys(Panel::fromArray($after)->keys);
                self::assertEqualsCanonicalizing($ids, $there);
                // Only where it stood at the very edge does it stay.
                $isAtEdge = $after === $panel;
                self::assertSame($isAtEdge, $there === $ids && array_column($after['groups'], 'keys') === array_column($panel['groups'], 'keys'), $ids[$at]);
            }
            $panel = $module->call('moved', $panel, $ids[$random->getInt(0, count($ids) - 1)], $random->getInt(0, 1) === 0 ? 1 : -1);
        }
        $without = $module->call('without', $panel, 'storm');
        self::assertSame([false, $count - 1], [isset(Panel::fromArray($without)->keys['storm']), count(Panel::fromArray($without)->keys)]);
        $changed = $module->call('withKey', $panel, 'storm-2', ['press' => '1', 'colour' => '#112233']);
        self::assertSame(['1', '#112233'], [Panel::fromArray($changed)->keys['storm-2']->press, Panel::fromArray($changed)->keys['storm-2']->colour]);
    }

    /** Nothing stands because somebody pressed: only because the player says so. */
    public function testAKeyIsOnOnceThePlayerSaysSo(): void
    {
        $shown = static fn (string $status, array $more = []): array => $more + ['status' => $status, 'answers' => [], 'asked' => null];
        $puts = ['id' => 'k', 'display' => 'wall', 'zone' => 'main', 'stands' => false];
        $asks = ['id' => 'k', 'display' => 'wall', 'signal' => 'go', 'map' => 'm'];
        $pressed = ['key' => 'k', 'id' => 'a', 'at' => 1000];
        $asked = static fn (bool $taken): array => ['asked' => ['id' => 'a', 'signal' => 'go', 'said_at' => '', 'said_by' => null, 'taken' => $taken]];
        $answers = static fn (string $why): array => ['answers' => [['map' => 'm', 'state' => 's', 'why' => $why, 'since' => '']]];
        $cases = [
            'nothing was pressed' => [$puts, $shown('plays'), null, 2000, 'off'],
            'pressed, and not handed over yet' => [$puts, $shown('plays'), $pressed, 2000, 'asked'],
            'handed over, and not there yet' => [['stands' => true] + $puts, $shown('changing'), $pressed, 2000, 'asked'],
            'there' => [['stands' => true] + $puts, $shown('plays'), null, 2000, 'on'],
            'nobody knows' => [['stands' => true] + $puts, $shown('silent'), null, 2000, 'lost'],
            'another key was pressed' => [$puts, $shown('plays'), ['key' => 'other'] + $pressed, 2000, 'off'],
            'asked for' => [$asks, $shown('plays', $asked(false)), $pressed, 2000, 'asked'],
            'asked for, and taken by nobody' => [$asks, $shown('plays', $asked(false)), $pressed, 12_000, 'lost'],
            'asked for at a silent player' => [$asks, $shown('silent', $asked(false)), $pressed, 2000, 'lost'],
            'taken and over already' => [$asks, $shown('plays', $asked(true) + $answers('lapse')), $pressed, 2000, 'off'],
            'taken and there' => [$asks, $shown('plays', $asked(true) + $answers('go')), $pressed, 2000, 'on'],
            'there because of another' => [$asks, $shown('plays', $asked(true) + $answers('far')), $pressed, 2000, 'off'],
            'a display of somebody else' => [$asks, null, $pressed, 2000, 'off'],
        ];
        $found = (new Module('panel/panel.ts'))->calls(array_values(array_map(static fn (array $one): array => ['stateOf', array_slice($one, 0, 4)], $cases)));
        self::assertSame(array_map(static fn (array $one): string => $one[4], $cases), array_combine(array_keys($cases), array_column($found, 'is')));
    }
}
