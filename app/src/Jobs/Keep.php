<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Contracts\Service\ResetInterface;

/** Keeps the house: what players said is put together, pointers that are due are written, and what is done daily is done. Ends by itself, and is started again (bin/lib/common.sh). */
#[AsCommand('upper-pane:keep', 'Puts together what players said, writes pointers that are due, and does what is done daily.')]
final class Keep extends Command
{
    /** Name by which it is known among the workers. */
    public const NAME = 'keeper';

    private const PAUSE_US = 500_000;
    private const CHORES_EVERY = 20;

    /** @param iterable<Errand> $errands */
    public function __construct(
        #[AutowireIterator(Errand::class)]
        private readonly iterable $errands,
        private readonly Chores $chores,
        private readonly Heartbeat $heartbeat,
        #[Autowire(service: 'services_resetter')]
        private readonly ResetInterface $resetter,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('seconds', null, InputOption::VALUE_REQUIRED, 'Ends after so many seconds; 0: does what is due, and ends', '1800')
            ->addOption('all', null, InputOption::VALUE_NONE, 'Does all that may be due once, every pointer held against the database');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $seconds = $input->getOption('seconds');
        $end = microtime(true) + (is_numeric($seconds) ? (float) $seconds : 0);
        foreach ($input->getOption('all') === true ? $this->errands : [] as $errand) {
            $errand->allDue();
        }
        $round = 0;
        do {
            $this->heartbeat->beat(self::NAME);
            do {
                $done = 0;
                foreach ($this->errands as $errand) {
                    $done += $errand->doDue();
                    $this->heartbeat->beat(self::NAME);
                }
            } while ($done > 0);
            if ($round++ % self::CHORES_EVERY === 0) {
                $this->chores->doDue();
                $this->resetter->reset();
            }
            if (microtime(true) < $end) {
                usleep(self::PAUSE_US);
            }
        } while (microtime(true) < $end);

        return Command::SUCCESS;
    }
}
