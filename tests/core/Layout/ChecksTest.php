<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Layout;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Display\Survey;
use UpperPane\Core\Finding\Finding;
use UpperPane\Core\Finding\Level;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Layout\Checks;
use UpperPane\Core\Playback\Base;
use UpperPane\Core\Time\Schedule\ScheduleChecks;
use UpperPane\Tests\Core\Make;

/** @phpstan-import-type Doc from Make */
final class ChecksTest extends TestCase
{
    /** A division that adds up, and the same with the footer entered wrong. Common practice, no source. */
    public function testAFooterThatAddsUpIsClean(): void
    {
        self::assertSame([], $this->told(Make::harbour()));
    }

    public function testAFooterEnteredTooHighIsOutsideAndItsSumSaysSo(): void
    {
        $told = $this->told(Make::harbour(864, 864));

        self::assertSame([
            'warning element.outside "foot" goes beyond the canvas by 648 px at the bottom.',
            'warning zone.sum 864 + 864 = 1728 px, the canvas is 1080 px high: 648 px too many',
        ], $told);
    }

    public function testAFooterEnteredTooHighAndMovedUpOverlapsBothZones(): void
    {
        $told = $this->told(Make::harbour(216, 864));

        self::assertContains('warning zone.overlap Zones "main" and "foot" overlap by 1344 x 648 px.', $told);
        self::assertContains('warning zone.overlap Zones "side" and "foot" overlap by 576 x 648 px.', $told);
        self::assertContains('warning zone.sum 864 + 864 = 1728 px, the canvas is 1080 px high: 648 px too many', $told);
    }

