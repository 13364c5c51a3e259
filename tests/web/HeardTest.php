<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Sensor;
use UpperPane\Tests\Core\Make;

/** What is learnt at a sensor (web/src/Display/heard.ts) is a survey that the core reads, and means what was chosen. */
final class HeardTest extends TestCase
{
    private const SENSORS = [['id' => 's1', 'kind' => 'presence', 'bands_mm' => [1000, 2000]], ['id' => 'b1', 'kind' => 'buttons', 'buttons' => ['help', 'back']]];

    public function testAButtonIsOneOfThoseThatAreKnownOrOneOfItsOwn(): void
    {
        $choices = $this->choices(['sensor' => 'b1', 'button' => '7']);
        self::assertSame(['a button called “7”', 'it is “help”', 'it is “back”'], array_column($choices, 'text'));
        self::assertSame(['help', 'back', '7'], self::read($choices[0]['sensors'])['b1']->buttons);
        self::assertSame('help', self::read($choices[1]['sensors'])['b1']->named('7'));
        // Once it is known there is nothing to choose; and what means one already is offered for no other.
        self::assertSame([], $this->choices(['sensor' => 'b1', 'button' => '7'], $choices[1]['sensors']));
        self::assertSame(['a button called “8”', 'it is “back”'], array_column($this->choices(['sensor' => 'b1', 'button' => '8'], $choices[1]['sensors']), 'text'));
        self::assertSame([], $this->choices(['sensor' => 'b1', 'button' => 'help']));
    }

    public function testASensorThatNobodySurveyedIsTakenForWhatItSays(): void
    {
        [$box] = $this->choices(['sensor' => 'box', 'button' => '7']);
        self::assertSame([Sensor::BUTTONS, ['7']], [self::read($box['sensors'])['box']->kind, self::read($box['sensors'])['box']->buttons]);
        [$far] = $this->choices(['sensor' => 's2', 'mm' => 830]);
        self::assertSame(2, self::read($far['sensors'])['s2']->bandOf(830));
        [$keys] = $this->choices(['key' => 'F2']);
        self::assertSame(Sensor::KEYS, self::read($keys['sensors'])['keys']->kind);
        self::assertSame([], $this->choices(['sensor' => 'a name / of nonsense', 'mm' => 5]));
    }

    public function testWhatIsLackingIsSaid(): void
    {
        $said = [
            ['sensor' => 's1', 'mm' => 500], ['sensor' => 's1', 'band' => 2], ['sensor' => 's1', 'band' => 3], ['sensor' => 's1', 'button' => 'x'], ['sensor' => 'gone', 'band' => 1],
            ['sensor' => 'b1', 'button' => 'help'], ['sensor' => 'b1', 'button' => '9'], ['key' => 'F2'], ['touch' => '{"x":1}'],
        ];
        self::assertSame(
            [null, null, 'no band 3', '“s1” has no buttons', 'no sensor “gone”', null, 'no button “9”', 'no sensor of keys', null],
            (new Module('Display/heard.ts'))->calls(array_values(array_map(static fn (array $one): array => ['lackOf', [self::SENSORS, self::heard($one)]], $said))),
        );
    }

    /**
     * @param array<string, mixed> $said
     * @param list<array<string, mixed>> $sensors
     * @return list<array{text: string, sensors: list<array<string, mixed>>}>
     */
    private function choices(array $said, array $sensors = self::SENSORS): array
    {
        $choices = (new Module('Display/heard.ts'))->call('choicesFor', $sensors, self::heard($said));

        return is_array($choices) ? array_values($choices) : [];
    }

    /**
     * @param array<string, mixed> $said
     * @return array<string, mixed>
     */
    private static function heard(array $said): array
    {
        return ['said' => $said, 'last' => '2026-06-01T09:00:00Z', 'times' => 1, 'known' => false];
    }

    /**
     * @param list<array<string, mixed>> $sensors
     * @return array<string, Sensor>
     */
    private static function read(array $sensors): array
    {
        return array_column(Display::fromArray(['sensors' => $sensors] + Make::display(1920, 1080))->sensors, null, 'id');
    }
}
