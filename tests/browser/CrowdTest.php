<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Tests\Browser\Support\Desk;

/** Nobody without an account stops those who have one; and what is killed loses nothing. */
final class CrowdTest extends TestCase
{
    /** Each test asks from an address of its own on the loopback, so that what it spends nobody else misses. */
    private static int $addresses = 1;

    /** @var non-empty-string */
    private string $from = '127.0.0.1';

    protected function setUp(): void
    {
        $this->from = '127.0.0.' . ++self::$addresses;
    }

    /** Twelve that drip were enough to silence everything, when PHP waited for their bodies. */
    public function testRequestsThatDripKeepNobodyFromHisWork(): void
    {
        [$cookie] = $this->signedIn();
        $dripping = [];
        foreach ([...array_fill(0, 12, 'media'), ...array_fill(0, 12, 'sign-in'), ...array_fill(0, 12, 'play/' . str_repeat('0', 40) . '/report')] as $path) {
            $socket = $this->open();
            fwrite($socket, "POST /api/$path HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 60000\r\n\r\n{");
            $dripping[] = $socket;
        }
        // Whoever asks now stands behind all of these.
        self::assertSame(200, $this->ask('/api/layouts', $cookie)[0]);
        foreach ($dripping as $socket) {
            @fwrite($socket, ' ');
        }
        $slowest = 0.0;
        for ($i = 0; $i < 20; $i++) {
            $begin = microtime(true);
            self::assertSame(200, $this->ask('/api/layouts', $cookie)[0]);
            self::assertSame(200, $this->ask('/player', '')[0]);
            $slowest = max($slowest, microtime(true) - $begin);
        }
        self::assertLessThan(5.0, $slowest, 'they would have waited for a body that never comes');
        // Who is not signed in is told so before a byte of his film is read.
        stream_set_timeout($dripping[0], 5);
        self::assertStringContainsString(' 401 ', (string) fgets($dripping[0]));
        array_map(fclose(...), $dripping);
    }

    public function testWhoHasNoSessionIsCountedAndWhoHasOneIsNot(): void
    {
        [$cookie] = $this->signedIn();
        $madeUp = 'upper_pane=' . str_repeat('a', 32) . substr($cookie, (int) strpos($cookie, ';'));
        $refused = ['' => 0, 'upper_pane=made-up; upper_pane_mark=made-up' => 0, $madeUp => 0];
        $served = 0;
        for ($i = 0; $i < 80; $i++) {
            foreach ($refused as $stranger => $times) {
                $refused[$stranger] = $times + ($this->ask('/api/pairing/none', (string) $stranger)[0] === 429 ? 1 : 0);
            }
            $served += $this->ask('/api/session', $cookie)[0] === 200 ? 1 : 0;
        }
        self::assertSame(80, $served);
        self::assertGreaterThan(0, min($refused), 'also whoever makes a session up, or puts the mark of another to it');
        self::assertSame(200, $this->ask('/pointers/' . $this->secret() . '.json', '')[0], 'players ask as often as they like');
    }

