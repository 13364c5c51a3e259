<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Contracts\Service\ResetInterface;
use UpperPane\App\Playback\Pointers;
use UpperPane\App\Playback\Reports;

/** Keeps the house: what players said is put together, pointers that are due are written, and what is done daily is done. Ends by itself, and is started again (bin/lib/common.sh). */
#[AsCommand('upper-pane:keep', 'Puts together what players said, writes pointers that are due, and does what is done daily.')]
final class Keep extends Command
{
    /** Name by which it is known among the workers. */
    public const NAME = 'keeper';

    private const PAUSE_US = 500_000;
    private const CHORES_EVERY = 20;

    public function __construct(
        private readonly Reports $reports,
        private readonly Pointers $pointers,
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
            ->addOption('all-pointers', null, InputOption::VALUE_NONE, 'Holds every pointer against the database once');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $seconds = $input->getOption('seconds');
        $end = microtime(true) + (is_numeric($seconds) ? (float) $seconds : 0);
        if ($input->getOption('all-pointers') === true) {
            $this->pointers->allDue();
        }
        $round = 0;
        do {
            $this->heartbeat->beat(self::NAME);
            while ($this->reports->together() + $this->pointers->writeDue() > 0) {
                $this->heartbeat->beat(self::NAME);
            }
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
