<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

/** A server of a test: started in its own process group, ended with all its children, also when the test dies. */
final class Process
{
    private function __construct(private int $pid)
    {
        register_shutdown_function($this->stop(...));
    }

    /** @param list<string> $command */
    public static function start(array $command, string $readyUrl): self
    {
        $log = sys_get_temp_dir() . '/upper-pane-' . basename($command[0]) . '.log';
        $process = proc_open(['setsid', ...$command], [['file', '/dev/null', 'r'], ['file', $log, 'w'], ['file', $log, 'a']], $pipes);
        assert(is_resource($process));
        $self = new self(proc_get_status($process)['pid']);
        $end = microtime(true) + 20;
        while (!self::answers($readyUrl)) {
            if (microtime(true) > $end) {
                throw new \RuntimeException("$command[0] does not answer; see $log");
            }
            usleep(50_000);
        }

        return $self;
    }

    /** Asked with curl, since a server that keeps the connection open holds up PHP's own stream until its time limit. */
    public static function answers(string $url): bool
    {
        $curl = curl_init($url);
        assert($curl !== false);
        curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT_MS => 2000, CURLOPT_FAILONERROR => true]);

        return curl_exec($curl) !== false;
    }

    public static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new \RuntimeException('No free port.');
        $name = (string) stream_socket_get_name($socket, false);
        fclose($socket);

        return (int) substr($name, (int) strrpos($name, ':') + 1);
    }

    public function stop(): void
    {
        if ($this->pid > 0) {
            @posix_kill(-$this->pid, SIGTERM);
            $this->pid = 0;
        }
    }
}
