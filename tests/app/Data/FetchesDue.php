<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Data;

use Psr\Log\NullLogger;
use Symfony\Component\Clock\Clock;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\HttpClient\MockHttpClient;
use Symfony\Contracts\Service\ResetInterface;
use UpperPane\App\Data\FetchDoor;
use UpperPane\App\Data\FetchSources;
use UpperPane\App\Data\FieldPictures;
use UpperPane\App\Data\Sealing;
use UpperPane\App\Data\Snapshots;
use UpperPane\App\Data\SourceStates;
use UpperPane\App\Jobs\Heartbeat;
use UpperPane\App\Layout\DesignLibrary;

/** Lets who fetches do all that is due, in a network that is told what it says. */
trait FetchesDue
{
    /** All hosts lie in the open network, but that of trap.example. */
    private function fetchDue(MockHttpClient $client): void
    {
        $service = static fn (string $class): object => static::getContainer()->get($class);
        $door = new FetchDoor('*', '', static fn (string $host): array => $host === 'trap.example' ? ['127.0.0.1'] : ['93.184.216.34']);
        [$states, $snapshots, $sealing, $pictures] = array_map($service, [SourceStates::class, Snapshots::class, Sealing::class, FieldPictures::class]);
        [$library, $heartbeat] = array_map($service, [DesignLibrary::class, Heartbeat::class]);
        self::assertTrue($states instanceof SourceStates && $snapshots instanceof Snapshots && $sealing instanceof Sealing && $pictures instanceof FieldPictures);
        self::assertTrue($library instanceof DesignLibrary && $heartbeat instanceof Heartbeat);
        $reset = new class implements ResetInterface {
            public function reset(): void
            {
            }
        };
        $command = new FetchSources($states, $snapshots, $sealing, $pictures, $library, $client, $door, $heartbeat, $this->entities(), Clock::get(), new NullLogger(), $reset);
        self::assertSame(0, (new CommandTester($command))->execute(['--seconds' => '0']));
    }
}
