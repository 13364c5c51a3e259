<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Http;

use UpperPane\Core\Document\Reason;
use UpperPane\Core\Time\Schedule\Schedule;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;
use UpperPane\Tests\Core\MakeEdid;

/** What is refused is 422 with its code and its place, and none of the codes is one that nobody ever sees. */
final class RefusedTest extends ApiTestCase
{
    public function testEveryCauseIsAnsweredWithItsCodeAndPlace(): void
    {
        $this->signIn();
        [$found, $want] = [[], []];
        foreach ($this->cases() as $code => [$where, $path, $body]) {
            [$status, $answer] = $this->ask('POST', $path, $body);
            $found[$code] = [$status, $answer['error']['code'] ?? null, $answer['error']['path'] ?? null];
            $want[$code] = [422, $code, $where];
            self::assertGreaterThan(10, strlen($answer['error']['message'] ?? ''), $code);
        }
        self::assertSame($want, $found);
    }

    public function testEveryCodeIsHeldByATest(): void
    {
        $tests = '';
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(__DIR__ . '/../..', \FilesystemIterator::SKIP_DOTS)) as $file) {
            assert($file instanceof \SplFileInfo);
            $tests .= preg_match('~/tests/.*(app|browser)/.*\.php$|CommandLineTest\.php$~', $file->getPathname()) === 1 ? file_get_contents($file->getPathname()) : '';
        }
        $unseen = array_filter(Reason::cases(), static fn (Reason $one): bool => !str_contains($tests, "'$one->value'") && !str_contains($tests, "Reason::$one->name"));
        // A body of 4 MB is the largest that is read; a row of a table or an event of a calendar that is left out is told in words, beside what is taken.
        $told = [Reason::CalendarTooLarge, Reason::CalendarEvent, Reason::CsvFigure, Reason::CsvTwice];
        self::assertSame([], array_map(static fn (Reason $one): string => $one->value, array_values(array_udiff($unseen, $told, static fn (Reason $a, Reason $b): int => $a->value <=> $b->value))));
    }

    /** @return array<string, array{string, string, array<string, mixed>|string}> by code: the path of the fault, where it is asked, and the body */
    private function cases(): array
    {
        $analysis = static fn (array $document): array => ['/api/analysis', ['document' => $document]];
        $act = static fn (array $document, array $act): array => ['/api/arrangement', ['document' => $document, 'act' => $act]];
        $twice = Make::layout([Make::zone('a', 0, 0, 9, 9), Make::zone('a', 0, 0, 9, 9)]);
        $recipe = static fn (array $recipe): array => ['recipe' => $recipe] + Make::layout([Make::zone('a', 0, 0, 9, 9)]);
        $good = MakeEdid::of([MakeEdid::fullHd()]);
        $day = $this->made($this->whole($this->media()))['id'];
        $booking = ['id' => 'a', 'name' => 'A', 'plays' => ['layout' => $day], 'rank' => 'weekly', 'start' => '2026-06-01T08:00:00', 'end' => '2026-06-01T09:00:00'];
        $schedule = static fn (string $rule): array => ['format' => Schedule::FORMAT, 'timezone' => 'UTC', 'bookings' => [['rrule' => $rule] + $booking]];
        $id = $this->ask('POST', '/api/schedules', ['name' => 'S', 'display' => 'tall', 'document' => $schedule('FREQ=MONTHLY;BYDAY=1MO')])[1]['id'];
        $events = "BEGIN:VCALENDAR\r\n" . str_repeat("BEGIN:VEVENT\r\nUID:1\r\nEND:VEVENT\r\n", Schedule::MOST_BOOKINGS + 1) . "END:VCALENDAR\r\n";
        $document = $this->ask('GET', "/api/schedules/$id")[1]['document'];
        $calendar = static fn (string $text): array => ['/api/plays/calendar', ['document' => $document, 'calendar' => $text, 'timezone' => 'UTC', 'plays' => ['layout' => $day]]];
        $moved = ['booking' => 'a', 'occurrence' => '2026-06-01T08:00:00', 'which' => 'all', 'start' => '2026-06-02T08:00:00', 'end' => '2026-06-02T09:00:00']
            + ['document' => $document];

        return [
            'format.unknown' => ['/format', ...$analysis(['format' => 'upper-pane/layout@9'] + Make::layout([]))],
            'id.twice' => ['/elements/1/id', ...$analysis($twice)],
            'kind.unbuilt' => ['/elements/0/kind', ...$analysis(Make::layout([['kind' => 'live'] + Make::zone('a', 0, 0, 9, 9)]))],
            'tracks.too-long' => ['/tracks', ...$act(Make::layout([Make::zone('a', 0, 0, 900, 900)]), ['do' => 'split', 'zone' => 'a', 'into' => 'columns', 'tracks' => '2000px 1fr'])],
            'recipe.areas' => ['/recipe/areas', ...$analysis($recipe(['columns' => '1fr', 'rows' => '1fr', 'areas' => ['a', 'a']]))],
            'recipe.missing' => ['/recipe', ...$act(Make::layout([Make::zone('a', 0, 0, 9, 9)]), ['do' => 'solve', 'raster' => ['width' => 99, 'height' => 99]])],
            'recipe.none' => ['/elements', ...$act(Make::layout([Make::zone('a', 0, 0, 900, 900), Make::zone('b', 100, 100, 900, 900)]), ['do' => 'retell'])],
            'pattern.syntax' => ['/pattern', '/api/clock', ['pattern' => 'HH:qq', 'at' => '2026-06-01T10:00:00Z']],
            'rrule.wrong' => ['/bookings/0/rrule', '/api/schedules', ['name' => 'T', 'display' => 'wide', 'document' => $schedule('FREQ=OFTEN')]],
            'move.rule' => ['/start', '/api/plays/edit', $moved],
            'edid.checksum' => ['/blocks/0', '/api/survey/edid', substr_replace($good, chr(ord($good[127]) ^ 1), 127, 1)],
            'edid.header' => ['', '/api/survey/edid', str_repeat('x', 128)],
            'calendar.too-many' => ['/calendar', ...$calendar($events)],
            'csv.long' => ['', '/api/survey/table', "name,place\n" . str_repeat("A,hall\n", 20_001)],
        ];
    }
}