    public function testAnUploadOfSomebodySignedInIsTaken(): void
    {
        [$cookie, $csrf] = $this->signedIn();
        $curl = curl_init(Desk::url('/api/media'));
        assert($curl !== false);
        $picture = dirname(__DIR__, 2) . '/demo/media/quay-cafe.png';
        curl_setopt_array($curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_POSTFIELDS => ['file' => new \CURLFile($picture)],
            CURLOPT_HTTPHEADER => ["Cookie: $cookie", "X-CSRF-Token: $csrf"],
        ]);
        $told = json_decode((string) curl_exec($curl), true);
        self::assertSame([202, 'quay-cafe.png'], [curl_getinfo($curl, CURLINFO_RESPONSE_CODE), $told['name'] ?? $told]);
    }

    /** Each in a session of his own, all at the same moment, letter by letter, while a designer goes on with the template. */
    public function testTenEditorsAtOneTemplateLoseNoLetter(): void
    {
        $words = 'Tea and saffron cake';
        $designer = $this->signedIn('ines');
        $layout = json_decode($this->ask('/api/layouts/price-of-the-day', $designer[0])[2], true)['document'];
        $template = json_decode($this->ask('/api/layouts', $designer[0], self::json(['name' => 'Price for ten', 'document' => $layout]), token: $designer[1])[2], true);
        [$editors, $filled] = [[], []];
        for ($n = 0; $n < 10; $n++) {
            $this->from = '127.0.0.' . ++self::$addresses;
            $editors[$n] = $this->signedIn('marta');
            $document = ['template' => $template['id'], 'template_revision' => 1, 'values' => new \stdClass()];
            [$status, , $body] = $this->ask('/api/filled', $editors[$n][0], self::json(['name' => "Price $n", 'document' => $document, 'display' => 'pier-tolm']), token: $editors[$n][1]);
            self::assertSame(201, $status, $body);
            $filled[$n] = json_decode($body, true)['id'];
        }
        $all = curl_multi_init();
        for ($letter = 1; $letter <= strlen($words); $letter++) {
            $asked = [$this->asked("/api/layouts/{$template['id']}", $designer[0], self::json([
                'base' => $letter, 'document' => ['name' => "Price for ten, $letter", 'id' => $template['id']] + $layout,
            ]), 'PUT', $designer[1])];
            foreach ($filled as $n => $id) {
                $document = ['name' => "Price $n", 'template' => $template['id'], 'template_revision' => 1, 'values' => ['dish' => ['en' => substr("$words $n", 0, $letter)]]];
                $asked[] = $this->asked("/api/filled/$id", $editors[$n][0], self::json(['base' => $letter, 'document' => $document]), 'PUT', $editors[$n][1]);
            }
            array_map(static fn (\CurlHandle $one): int => curl_multi_add_handle($all, $one), $asked);
            do {
                curl_multi_exec($all, $running);
                curl_multi_select($all);
            } while ($running > 0);
            self::assertSame(array_fill(0, 11, 200), array_map(static fn (\CurlHandle $one): int => (int) curl_getinfo($one, CURLINFO_RESPONSE_CODE), $asked), "letter $letter");
            array_map(static fn (\CurlHandle $one) => curl_multi_remove_handle($all, $one), $asked);
        }
        foreach ($filled as $n => $id) {
            $told = json_decode($this->ask("/api/filled/$id", $editors[$n][0])[2], true);
            self::assertSame([strlen($words) + 1, $words], [$told['revision'], $told['document']['values']['dish']['en']]);
            $this->ask("/api/filled/$id", $editors[$n][0], method: 'DELETE', token: $editors[$n][1]);
        }
        $told = json_decode($this->ask("/api/layouts/{$template['id']}", $designer[0])[2], true);
        self::assertSame([strlen($words) + 1, 'Price for ten, ' . strlen($words)], [$told['revision'], $told['name']]);
        self::assertSame(204, $this->ask("/api/layouts/{$template['id']}", $designer[0], method: 'DELETE', token: $designer[1])[0]);
    }

    /** Ten kills in CI; a hundred, judged after 200 s, with UPPER_PANE_LONG=1. */
    public function testServersThatAreKilledLoseNothing(): void
    {
        $isLong = getenv('UPPER_PANE_LONG') === '1';
        $lease = $isLong ? 150 : 10;
        // Beside the instance of the tests, wherever that stands.
        [$web, $database] = array_map(static fn (string $port): int => (int) $port + 99, explode(' ', (string) getenv('UPPER_PANE_TEST_PORTS')));
        $environment = "UPPER_PANE_KILL_PORT=$web UPPER_PANE_KILL_DB_PORT=$database UPPER_PANE_LEASE_S=$lease APP_ENV=prod STORAGE_DIR= APP_CACHE_DIR=";
        exec("$environment " . dirname(__DIR__, 2) . '/bench/kill ' . ($isLong ? '100 200' : '10 15') . ' </dev/null 2>/tmp/upper-pane-kill.log', $said, $code);
        self::assertSame(0, $code, implode("\n", $said) . "\n" . file_get_contents('/tmp/upper-pane-kill.log'));
        self::assertStringContainsString('wrong: 0', implode("\n", $said));
    }

    /** @return array{string, string} its cookies and its token */
    private function signedIn(string $login = 'rui'): array
    {
        [$status, $headers] = $this->ask('/api/sign-in', '', self::json(['login' => $login, 'password' => 'harbour']));
        self::assertSame(200, $status);
        self::assertSame(2, preg_match_all('/^set-cookie: (upper_pane(?:_mark)?=[^;]+)/mi', $headers, $found));
        sort($found[1]);
        $cookie = implode('; ', $found[1]);
        $told = json_decode($this->ask('/api/session', $cookie)[2], true);

        return [$cookie, $told['csrf']];
    }

    /** @return array{int, string, string} status, headers, body */
    private function ask(string $path, string $cookie, ?string $json = null, string $method = '', string $token = ''): array
    {
        $curl = $this->asked($path, $cookie, $json, $method, $token);
        $answer = (string) curl_exec($curl);
        $size = (int) curl_getinfo($curl, CURLINFO_HEADER_SIZE);

        return [(int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE), substr($answer, 0, $size), substr($answer, $size)];
    }

    private function asked(string $path, string $cookie, ?string $json, string $method, string $token): \CurlHandle
    {
        $curl = curl_init(Desk::url($path));
        assert($curl !== false);
        curl_setopt_array($curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_HEADER => true,
            CURLOPT_TIMEOUT => 60,
            CURLOPT_INTERFACE => $this->from,
            CURLOPT_HTTPHEADER => ["Cookie: $cookie", "X-CSRF-Token: $token", 'Content-Type: application/json'],
        ]);
        if ($json !== null) {
            curl_setopt($curl, CURLOPT_POSTFIELDS, $json);
        }
        if ($method !== '') {
            curl_setopt($curl, CURLOPT_CUSTOMREQUEST, $method);
        }

        return $curl;
    }

    /** @param array<string, mixed> $body */
    private static function json(array $body): string
    {
        return json_encode($body, JSON_THROW_ON_ERROR);
    }

    /** @return resource */
    private function open()
    {
        $from = stream_context_create(['socket' => ['bindto' => "$this->from:0"]]);
        $socket = stream_socket_client('tcp://' . parse_url(Desk::url(), PHP_URL_HOST) . ':' . parse_url(Desk::url(), PHP_URL_PORT), context: $from);

        return is_resource($socket) ? $socket : throw new \RuntimeException('Nobody listens.');
    }

    private function secret(): string
    {
        $players = json_decode((string) file_get_contents(dirname(__DIR__, 2) . '/var/instances/test/storage/players.json'), true);

        return $players[0]['secret'];
    }
}
