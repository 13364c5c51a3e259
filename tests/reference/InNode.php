<?php

declare(strict_types=1);

namespace UpperPane\Tests\Reference;

use PHPUnit\Framework\Assert;

/** A second hand: a script for Node that reads JSON and writes JSON, with the packages of the front end at hand. */
final readonly class InNode
{
    public const WEB = __DIR__ . '/../../web';

    public static function asked(string $script, mixed $question): mixed
    {
        $head = "import { readFileSync } from 'node:fs'\nconst asked = JSON.parse(readFileSync(0, 'utf8'))\n";
        $process = proc_open(['node', '--input-type=module', '-e', $head . $script], [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes, self::WEB);
        Assert::assertIsResource($process);
        fwrite($pipes[0], (string) json_encode($question));
        fclose($pipes[0]);
        [$out, $error] = [(string) stream_get_contents($pipes[1]), (string) stream_get_contents($pipes[2])];
        Assert::assertSame(0, proc_close($process), $error);

        return json_decode($out, true);
    }
}
