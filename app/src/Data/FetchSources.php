<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Contracts\HttpClient\HttpClientInterface;
use Symfony\Contracts\Service\ResetInterface;
use UpperPane\App\Jobs\Heartbeat;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Layout\DesignLibrary;
use UpperPane\Core\Data\Source;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

/** Fetches sources when they are due, many at a time. Ends by itself, and is started again (bin/lib/common.sh). */
#[AsCommand('upper-pane:fetch', 'Fetches sources of data when they are due.')]
final class FetchSources extends Command
{
    /** Name by which it is known among the workers. */
    public const NAME = 'fetcher';

    /** Each may bring 20 MB, and what one brings takes many times as much while it is looked into. */
    private const AT_ONCE = 8;
    private const PAUSE_US = 250_000;
    /** A picture has so long to come, s. */
    private const PICTURE_S = 20;
    private const RESET_EVERY = 40;

    public function __construct(
        private readonly SourceStates $states,
        private readonly Snapshots $snapshots,
        private readonly Sealing $sealing,
        private readonly FieldPictures $pictures,
        private readonly DesignLibrary $library,
        private readonly HttpClientInterface $client,
        private readonly FetchDoor $door,
        private readonly Heartbeat $heartbeat,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
        private readonly LoggerInterface $logger,
        #[Autowire(service: 'services_resetter')]
        private readonly ResetInterface $resetter,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('seconds', null, InputOption::VALUE_REQUIRED, 'Ends after so many seconds; 0: fetches what is due, and ends', '900');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $seconds = $input->getOption('seconds');
        $end = microtime(true) + (is_numeric($seconds) ? (float) $seconds : 0);
        $fetching = new Fetching($this->client, $this->door);
        $round = 0;
        do {
            $this->heartbeat->beat(self::NAME);
            while ($fetching->count() < self::AT_ONCE && ($id = $this->states->take((int) $this->clock->now()->format('Uv'))) !== null) {
                $this->begin($fetching, $id);
            }
            while ($fetching->count() < self::AT_ONCE && ($picture = $this->pictures->take()) !== null) {
                $this->beginPicture($fetching, $picture);
            }
            if ($fetching->count() > 0) {
                $fetching->look();
            } elseif (microtime(true) < $end) {
                usleep(self::PAUSE_US);
            }
            if (++$round % self::RESET_EVERY === 0 && $fetching->count() === 0) {
                $this->resetter->reset();
            }
        } while (microtime(true) < $end || $fetching->count() > 0);

        return Command::SUCCESS;
    }

    /** @param array{source_id: string, hash: string, address: string, etag: ?string, modified: ?string} $picture */
    private function beginPicture(Fetching $fetching, array $picture): void
    {
        $this->entities->clear();
        $document = $this->library->document($picture['source_id'], DesignKind::Source);
        $address = is_array($document['from'] ?? null) && is_string($document['from']['address'] ?? null) ? $document['from']['address'] : null;
        $sealed = $address !== null && Fetch::origin($address) === Fetch::origin($picture['address']) ? $this->states->sealed($picture['source_id']) : null;
        $fetching->begin(
            $picture['address'],
            // What the source is asked with is told to its own host alone.
            $sealed === null ? [] : $this->sealing->opened($sealed) ?? [],
            self::PICTURE_S,
            $picture['etag'],
            $picture['modified'],
            function (Fetched $fetched) use ($picture): void {
                try {
                    $this->pictures->came($picture['source_id'], $picture['hash'], $fetched);
                } catch (\Throwable $e) {
                    $this->logger->error('A picture was fetched, and not kept: {message}', ['message' => $e->getMessage(), 'exception' => $e]);
                }
            },
        );
    }

    private function begin(Fetching $fetching, string $id): void
    {
        // As it is saved by now, whatever was read before.
        $this->entities->clear();
        $document = $this->library->document($id, DesignKind::Source);
        try {
            $source = $document === null ? null : Source::fromNode(Node::root($document));
        } catch (Refused) {
            $source = null;
        }
        $address = $source?->address();
        if ($document === null || $source === null || $address === null) {
            // It was deleted, comes from elsewhere by now, or cannot be read.
            $this->states->due($id, null);

            return;
        }
        $this->states->holds($id, (int) $this->clock->now()->format('Uv') + 1000 * $source->timeoutS());
        $state = $this->states->of($id);
        $sealed = $this->states->sealed($id);
        $headers = $sealed === null ? [] : $this->sealing->opened($sealed);
        $done = function (Fetched $fetched) use ($document): void {
            try {
                $this->snapshots->take($document, $fetched);
            } catch (\Throwable $e) {
                $this->logger->error('Fetched, and not kept: {message}', ['message' => $e->getMessage(), 'exception' => $e]);
            }
        };
        if ($headers === null) {
            $done(new Fetched(null, null, 0, 0, 'What it is asked with cannot be opened any more; type it anew.'));

            return;
        }
        $fetching->begin($address, $headers, $source->timeoutS(), $state?->sha256 === null ? null : $state->etag, $state?->sha256 === null ? null : $state->modified, $done);
    }
}
