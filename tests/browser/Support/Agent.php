<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

/** The agent of this machine (web/public/signal-agent.mjs): what sensors say goes by it to the pages of the player. */
final class Agent
{
    private const ADDRESS = 'http://127.0.0.1:47400';

    /** @var resource */
    private $process;

    private function __construct()
    {
        $taken = @stream_socket_client('tcp://127.0.0.1:47400', timeout: 2);
        if ($taken !== false) {
            throw new \RuntimeException('Something has port 47400 already, which is that of every agent: stop the desk (bin/stop) before these tests.');
        }
        $pipes = [];
        $agent = proc_open(['node', dirname(__DIR__, 3) . '/web/public/signal-agent.mjs', '--page', Desk::url('/')], [2 => ['file', '/dev/null', 'w']], $pipes);
        $this->process = is_resource($agent) ? $agent : throw new \RuntimeException('The agent does not start.');
    }

    public static function started(): self
    {
        return new self();
    }

    public function stop(): void
    {
        proc_terminate($this->process);
        proc_close($this->process);
    }

    /** @return int what the agent answers; 0 where nobody does */
    public function say(mixed $entry, string $path = '/signal', ?string $origin = null): int
    {
        $context = stream_context_create(['http' => [
            'method' => 'POST',
            'header' => "Content-Type: application/json\r\n" . ($origin === null ? '' : "Origin: $origin\r\n"),
            'content' => is_string($entry) ? $entry : json_encode($entry, JSON_THROW_ON_ERROR),
            'ignore_errors' => true,
            'timeout' => 10,
        ]]);
        $answer = @file_get_contents(self::ADDRESS . $path, false, $context);

        return $answer === false ? 0 : (int) explode(' ', $http_response_header[0] ?? '0 0')[1];
    }
}
