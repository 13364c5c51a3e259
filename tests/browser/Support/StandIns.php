<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

/** Simulated players (stand-ins/players.php) of some displays, for as long as a test needs them. */
final class StandIns
{
    private const MOST_S = 900;

    /** @var resource */
    private $process;

    private function __construct(string $list)
    {
        $pipes = [];
        $process = proc_open(['php', dirname(__DIR__, 3) . '/stand-ins/players.php', Desk::url(''), $list, (string) self::MOST_S], [2 => ['file', '/dev/null', 'w']], $pipes);
        $this->process = is_resource($process) ? $process : throw new \RuntimeException('The stand-ins do not start.');
    }

    public static function of(string ...$displays): self
    {
        /** @var list<array{secret: string, display: string}> $players */
        $players = json_decode((string) file_get_contents(dirname(__DIR__, 3) . '/var/instances/test/storage/players.json'), true);
        $list = (string) tempnam(sys_get_temp_dir(), 'players');
        file_put_contents($list, json_encode(array_values(array_filter($players, static fn (array $one): bool => in_array($one['display'], $displays, true)))));

        return new self($list);
    }

    public function stop(): void
    {
        proc_terminate($this->process);
        proc_close($this->process);
    }
}
