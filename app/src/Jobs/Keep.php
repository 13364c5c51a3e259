<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Contracts\Service\ResetInterface;

/**
 * Keeps the house: one worker, the keeper, puts together what players said and writes pointers that are due; the other, the renewer, compiles anew what sources tell
 * by now, and does what is done daily. Each ends by itself, and is started again (bin/lib/common.sh).
 */
#[AsCommand('upper-pane:keep', 'Puts together what players said and writes pointers that are due; as renewer compiles anew what sources tell, and does what is done daily.')]
final class Keep extends Command
{
    /** Names by which they are known among the workers. */
    private const KEEPER = 'keeper';
    private const RENEWER = 'renewer';

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
        $this->addArgument('as', InputArgument::OPTIONAL, 'keeper, or renewer', self::KEEPER)
            ->addOption('seconds', null, InputOption::VALUE_REQUIRED, 'Ends after so many seconds; 0: does what is due, and ends', '1800')
            ->addOption('all', null, InputOption::VALUE_NONE, 'Does all that may be due once, every pointer held against the database');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $name = $input->getArgument('as') === self::RENEWER ? self::RENEWER : self::KEEPER;
        $isQuick = $name === self::KEEPER;
        $errands = array_filter([...$this->errands], static fn (Errand $one): bool => $one::isQuick() === $isQuick);
        $seconds = $input->getOption('seconds');
        $end = microtime(true) + (is_numeric($seconds) ? (float) $seconds : 0);
        foreach ($input->getOption('all') === true ? $errands : [] as $errand) {
            $errand->allDue();
        }
        $round = 0;
        do {
            $this->heartbeat->beat($name);
            do {
                $done = 0;
                foreach ($errands as $errand) {
                    $done += $errand->doDue();
                    $this->heartbeat->beat($name);
                }
            } while ($done > 0);
            if ($round++ % self::CHORES_EVERY === 0) {
                $isQuick ?: $this->chores->doDue();
                $this->resetter->reset();
            }
            if (microtime(true) < $end) {
                usleep(self::PAUSE_US);
            }
        } while (microtime(true) < $end);

        return Command::SUCCESS;
    }
}
