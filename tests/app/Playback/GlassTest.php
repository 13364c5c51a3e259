<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Playback;

use UpperPane\App\Storage\Prune;
use UpperPane\Tests\App\ApiTestCase;

/** Pictures of what is on the glass, sent by an agent beside the browser that plays. */
final class GlassTest extends ApiTestCase
{
    public function testTheLastPictureOfEachOutputIsKeptAndTakenMoreOftenWhileSomebodyLooksOn(): void
    {
        $player = $this->player('wide');
        [$red, $blue] = [self::jpeg(0xc00000), self::jpeg(0x0000c0)];
        self::assertSame([200, ['next_s' => 300]], $this->sent($player->secret, $red));
        $this->sent($player->secret, $red, 2);
        $this->sent($player->secret, $blue, 2, 1250);

        self::assertSame(401, $this->ask('GET', '/api/displays/wide/glass')[0], 'nobody is signed in');
        self::assertSame(401, $this->ask('GET', '/api/players/player-wide/glass/1')[0]);
        $this->signIn();
        $at = static fn (string $beside): string => self::now($beside)->format('Y-m-d\TH:i:s.v\Z');
        self::assertSame(
            [['player-wide', 'Player', 1, $at('+0 seconds')], ['player-wide', 'Player', 2, $at('-1250 milliseconds')]],
            array_map(array_values(...), $this->ask('GET', '/api/displays/wide/glass')[1]['glass']),
        );
        foreach ([1 => $red, 2 => $blue] as $output => $picture) {
            $this->client->request('GET', "/api/players/player-wide/glass/$output");
            self::assertSame([$picture, 'image/jpeg'], [$this->client->getResponse()->getContent(), $this->client->getResponse()->headers->get('Content-Type')]);
        }
        self::assertSame([404, 404], [$this->ask('GET', '/api/players/player-wide/glass/3')[0], $this->ask('GET', '/api/displays/none/glass')[0]]);
        self::assertSame([200, ['next_s' => 15]], $this->sent($player->secret, $red));
        self::mockTime(self::now('+3 minutes'));
        self::assertSame([200, ['next_s' => 300]], $this->sent($player->secret, $red), 'nobody looks on any more');
        self::assertSame([], $this->ask('GET', '/api/displays/tall/glass')[1]['glass']);
    }

    public function testWhatIsNoSmallJpegIsRefusedAndStrangersSendNothing(): void
    {
        $player = $this->player('wide');
        $png = (string) file_get_contents(dirname(__DIR__, 3) . '/demo/media/day-ticket.png');
        foreach (['', 'no picture', $png, str_repeat('x', 70_000), substr(self::jpeg(0), 0, 100)] as $body) {
            self::assertSame(422, $this->sent($player->secret, $body)[0]);
        }
        self::assertSame(404, $this->sent(str_repeat('0', 40), self::jpeg(0))[0]);
        self::assertSame(200, $this->sent($player->secret, self::jpeg(0))[0]);
        $this->entities()->getConnection()->update('player', ['revoked_at' => self::now()->format('Y-m-d H:i:s')], ['id' => $player->id]);
        self::assertSame(404, $this->sent($player->secret, self::jpeg(0))[0]);
        static::getContainer()->get(Prune::class)->run();
        self::assertSame(0, $this->entities()->getConnection()->fetchOne('SELECT COUNT(*) FROM glass_picture'));
    }

    /** @return array{int, mixed} */
    private function sent(string $secret, string $picture, int $output = 1, int $ageMs = 0): array
    {
        $this->client->request('POST', "/api/play/$secret/glass?output=$output&age_ms=$ageMs", [], [], ['CONTENT_TYPE' => 'image/jpeg'], $picture);

        return [$this->client->getResponse()->getStatusCode(), json_decode((string) $this->client->getResponse()->getContent(), true)];
    }

    private static function jpeg(int $colour): string
    {
        $image = imagecreatetruecolor(96, 54);
        imagefill($image, 0, 0, $colour);
        ob_start();
        imagejpeg($image);

        return (string) ob_get_clean();
    }
}