    public function testARecipeThatSaysOtherwiseIsTold(): void
    {
        $recipe = ['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'areas' => ['main side', 'foot foot']];
        self::assertSame([], $this->told(Make::harbour() + ['recipe' => $recipe]));
        self::assertContains(
            'warning recipe.differs "foot" is 1920 x 206 px at 0, 874; the recipe says 1920 x 216 px at 0, 864.',
            $this->told(Make::harbour(874, 206) + ['recipe' => $recipe]),
        );
        self::assertContains(
            'warning recipe.differs The recipe has an area "aside", and no element is called so.',
            $this->told(Make::harbour() + ['recipe' => ['areas' => ['main side', 'foot aside']] + $recipe]),
        );
        self::assertStringContainsString('The recipe does not fit this canvas.', implode($this->told(Make::harbour() + ['recipe' => ['rows' => '2000px 1fr'] + $recipe])));
    }

    public function testEveryFixOfARectangleCuresItsFinding(): void
    {
        $broken = [
            Make::harbour(864, 864),
            Make::harbour(216, 864),
            Make::layout([Make::zone('a', 0, 0, 958, 1080), Make::zone('b', 960, 0, 960, 1080)]),
            Make::layout([Make::zone('a', 0, 0, 962, 1080), Make::zone('b', 960, 0, 960, 1080)]),
            Make::layout([Make::zone('a', 3, 2, 1916, 1077)]),
            Make::harbour(874, 206) + ['recipe' => ['columns' => '7fr 3fr', 'rows' => '4fr 1fr', 'areas' => ['main side', 'foot foot']]],
        ];
        $cured = 0;
        foreach ($broken as $document) {
            foreach ($this->findings($document) as $finding) {
                $change = $finding->cure()?->toArray() ?? [];
                if (!isset($change['rect'])) {
                    continue;
                }
                $repaired = $document;
                foreach ($document['elements'] as $index => $element) {
                    if ($element['id'] === $change['element']) {
                        $repaired['elements'][$index]['rect'] = $change['rect'];
                    }
                }
                self::assertNotContains($finding->message, array_map(static fn (Finding $f): string => $f->message, $this->findings($repaired)));
                $cured++;
            }
        }
        self::assertGreaterThan(8, $cured);
    }

    /**
     * @param Doc $document
     * @param list<string> $told
     * @param ?Doc $display
     */
    #[DataProvider('designs')]
    public function testTells(array $document, array $told, ?array $display = null): void
    {
        self::assertSame($told, $this->told($document, $display));
    }

    /** @return iterable<string, array{0: Doc, 1: list<string>, 2?: Doc}> */
    public static function designs(): iterable
    {
        $whole = static fn (array ...$items): array => Make::layout([Make::zone('a', 0, 0, 1920, 1080, array_values($items))]);
        yield 'an empty canvas has nothing to say' => [Make::layout([]), []];
        yield 'a zone with nothing to play' => [$whole(), ['stop zone.empty Zone "a" has nothing to play.']];
        yield 'a zone with all switched off' => [$whole(Make::picture('i1', 1920, 1080, enabled: false)), ['stop zone.empty All items of zone "a" are switched off.']];
        yield 'a zone that nobody will see' => [
            Make::layout([Make::zone('a', 0, 0, 1920, 1080), Make::zone('b', 2000, 0, 100, 100)]),
            ['stop element.outside "b" lies wholly outside the canvas of 1920 x 1080 px.'],
        ];
        yield 'a zone in a zone is an inset, and left out of the sums' => [
            Make::layout([Make::zone('a', 0, 0, 1920, 1080), Make::zone('b', 100, 100, 300, 200)]),
            ['hint zone.overlap Zone "b" lies wholly inside zone "a".'],
        ];
        yield 'a gap of 2 px' => [
            Make::layout([Make::zone('a', 0, 0, 958, 1080), Make::zone('b', 960, 0, 960, 1080)]),
            [
                'warning zone.sum 958 + 960 = 1918 px, the canvas is 1920 px wide: 2 px too few',
                'warning zone.sliver Zones "a" and "b" are apart by 2 px.',
                'hint zone.uncovered Nothing covers 2 x 1080 px at 958, 0: the background shows.',
            ],
        ];
        yield 'a picture that covers the rest' => [
            Make::layout([
                Make::zone('a', 0, 0, 1920, 880),
                ['id' => 'p', 'kind' => 'picture', 'rect' => ['x' => 0, 'y' => 880, 'width' => 1920, 'height' => 200], 'media' => Make::picture('p', 1920, 200)['media']],
            ]),
            ['warning zone.sum 880 px, the canvas is 1080 px high: 200 px too few'],
        ];
        yield 'a picture that loses an eighth' => [
            $whole(Make::picture('i1', 1920, 1234, fit: 'cover')),
            ['hint item.aspect "i1.png" (1920 x 1234 px) loses 12 % of its area in "a" (1920 x 1080 px, cover).'],
        ];
        yield 'a portrait picture on a landscape zone' => [
            $whole(Make::picture('i1', 1080, 1920)),
            ['warning item.aspect "i1.png" (1080 x 1920 px) leaves 68 % of the box empty in "a" (1920 x 1080 px, contain).'],
        ];
        yield 'a picture stretched' => [
            $whole(Make::picture('i1', 1920, 1200, fit: 'fill')),
            ['hint item.aspect "i1.png" (1920 x 1200 px) is stretched by 11 % in "a" (1920 x 1080 px, fill).'],
        ];
        yield 'a picture too small for its zone' => [
            $whole(Make::picture('i1', 960, 540)),
            ['warning item.upscaled "i1.png" has 960 x 540 px and is drawn at 2 times its size in "a": it will look soft.'],
        ];
        yield 'a picture sharp on the canvas, soft on the display' => [
            $whole(Make::picture('i1', 1920, 1080)),
            [
                'warning item.upscaled "i1.png" has 1920 x 1080 px and is drawn at 2 times its size in "a" on Check-in 1: it will look soft.',
                'hint display.scaled The canvas of 1920 x 1080 px is scaled by 2 to the 3840 x 2160 px of Check-in 1.',
            ],
            Make::display(3840, 2160),
        ];
        $tides = static fn (mixed ...$more): array => array_filter($more, is_string(...), ARRAY_FILTER_USE_KEY) + ['id' => 'n', 'layout' => Make::layout([
            Make::zone('wide', 0, 0, 1920, 800, [Make::film('crossing', 15_000, 1920, 800), Make::picture('pier', 1920, 800, durationMs: 20_000), Make::picture('quay', 1920, 800)]),
            Make::zone('low', 0, 800, 1920, 280, [['lasts' => 'endless'] + array_diff_key(Make::picture('still', 1920, 280), ['duration_ms' => 1])]),
        ], id: 'tides')];
        yield 'a layout of a leader of 45 s in a slot of 5 s' => [
            Make::layout([Make::zone('a', 0, 0, 1920, 1080, [$tides(duration_ms: 5000), Make::picture('x', 1920, 1080)])]),
            ['warning item.cut "Layout tides" is given 5 s in "a": in "wide" "crossing.mp4" breaks off after 5 of 15 s; in "wide" "pier.png", "quay.png" are not reached.'],
        ];
        yield 'a layout of 35 s in 45 s' => [Make::layout([Make::zone('a', 0, 0, 1920, 1080, [$tides(duration_ms: 45_000), Make::picture('x', 1920, 1080)])]), []];
        yield 'a film cut' => [
            $whole(Make::film('f1', 15_000, duration_ms: 5000)),
            ['warning item.cut "f1.mp4" lasts 15 s and is given 5 s in "a": 10 s are cut.'],
        ];
        yield 'a landscape canvas for a panel that hangs turned' => [
            $whole(Make::picture('i1', 1920, 1080)),
            [
                'stop display.crossed The canvas is 1920 x 1080 px, landscape; Check-in 1 is 1080 x 1920 px, portrait.',
                'stop canvas.swapped Width and height of the canvas are swapped: 1920 x 1080 px is given, Check-in 1 is 1080 x 1920 px.',
            ],
            Make::display(1920, 1080, 90),
        ];
        yield 'a canvas on a stretched bar' => [
            $whole(Make::picture('i1', 1920, 1080)),
            ['hint display.padded The canvas of 1920 x 1080 px covers 50.0 % of Check-in 1 (1920 x 540 px); the rest stays black.'],
            Make::display(1920, 540),
        ];
    }

    public function testWordsAcrossASeamAreFoundWithTheSmallestMoveThatClearsIt(): void
    {
        $words = static fn (int $x, int $y, int $width, int $height): array => ['id' => 'head', 'kind' => 'text', 'text' => 'Welcome aboard', 'style' => ['size_px' => 90],
            'rect' => ['x' => $x, 'y' => $y, 'width' => $width, 'height' => $height]];
        $found = fn (array $text, int $scale = 1): array => array_values(array_filter(
            $this->findings(Make::layout([$text], intdiv(5768, $scale), intdiv(2164, $scale)), Make::wall()),
            static fn (Finding $f): bool => $f->code === 'seam.crossed',
        ));

        self::assertSame([], $found($words(1924, 100, 1920, 400)), 'just on A2');
        [$one] = $found($words(1700, 100, 1000, 400));
        self::assertSame('"head" crosses the seam between A1 (220 x 400 px) and A2 (776 x 400 px), 0.4 % of it behind bezels.', $one->message);
        self::assertSame(['label' => 'Move it 224 px to the right, onto A2', 'element' => 'head', 'rect' => ['x' => 1924, 'y' => 100, 'width' => 1000, 'height' => 400]], $one->cure()?->toArray());
        [$four] = $found($words(1800, 1000, 200, 160));
        self::assertStringContainsString('crosses the seams of 4 panels', $four->message);
        self::assertSame(['x' => 1720, 'y' => 920], array_slice($four->cure()?->toArray()['rect'] ?? [], 0, 2));
        [$wide] = $found($words(100, 100, 2500, 400));
        self::assertStringEndsWith('It is larger than any panel.', $wide->message);
        self::assertNull($wide->cure());

        // On a canvas of half the size the move is told in px of that canvas, and clears the seam once it is scaled.
        [$half] = $found($words(850, 50, 500, 200), 2);
        $rect = $half->cure()?->toArray()['rect'] ?? [];
        self::assertSame(962, $rect['x']);
        self::assertSame([], $found($words($rect['x'], $rect['y'], 500, 200), 2));
    }

    /** Zones that meet a few px beside a panel are put at it together: the cure opens no gap. */
    public function testZonesThatEndAFewPxBesideAPanelArePutAtIt(): void
    {
        $all = fn (array $zones): array => $this->findings(Make::layout(array_values($zones), 5768, 2164), Make::wall());
        $edges = static fn (array $zones): array => array_values(array_filter($all($zones), static fn (Finding $f): bool => $f->code === 'span.edge'));
        $zones = [Make::zone('main', 0, 0, 3841, 2164), Make::zone('side', 3841, 0, 1927, 2164)];
        [$found] = $edges($zones);
        self::assertSame('"main" and "side" end at 3841 px across, 3 px beside the edge of panel A2 at 3844 px.', $found->message);
        foreach ($found->cure()?->toArray()['rects'] ?? [] as $id => $rect) {
            $zones[$id === 'main' ? 0 : 1]['rect'] = $rect;
        }
        self::assertSame([3844, 3844], [$zones[0]['rect']['width'], $zones[1]['rect']['x']]);
        $codes = array_map(static fn (Finding $f): string => $f->code, $all($zones));
        self::assertSame([], array_intersect($codes, ['span.edge', 'zone.sliver', 'zone.overlap', 'zone.uncovered', 'zone.sum']));

        self::assertSame([], $edges([Make::zone('a', 0, 0, 3844, 2164), Make::zone('b', 3848, 0, 1920, 2164)]), 'at the panels');
        self::assertSame([], $edges([Make::zone('a', 0, 0, 3846, 2164)]), 'behind the frame');
        self::assertSame([], $edges([Make::zone('a', 0, 0, 3835, 2164)]), 'meant to end there');
        self::assertSame(['y' => 1080], ['y' => $edges([Make::zone('a', 0, 0, 1920, 1075)])[0]->measure['edge'] ?? null]);
    }

    public function testAZoneOverPanelsThatEndsWithinOneIsToldItsSpan(): void
    {
        $zones = [Make::zone('main', 0, 0, 4000, 2164), Make::zone('side', 4000, 0, 1768, 2164)];
        $found = array_values(array_filter($this->findings(Make::layout($zones, 5768, 2164), Make::wall()), static fn (Finding $f): bool => $f->code === 'span.partial'));

        self::assertSame([['main'], ['x' => 0, 'y' => 0, 'width' => 3844, 'height' => 2164]], [$found[0]->elements, $found[0]->cure()?->toArray()['rect'] ?? null]);
        self::assertCount(2, $found, 'the zone beside it shares those panels too');
        $spans = [Make::zone('main', 0, 0, 3844, 2164), Make::zone('side', 3848, 0, 1920, 2164)];
        self::assertSame([], array_filter($this->findings(Make::layout($spans, 5768, 2164), Make::wall()), static fn (Finding $f): bool => $f->code === 'span.partial'));
    }

    public function testWhatAPlayerCannotDoIsFoundForThePanelsThatItFeeds(): void
    {
        $able = ['id' => 'b', 'kinds' => ['zone'], 'films_at_once' => 1, 'largest_film' => ['width' => 1920, 'height' => 1080, 'fps' => 60]];
        $wall = Make::wall(2, 1, players: [['id' => 'a'], $able]);
        $wall['panels'][1]['player'] = 'b';
        $text = ['id' => 'words', 'kind' => 'text', 'text' => 'x', 'style' => ['size_px' => 90], 'rect' => ['x' => 2000, 'y' => 0, 'width' => 100, 'height' => 100]];
        $layout = Make::layout([
            Make::zone('left', 0, 0, 1920, 1080, [Make::film('f', 9000, 3840, 2160)]),
            Make::zone('one', 1924, 0, 960, 1080, [Make::film('f')]),
            Make::zone('two', 2884, 0, 960, 1080, [Make::film('f', 9000, 3840, 2160)]),
            $text,
        ], 3844, 1080);
        $told = array_filter($this->told($layout, $wall), static fn (string $line): bool => str_contains($line, 'player.'));

        self::assertSame([
            'warning player.kind Player "b" draws no text such as "words"; it draws zone.',
            'warning player.film-size "f.mp4" has 3840 x 2160 px; the largest film of player "b" has 1920 x 1080 px.',
            'warning player.films 2 zones play films, which may meet; player "b" plays 1 at once.',
        ], array_values($told));
    }

    public function testEveryCheckIsExplainedAndEveryCheckRuns(): void
    {
        $classes = array_map(static fn (object $check): string => basename(str_replace('\\', '/', $check::class)) . '.php', Checks::all());
        $files = [];
        foreach ([...glob(__DIR__ . '/../../../core/src/Layout/Check/*.php') ?: [], ...glob(__DIR__ . '/../../../core/src/Layout/Kind/*/*.php') ?: []] as $file) {
            if (str_contains((string) file_get_contents($file), ' implements Check')) {
                $files[$file] = basename($file);
            }
        }
        asort($files);
        sort($classes);
        self::assertSame(array_values($files), $classes);

        foreach (array_keys($files) as $file) {
            self::assertSame([], self::unexplained($file), $file);
        }
        foreach ([Survey::class, ScheduleChecks::class, Base::class, Planned::class] as $class) {
            self::assertSame([], self::unexplained((string) (new \ReflectionClass($class))->getFileName()), $class);
        }
    }

    /** @return list<string> codes that a class finds and does not explain */
    private static function unexplained(string $file): array
    {
        $code = (string) file_get_contents($file);
        preg_match_all("/(?:new Finding\\(\\s*|\\? )'([a-z]+\\.[a-z-]+)'/", $code, $found);
        preg_match_all("/new Explanation\\(\\s*'([a-z]+\\.[a-z-]+)'/", $code, $explained);
        self::assertNotEmpty($found[1], $file);

        return array_values(array_diff($found[1], $explained[1]));
    }

    public function testAFollowerOfAnotherCountIsToldAndTheLastOfTheLongerListCanBeSwitchedOff(): void
    {
        $pictures = static fn (int $count): array => array_map(static fn (int $n): array => Make::picture("i$n"), range(1, $count));
        $layout = static fn (int $led, int $own): array => Make::layout([
            Make::zone('main', 0, 0, 960, 1080, $pictures($led)), Make::zone('side', 960, 0, 960, 1080, $pictures($own), follows: 'main'),
        ]);
        $found = fn (int $led, int $own): array => array_values(array_filter($this->findings($layout($led, $own)), static fn (Finding $finding): bool => $finding->code === 'follow.count'));

        self::assertSame([], $found(3, 3));
        self::assertSame('"side" has 2 items and changes with "main", which has 3 items: put 1 more into "side", or take 1 out of "main".', $found(3, 2)[0]->message);
        self::assertSame(['label' => 'Switch off the last one of "main"', 'element' => 'main', 'items' => ['i3'], 'set' => ['enabled' => false]], $found(3, 2)[0]->cure()?->toArray());
        self::assertSame(['label' => 'Switch off the last 2 of "side"', 'element' => 'side', 'items' => ['i2', 'i3'], 'set' => ['enabled' => false]], $found(1, 3)[0]->cure()?->toArray());
        self::assertSame(Level::Warning, $found(3, 2)[0]->level);
    }

    public function testTwoLoopsOfAsManyItemsThatDriftApartAreTold(): void
    {
        $items = static fn (array $ms): array => array_map(static fn (int $ms, int $n): array => Make::picture("i$n", durationMs: $ms), $ms, array_keys($ms));
        $zone = static fn (string $id, int $x, int ...$ms): array => Make::zone($id, $x, 0, 960, 1080, $items($ms));
        $found = fn (array $one, array $two): array => array_values(array_filter($this->findings(Make::layout([$one, $two])), static fn (Finding $finding): bool => $finding->code === 'loop.drift'));
        $drift = $found($zone('a', 0, 15_000, 20_000, 10_000), $zone('b', 960, 10_000, 20_000, 10_000));
        self::assertSame('"a" and "b" have 3 items each, in loops of 45 s and 40 s: they drift apart and meet every 360 s.', $drift[0]->message);
        self::assertSame(['label' => 'Let "b" change with "a"', 'element' => 'b', 'fields' => ['follows' => 'a']], $drift[0]->cure()?->toArray());
        self::assertSame([], $found($zone('a', 0, 10_000, 20_000), $zone('b', 960, 20_000, 10_000)), 'equally long');
        self::assertSame([], $found($zone('a', 0, 10_000, 20_000), $zone('b', 960, 10_000)), 'not as many');
        self::assertSame([], $found($zone('a', 0, 10_000, 20_000), ['follows' => 'a'] + $zone('b', 960, 5_000, 10_000)), 'it follows');
    }

    /** Two slots of loops that begin together meet if and only if a search over the whole common period finds an instant. */
    public function testTwoThatAreHeardAtOnceAreTold(): void
    {
        $random = Make::random(41);
        $met = 0;
        for ($round = 0; $round < 60; $round++) {
            $zones = [];
            foreach (['a', 'b'] as $n => $id) {
                $items = array_map(static fn (int $i): array => Make::film("f$i", 1000 * $random->getInt(1, 9), volume: $random->getInt(0, 2) === 0 ? 50 : 0), range(0, $random->getInt(0, 3)));
                $zones[] = Make::zone($id, 960 * $n, 0, 960, 1080, $items);
            }
            $layout = Make::composed(Make::layout($zones));
            $heard = static function (string $id, int $ms) use ($layout): bool {
                $loop = $layout->loops[$id];
                $slot = $loop->slotAt($loop->position($ms));

                return $layout->zones[$id]->playlist->enabled()[$loop->items[$slot]]->sound->isHeard();
            };
            $meet = false;
            for ($ms = 500; $ms < (int) $layout->meetsEveryMs() && !$meet; $ms += 1000) {
                $meet = $heard('a', $ms) && $heard('b', $ms);
            }
            $found = array_filter(Make::checked($layout)->all, static fn (Finding $finding): bool => $finding->code === 'sound.twice');
            self::assertSame($meet, $found !== [], "round $round");
            $met += (int) $meet;
        }
        self::assertGreaterThan(10, $met);
        self::assertLessThan(50, $met);
    }

    public function testSoundWithoutEndAndInNestedLayoutsIsHeardToo(): void
    {
        $film = static fn (string $id, mixed ...$more): array => Make::film($id, 5000, ...['volume' => 60] + $more);
        $inner = Make::layout([Make::zone('z', 0, 0, 9, 9, [$film('deep')])], 9, 9, 'inner');
        $message = '"one.mp4" in "a" and "two.mp4" in "b" are heard at the same time; one source is heard at an instant.';
        self::assertSame([$message], $this->heardTogether([['lasts' => 'endless'] + $film('one')], [$film('two'), Make::picture()]));
        self::assertCount(1, $this->heardTogether([['id' => 'n', 'layout' => $inner]], [$film('two')]));
        self::assertSame([], $this->heardTogether([$film('one')], [Make::film('two', 5000)]));
        $atNight = [['hours' => ['22:00', '06:00'], 'volume' => 20]];
        self::assertSame([], $this->heardTogether([$film('one', levels: [['volume' => 0] + $atNight[0]])], [Make::film('two', 5000, levels: $atNight)]), 'each at its own hours');
        self::assertCount(1, $this->heardTogether([$film('one')], [Make::film('two', 5000, levels: $atNight)]), 'both at night');
        self::assertSame([], $this->heardTogether([$film('once'), ['lasts' => 'endless'] + Make::film('mute')], [$film('two')]), 'what came once is over');
    }

    /**
     * @param list<Doc> $a
     * @param list<Doc> $b
     * @return list<string> what is said of the sound of two zones
     */
    private function heardTogether(array $a, array $b): array
    {
        $found = $this->findings(Make::layout([Make::zone('a', 0, 0, 960, 1080, $a), Make::zone('b', 960, 0, 960, 1080, $b)]));

        return array_values(array_filter(array_map(static fn (Finding $finding): string => $finding->code === 'sound.twice' ? $finding->message : '', $found)));
    }

    /**
     * @param Doc $document
     * @param ?Doc $display
     * @return list<Finding>
     */
    private function findings(array $document, ?array $display = null): array
    {
        return Make::checked(Make::composed($document), $display === null ? null : Display::fromArray($display))->all;
    }

    /**
     * @param Doc $document
     * @param ?Doc $display
     * @return list<string>
     */
    private function told(array $document, ?array $display = null): array
    {
        return array_map(static fn (Finding $f): string => "{$f->level->value} $f->code $f->message", $this->findings($document, $display));
    }
}
