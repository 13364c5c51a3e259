<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Storage;

use UpperPane\App\Storage\Prune;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Who did what, and when. */
final class RecordTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testADesignFromItsMakingToItsReturnFromTheBin(): void
    {
        $layout = $this->made($this->whole($this->media()), 'Noon');
        $path = "/api/layouts/{$layout['id']}";
        $document = static fn (string $name): array => ['name' => $name] + $layout['document'];
        $save = fn (int $base, string $name, string ...$note): int
            => $this->ask('PUT', $path, ['base' => $base, 'document' => $document($name)] + array_filter(['note' => $note[0] ?? null]))[0];
        $save(1, 'Noon b');
        static::mockTime('+20 minutes');
        $save(2, 'Noon c');
        static::mockTime('+20 minutes');
        $save(3, 'Noon d');
        self::assertSame(409, $save(3, 'Late'));
        static::mockTime('+31 minutes');
        $save(4, 'Noon e');
        $save(5, 'Noon f', 'as agreed');
        $save(6, 'Noon g');
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $layout['id']], 'displays' => ['wide']]);
        self::assertSame(409, $this->ask('DELETE', $path)[0], 'what was refused is no act');
        $this->handOver(['source' => ['kind' => 'media', 'id' => 'pier'], 'displays' => ['wide']]);
        $this->ask('DELETE', $path);
        self::assertSame(['deleted it'], array_slice($this->says('layout', $layout['id']), 0, 1), 'also of what lies in the bin');
        $this->ask('POST', '/api/bin/' . $this->ask('GET', '/api/bin')[1]['binned'][0]['id'] . '/back');

        self::assertSame([
            'brought it back from the bin',
            'deleted it',
            'handed it over to Wide',
            'saved revision 7',
            'saved revision 6, as agreed',
            'saved revision 5',
            'saved too late: kept aside, based on revision 3',
            'saved revisions 2 to 4',
            'made it',
        ], $this->says('layout', $layout['id']));
        $acts = $this->ask('GET', "/api/record/layout/{$layout['id']}")[1]['acts'];
        self::assertSame(['ines', '2026-06-01T09:40:00Z'], [$acts[7]['who'], $acts[7]['at']], 'when it was done last');
        self::assertSame(array_slice($acts, 7), $this->ask('GET', "/api/record/layout/{$layout['id']}?before={$acts[6]['id']}")[1]['acts']);
    }

    public function testADisplay(): void
    {
        $wide = $this->ask('POST', '/api/displays/wide/copies', ['count' => 1])[1]['displays'][0]['id'];
        $document = $this->ask('GET', "/api/displays/$wide")[1]['document'];
        $save = fn (): array => $this->ask('PUT', "/api/displays/$wide", ['base' => 1, 'document' => ['name' => 'Side'] + $document]);
        self::assertSame([2, 2], [$save()[1]['revision'], $save()[1]['revision']], 'asked again: it had landed');
        $this->ask('POST', '/api/displays/move', ['displays' => [$wide, 'tall'], 'place' => 'gates']);
        $this->ask('POST', "/api/displays/$wide/alignment", ['minutes' => 5]);
        $this->ask('POST', "/api/displays/$wide/alignment", ['minutes' => 0]);
        $player = $this->ask('POST', '/api/players', ['code' => $this->ask('POST', '/api/pairing')[1]['code'], 'display' => $wide])[1]['id'];
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => [$wide]]);
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $this->made(Make::layout([]), 'Night')['id']], 'displays' => [$wide]]);
        $this->ask('POST', '/api/handover/back', ['releases' => [['display' => $wide, 'number' => 1]]]);
        $this->work();
        $this->ask('DELETE', "/api/players/$player");
        $this->ask('DELETE', "/api/players/$player");

        self::assertSame([
            'took the address of the player "Player of Side" back',
            'put "pier.png" back, release 1 as release 3',
            'handed over "Night" as release 2',
            'handed over "pier.png" as release 1',
            'bound the player "Player of Side"',
            'ended its alignment',
            'had it aligned for 5 min',
            'moved it from "Departure hall" to "Gates"',
            'saved revision 2',
            'made it as a copy of "Wide"',
        ], $this->says('display', $wide));
        self::assertSame([], $this->says('display', 'tall'), 'it hung there already');
        $who = array_column($this->ask('GET', "/api/record/display/$wide")[1]['acts'], 'who');
        self::assertSame(['ines'], array_values(array_unique($who)), 'also of what a job did for her');
    }

    public function testAPlaceAndAMedia(): void
    {
        $shop = $this->ask('POST', '/api/places', ['name' => 'Shop', 'parent' => 'hall'])[1]['id'];
        $this->ask('PUT', "/api/places/$shop", ['name' => 'Kiosk', 'parent' => 'gates', 'timezone' => 'UTC']);
        $this->ask('PUT', "/api/places/$shop", ['name' => 'Kiosk', 'parent' => 'gates', 'timezone' => 'UTC']);
        $this->ask('DELETE', "/api/places/$shop");
        self::assertSame([
            'deleted it',
            'changed it: named "Kiosk", before "Shop"; in "Gates", before in "Departure hall"; time zone UTC, before inherited',
            'made it',
        ], $this->says('place', $shop), 'what changes nothing is no act');
        $this->media();
        $this->ask('DELETE', '/api/media/pier');
        self::assertSame(['deleted it'], $this->says('media', 'pier'));
    }

    public function testWhatIsOldIsNotToldForEver(): void
    {
        $layout = $this->made(Make::layout([]))['id'];
        static::mockTime('+729 days');
        static::getContainer()->get(Prune::class)->run();
        $this->signIn();
        self::assertSame(['made it'], $this->says('layout', $layout));
        static::mockTime('+2 days');
        static::getContainer()->get(Prune::class)->run();
        self::assertSame([], $this->says('layout', $layout));
    }

    /** @return list<string> the last first */
    private function says(string $kind, string $id): array
    {
        return array_column($this->ask('GET', "/api/record/$kind/$id")[1]['acts'], 'says');
    }
}
