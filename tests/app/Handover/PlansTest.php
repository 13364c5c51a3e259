<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Handover;

use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Handover\Plans;
use UpperPane\App\Playback\Pointers;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

final class PlansTest extends ApiTestCase
{
    private string $secret;

    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
        $this->secret = $this->player('wide')->secret;
    }

    /** The property that matters: on every day of two years a player that was there within the last 60 days has a plan. */
    public function testNobodyRunsOutOfHisPlanThoughNobodyHandsOver(): void
    {
        $this->handedOver();
        $plans = [];
        for ($day = 0; $day < 730; $day++) {
            $this->plan();
            $plans[$day] = strtotime($this->manifest()['planned']['until']);
            self::assertGreaterThan(self::now()->getTimestamp() + 60 * 86_400, $plans[$day], "day $day");
            static::mockTime('+1 day');
        }
        self::assertLessThan(30, count(array_unique($plans)), 'and it is not exchanged every day');
    }

    public function testTheSameRevisionsArePlannedAndThoseThatWereSavedSinceAreNot(): void
    {
        $id = $this->handedOver();
        $before = $this->manifest();
        $booked = $this->ask('GET', "/api/schedules/$id")[1]['document'];
        $booked['bookings'] = [];
        $this->ask('PUT', "/api/schedules/$id", ['base' => 1, 'document' => $booked]);
        static::mockTime('+40 days');
        $this->plan();
        $after = $this->manifest();
        self::assertNotSame($before['planned']['until'], $after['planned']['until']);
        self::assertCount(2, array_intersect(array_column($before['sheets'], 'sha256'), array_column($after['sheets'], 'sha256')), 'what is booked keeps its sheet');
        self::assertNotEmpty(array_filter($this->sheet($after)['layers'][0]['turns'], static fn (array $turn): bool => $turn['from_ms'] > 1000 * self::now()->getTimestamp()), 'and is booked still');
        self::assertSame(1, $this->ask('GET', '/api/displays/wide/releases')[1]['current'], 'it is the same release');
        self::assertTrue($this->estate()['displays'][0]['saved_not_handed_over']);
    }

    public function testAListWhoseItemsHaveHoursIsPlannedAsWell(): void
    {
        $item = ['id' => 'i1', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000, 'valid' => ['hours' => [['08:00', '12:00']]]];
        $list = $this->ask('POST', '/api/playlists', ['name' => 'Mornings', 'document' => ['items' => [$item]]])[1]['id'];
        $this->handOver(['source' => ['kind' => 'playlist', 'id' => $list], 'displays' => ['wide']]);
        $until = $this->manifest()['planned']['until'];
        static::mockTime('+40 days');
        $this->plan();
        self::assertGreaterThan($until, $this->manifest()['planned']['until']);
    }

    public function testWhatPlaysTheSameForEverIsLeftAlone(): void
    {
        $this->handOver(['source' => ['kind' => 'media', 'id' => $this->media()->id], 'displays' => ['wide']]);
        $before = $this->manifest();
        static::mockTime('+400 days');
        $this->plan();
        self::assertSame($before, $this->manifest());
    }

    public function testWhereItCannotBePlannedThatIsFoundAndWhatIsThereGoesOn(): void
    {
        $this->handedOver();
        $before = $this->manifest();
        $this->entities()->getConnection()->executeStatement('DELETE FROM media_asset');
        static::mockTime('+40 days');
        $this->plan();
        self::assertSame($before, $this->manifest());
        $found = array_column($this->estate()['findings'], 'message', 'code');
        $why = 'The media "quay" is booked, and is not there any more. Book something else in its place.';
        self::assertSame("Wide: Planned until 31 August 2026; it could not be planned any further: $why", $found['release.unplanned']);
        static::mockTime('+48 days');
        $found = array_column($this->estate()['findings'], 'message', 'code');
        self::assertStringContainsString('What is planned ends in 2 days', $found['release.ends']);
        self::assertStringContainsString('It could not be planned any further: The media', $found['release.ends']);
    }

    /** Nobody has handed the new survey over. */
    public function testItIsPlannedForTheDisplayAsItWasSurveyedThen(): void
    {
        $this->handedOver();
        $before = $this->manifest()['display'];
        $surveyed = $this->ask('GET', '/api/displays/wide')[1];
        $this->ask('PUT', '/api/displays/wide', ['base' => 1, 'document' => ['panels' => Make::display(1280, 720)['panels']] + $surveyed['document']]);
        static::mockTime('+40 days');
        $this->plan();
        self::assertSame($before, $this->manifest()['display']);
        self::assertGreaterThan('2026-09-01', $this->manifest()['planned']['until']);
    }

    /** What was handed over before there were manifests is one piece, and nobody noted whether anything in it comes and goes. */
    public function testWhatIsInOnePieceFromBeforeBecomesAManifest(): void
    {
        $this->handedOver();
        $this->entities()->getConnection()->executeStatement('UPDATE handed_release SET manifest = 0, ruling = NULL, survey_revision = NULL, planned_until = NULL');
        $this->plan();
        self::assertSame('2026-08-31T00:00:00Z', $this->manifest()['planned']['until']);
    }

    /** @return string id of a schedule that is handed over */
    private function handedOver(): string
    {
        $surveys = static::getContainer()->get(\UpperPane\App\Display\Displays::class);
        $surveys->keep($this->entities()->find(SurveyedDisplay::class, 'wide') ?? throw new \LogicException(), null);
        $this->entities()->flush();
        $layout = $this->made($this->whole($this->media()))['id'];
        $quay = $this->media('quay')->id;
        $id = $this->ask('POST', '/api/schedules', ['name' => 'Hall', 'display' => 'wide', 'document' => [
            'timezone' => 'Europe/Lisbon',
            'standby' => ['media' => $quay],
            'bookings' => [[
                'id' => 'b', 'name' => 'Day', 'plays' => ['layout' => $layout], 'rank' => 'weekly',
                'start' => '2026-06-01T09:00:00', 'end' => '2026-06-01T17:00:00', 'rrule' => 'FREQ=WEEKLY',
            ]],
        ]])[1]['id'];
        $this->handOver(['source' => ['kind' => 'schedule', 'id' => $id], 'displays' => ['wide']]);

        return $id;
    }

    private function plan(): void
    {
        $plans = static::getContainer()->get(Plans::class);
        $plans->run();
        static::getContainer()->get(Pointers::class)->doDue();
        $this->entities()->clear();
    }

    /** @return array<string, mixed> as the player reads it */
    private function manifest(): array
    {
        $pointer = $this->read("pointers/$this->secret.json");

        return $this->read($pointer['manifest']['url']);
    }

    /**
     * @param array<string, mixed> $manifest
     * @return array<string, mixed>
     */
    private function sheet(array $manifest): array
    {
        return $this->read($manifest['planes']['base']['sheet']['url']);
    }

    /** @return array<string, mixed> */
    private function read(string $file): array
    {
        return (array) json_decode($this->published()->read(ltrim($file, '/')), true);
    }
}
