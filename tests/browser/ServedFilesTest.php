<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Desk;

/** What nginx hands out by itself: nothing of it needs PHP. */
final class ServedFilesTest extends TestCase
{
    public function testAPointerIsAskedForAgainAndAgainAndAnsweredShortly(): void
    {
        $path = '/pointers/' . $this->secret() . '.json';
        [$status, $headers, $body] = $this->ask($path);
        $pointer = json_decode($body, true);

        self::assertSame([200, 'no-cache', 'upper-pane/pointer@2'], [$status, $headers['cache-control'], $pointer['format']]);
        [$again, , $nothing] = $this->ask($path, 'If-None-Match: ' . $headers['etag']);
        self::assertSame([304, ''], [$again, $nothing]);
    }

    public function testAReleaseAndItsFilesNeverChangeUnderTheirHashes(): void
    {
        $pointer = json_decode($this->ask('/pointers/' . $this->secret() . '.json')[2], true)['release'];
        [$status, $headers, $release] = $this->ask($pointer['url']);
        self::assertSame([200, $pointer['sha256']], [$status, hash('sha256', $release)]);
        self::assertStringContainsString('max-age=315360000', $headers['cache-control']);

        $content = json_decode($release, true);
        self::assertNotEmpty($content['media']);
        foreach ([...$content['media'], ...$content['faces']] as $file) {
            [$status, $headers, $bytes] = $this->ask($file['url']);
            self::assertSame([200, $file['sha256'], $file['bytes']], [$status, hash('sha256', $bytes), strlen($bytes)], $file['url']);
            self::assertStringContainsString('sandbox', $headers['content-security-policy'], 'what was brought in is never run');
            self::assertSame('nosniff', $headers['x-content-type-options']);
        }
    }

    public function testAnAddressThatNobodyHasAnswersNothing(): void
    {
        foreach (['/pointers/' . str_repeat('0', 40) . '.json', '/play/short/assets', '/files/aa/none.png', '/releases/none.json'] as $path) {
            [$status, , $body] = $this->ask($path);
            self::assertTrue($status === 404 || str_contains($body, '<div id="app">'), "$path: $status");
        }
        self::assertSame(404, $this->ask('/pointers/' . str_repeat('0', 40) . '.json')[0]);
        self::assertSame(404, $this->ask('/pointers/')[0], 'nobody can list the addresses');
        foreach (['/.git/config', '/assets/.env', '/.stamp'] as $hidden) {
            self::assertSame(404, $this->ask($hidden)[0], $hidden);
        }
        self::assertSame(401, $this->ask('/api/players')[0]);
    }

    /** A worker that is more than one file is refused by browsers. */
    public function testTheWorkerOfThePlayerIsOneFileAndKnowsWhatThePageIsMadeOf(): void
    {
        $worker = (string) file_get_contents(Desk::url('/play/sw.js'));
        self::assertDoesNotMatchRegularExpression('/\bimport\s*[{"\'(]|__PAGE__/', $worker);
        preg_match_all('/"url":"([^"]+)"/', $worker, $found);
        self::assertContains('/player', $found[1]);
        self::assertNotEmpty(preg_grep('~^/assets/keeper-~', $found[1]));
        foreach ($found[1] as $url) {
            self::assertNotFalse(file_get_contents(Desk::url($url)), $url);
        }
    }

    public function testThePlayerPageIsSmallAndTheDesksFirstPageWithin300Kilobytes(): void
    {
        self::assertLessThan(30_000, $this->scripts('/play/' . str_repeat('a', 40) . '/'));
        self::assertLessThan(300_000, $this->scripts('/'));
    }

    public function testTheStandInPlayerTakesAReleaseAndReportsItAndAnObedientFaultIsReportedToo(): void
    {
        $players = json_decode((string) file_get_contents(dirname(__DIR__, 2) . '/var/instances/test/storage/players.json'), true);
        $list = (string) tempnam(sys_get_temp_dir(), 'players');
        file_put_contents($list, json_encode([$players[0], ['refuse_media' => true] + $players[1]]));
        $released = fn (): string => json_decode($this->ask("/pointers/{$players[0]['secret']}.json")[2], true)['release']['sha256'];
        // Where sources tell something new meanwhile, it takes that.
        do {
            $before = $released();
            exec('php ' . escapeshellarg(dirname(__DIR__, 2) . '/stand-ins/players.php') . ' ' . escapeshellarg(Desk::url('')) . ' ' . escapeshellarg($list) . ' 1', result_code: $code);
            self::assertSame(0, $code);
        } while ($released() !== $before);

        [, , $told] = $this->signedIn('/api/players');
        $bySecret = array_column(json_decode($told, true)['players'], null, 'address');
        self::assertSame($before, $bySecret["/play/{$players[0]['secret']}/"]['plays_sha256']);
        self::assertNull($bySecret["/play/{$players[0]['secret']}/"]['trouble']);
        self::assertNull($bySecret["/play/{$players[1]['secret']}/"]['plays_sha256']);
        self::assertStringContainsString('could not be fetched', $bySecret["/play/{$players[1]['secret']}/"]['trouble']);
    }

    /** Bytes of script, gzipped, that a page loads before anything is pressed. */
    private function scripts(string $page): int
    {
        preg_match_all('~(?:src|href)="(/assets/[^"]+\.js)"~', $this->ask($page)[2], $found);
        self::assertNotEmpty($found[1]);

        return array_sum(array_map(fn (string $path): int => strlen((string) gzencode($this->ask($path)[2])), array_unique($found[1])));
    }

    private function secret(): string
    {
        return json_decode((string) file_get_contents(dirname(__DIR__, 2) . '/var/instances/test/storage/players.json'), true)[0]['secret'];
    }

    /** @return array{int, array<string, string>, string} */
    private function signedIn(string $path): array
    {
        $jar = tempnam(sys_get_temp_dir(), 'jar') ?: '/tmp/upper-pane-jar';
        $this->ask('/api/sign-in', 'Content-Type: application/json', $jar, '{"login":"olav","password":"harbour"}');

        return $this->ask($path, jar: $jar);
    }

    /**
     * @param ?non-empty-string $jar
     * @return array{int, array<string, string>, string} status, headers in small letters, body
     */
    private function ask(string $path, string $header = 'Accept: */*', ?string $jar = null, ?string $body = null): array
    {
        $curl = curl_init(Desk::url($path));
        self::assertNotFalse($curl);
        $headers = [];
        curl_setopt_array($curl, [
            CURLOPT_RETURNTRANSFER => true, CURLOPT_HTTPHEADER => [$header], CURLOPT_TIMEOUT => 20,
            CURLOPT_HEADERFUNCTION => static function (\CurlHandle $curl, string $line) use (&$headers): int {
                if (str_contains($line, ':')) {
                    [$name, $value] = explode(':', $line, 2);
                    $headers[strtolower($name)] ??= trim($value);
                }

                return strlen($line);
            },
        ] + ($jar === null ? [] : [CURLOPT_COOKIEJAR => $jar, CURLOPT_COOKIEFILE => $jar]) + ($body === null ? [] : [CURLOPT_POSTFIELDS => $body]));
        $answer = (string) curl_exec($curl);
        $status = (int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE);
        unset($curl);

        return [$status, $headers, $answer];
    }
}
