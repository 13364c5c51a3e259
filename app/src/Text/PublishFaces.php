<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('upper-pane:faces', 'Publishes the type faces of the house.')]
final readonly class PublishFaces
{
    public function __construct(private HouseFaces $faces)
    {
    }

    public function __invoke(OutputInterface $output): int
    {
        $output->writeln(sprintf('%d faces published.', $this->faces->publish()), OutputInterface::VERBOSITY_VERBOSE);

        return Command::SUCCESS;
    }
}
