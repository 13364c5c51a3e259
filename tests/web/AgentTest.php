<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

use PHPUnit\Framework\TestCase;

/** The agent of a player's machine (web/public/signal-agent.mjs), heard and spoken to as RFC 6455 has it. */
final class AgentTest extends TestCase
{
    private const PAGE = 'http://desk.example';

    /** @var list<resource> */
    private array $agents = [];

    protected function tearDown(): void
    {
        foreach ($this->agents as $agent) {
            proc_terminate($agent);
            proc_close($agent);
        }
    }

    public function testWhatSensorsSayGoesToAllPagesAndWhatAPageSaysToTheOthers(): void
    {
        $port = $this->agent();
        $player = $this->page($port, '/signals?player');
        self::assertSame(['players' => 1], self::heard($player));
        $bench = $this->page($port);
        self::assertSame([['players' => 1], ['players' => 1]], [self::heard($player), self::heard($bench)]);

        self::assertSame(204, $this->say($port, ['sensor' => 's1', 'mm' => 830])[0]);
        foreach ([$player, $bench] as $page) {
            $told = (array) self::heard($page);
            self::assertSame(['sensor' => 's1', 'mm' => 830], array_diff_key($told[0], ['at' => 1]));
            self::assertEqualsWithDelta(1000 * microtime(true), $told[0]['at'], 60_000, 'the agent says when it came');
        }
        // A list would be what sensors say: pages say objects, and those that do not hear themselves.
        self::tell($player, (string) json_encode([['sensor' => 's1', 'mm' => 5]]));
        self::tell($player, 'no JSON');
        self::tell($player, (string) json_encode(['entered' => [], 'long' => str_repeat('x', 400)]));
        self::assertSame(['entered' => [], 'long' => str_repeat('x', 400)], self::heard($bench));

        self::tell($player, '', 8);
        self::assertSame(['players' => 0], self::heard($bench), 'it has left');
    }

    public function testANeighbourHearsTheSameAndHandsItOnToNobody(): void
    {
        $far = $this->agent();
        $near = $this->agent('--neighbour', "http://127.0.0.1:$far");
        $page = $this->page($far);
        self::heard($page);
        $this->say($near, ['key' => 'F2']);
        self::assertSame('F2', ((array) self::heard($page))[0]['key']);
    }

    public function testAPageOfSomebodyElseIsNotLetInAndOneOfItsOwnMayRead(): void
    {
        $port = $this->agent();
        $socket = $this->opened($port, '/signals', 'http://elsewhere.example');
        self::assertStringContainsString(' 403 ', (string) fgets($socket));
        self::assertSame(403, $this->say($port, ['key' => 'F2'], 'http://elsewhere.example')[0]);
        [$status, $headers] = $this->say($port, ['key' => 'F2'], self::PAGE);
        self::assertSame([204, true], [$status, in_array('Access-Control-Allow-Origin: ' . self::PAGE, $headers, true)]);
        [$status, $headers] = $this->say($port, null, self::PAGE, 'OPTIONS');
        self::assertSame([204, true], [$status, in_array('Access-Control-Allow-Headers: Content-Type', $headers, true)]);
        self::assertSame(404, $this->say($port, null, 'http://elsewhere.example', 'OPTIONS')[0]);
    }

    /** One that is larger than anybody says, or is not masked, comes from no page. */
    public function testFramesThatNoPageSendsEndTheTalk(): void
    {
        $port = $this->agent();
        foreach ([chr(0x81) . chr(0x80 | 127) . str_repeat("\0", 12), chr(0x81) . chr(2) . '{}' . str_repeat("\0", 8)] as $frame) {
            $page = $this->page($port);
            self::heard($page);
            fwrite($page, $frame);
            self::assertSame('', (string) fread($page, 1));
            self::assertTrue(feof($page));
        }
        self::assertSame(204, $this->say($port, ['key' => 'F2'])[0], 'it goes on for all others');
    }

    private function agent(string ...$more): int
    {
        $free = stream_socket_server('tcp://127.0.0.1:0');
        assert($free !== false);
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($free, false), ':'), 1);
        fclose($free);
        $pipes = [];
        $command = ['node', dirname(__DIR__, 2) . '/web/public/signal-agent.mjs', '--page', self::PAGE, '--port', (string) $port, ...array_values($more)];
        $agent = proc_open($command, [2 => ['pipe', 'w']], $pipes);
        $this->agents[] = is_resource($agent) ? $agent : throw new \RuntimeException('The agent does not start.');
        // It says that it listens.
        fgets($pipes[2]);

        return $port;
    }

    /** @return resource */
    private function opened(int $port, string $path, string $origin)
    {
        $socket = stream_socket_client("tcp://127.0.0.1:$port", timeout: 30);
        assert($socket !== false);
        stream_set_timeout($socket, 30);
        $asks = ["GET $path HTTP/1.1", 'Host: 127.0.0.1', 'Upgrade: websocket', 'Connection: Upgrade', 'Sec-WebSocket-Version: 13', "Origin: $origin", 'Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ=='];
        fwrite($socket, implode("\r\n", $asks) . "\r\n\r\n");

        return $socket;
    }

    /** @return resource a page that is let in: the key is the one of RFC 6455, 1.3, and so is the answer to it */
    private function page(int $port, string $path = '/signals')
    {
        $socket = $this->opened($port, $path, self::PAGE);
        $head = '';
        while (!str_ends_with($head, "\r\n\r\n") && ($line = fgets($socket)) !== false) {
            $head .= $line;
        }
        self::assertStringContainsString("Sec-WebSocket-Accept: s3pPLMBiTxaQ9kYGzzhZRbK+xOo=\r\n", $head);

        return $socket;
    }

    /** @param resource $page */
    private static function heard($page): mixed
    {
        [, $kind, $length] = (array) unpack('C2', self::bytes($page, 2)) + [0, 0, 0];
        self::assertSame(0x81, $kind);
        if ($length === 126) {
            $length = ((array) unpack('n', self::bytes($page, 2)))[1];
        }

        return json_decode(self::bytes($page, is_int($length) ? $length : 0), true);
    }

    /** @param resource $page */
    private static function bytes($page, int $count): string
    {
        $bytes = '';
        while (strlen($bytes) < $count && ($more = fread($page, max(1, $count - strlen($bytes)))) !== false && $more !== '') {
            $bytes .= $more;
        }

        return $bytes;
    }

    /** @param resource $page */
    private static function tell($page, string $text, int $kind = 1): void
    {
        $mask = 'mask';
        $length = strlen($text);
        $masked = $text ^ substr(str_repeat($mask, intdiv($length, 4) + 1), 0, $length);
        fwrite($page, chr(0x80 | $kind) . ($length < 126 ? chr(0x80 | $length) : chr(0x80 | 126) . pack('n', $length)) . $mask . $masked);
    }

    /** @return array{int, list<string>} status and headers */
    private function say(int $port, mixed $entry, ?string $origin = null, string $method = 'POST'): array
    {
        $context = stream_context_create(['http' => [
            'method' => $method,
            'header' => 'Content-Type: application/json' . ($origin === null ? '' : "\r\nOrigin: $origin"),
            'content' => $entry === null ? '' : json_encode($entry, JSON_THROW_ON_ERROR),
            'ignore_errors' => true,
            'timeout' => 30,
        ]]);
        file_get_contents("http://127.0.0.1:$port/signal", false, $context);

        return [(int) explode(' ', $http_response_header[0] ?? '0 0')[1], $http_response_header];
    }
}
