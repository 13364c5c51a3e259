<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Layout;

use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\References;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** Where something is used follows from rows that are written with each revision. */
final class ReferencesTest extends ApiTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->signIn();
    }

    public function testWhatTheNewestRevisionNamesIsUsedAndWhatAnOlderOneNamedIsNot(): void
    {
        $item = ['id' => 'i1', 'media' => $this->media()->media()?->toArray(), 'duration_ms' => 9000];
        $round = $this->ask('POST', '/api/playlists', ['name' => 'Round', 'document' => ['items' => [$item]]])[1]['id'];
        $layout = $this->made(['elements' => [['playlist' => ['ref' => $round]] + Make::zone('main', 0, 0, 1920, 1080)]] + Make::layout([]), 'Hall');
        $booked = ['timezone' => 'UTC', 'standby' => ['layout' => $layout['id']], 'bookings' => []];
        $schedule = $this->ask('POST', '/api/schedules', ['name' => 'Week', 'display' => 'wide', 'document' => $booked])[1]['id'];
        $references = static::getContainer()->get(References::class);
        self::assertEquals(
            [$round => DesignKind::Playlist, $layout['id'] => DesignKind::Layout, $schedule => DesignKind::Schedule],
            $references->usersOfAll(References::MEDIA, 'pier'),
            'however far',
        );
        self::assertSame(['Hall'], $this->ask('GET', '/api/playlists')[1]['playlists'][0]['used_in']);
        self::assertSame([409, 'design.used'], [$this->ask('DELETE', "/api/playlists/$round")[0], $this->ask('DELETE', "/api/playlists/$round")[1]['error']['code']]);

        $empty = ['elements' => []] + $layout['document'];
        $this->ask('PUT', "/api/layouts/{$layout['id']}", ['base' => 1, 'document' => $empty]);
        self::assertSame([[], [$round]], [$references->users(References::DESIGN, $round), array_keys($references->users(References::MEDIA, 'pier'))]);
        self::assertSame(204, $this->ask('DELETE', "/api/playlists/$round")[0]);
        self::assertSame(204, $this->ask('DELETE', '/api/media/pier')[0], 'what lies in the bin uses nothing');
    }

    /** Words that look like an id name nothing. */
    public function testWordsAreNoReferences(): void
    {
        $this->media('quay');
        $words = ['id' => 't', 'kind' => 'text', 'rect' => ['x' => 0, 'y' => 0, 'width' => 9, 'height' => 9], 'text' => '"quay"', 'style' => ['size_px' => 9]];
        $this->made(Make::layout([$words]), 'quay');
        self::assertSame(204, $this->ask('DELETE', '/api/media/quay')[0]);
    }
}
