<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;

/** For whoever has the server: the first administrator, and a way in where nobody has a password any more. */
#[AsCommand('upper-pane:grant', 'Gives somebody a role; makes the account where there is none, or with --password a new password, and prints it.')]
final class GrantRole extends Command
{
    public function __construct(private readonly EntityManagerInterface $entities, private readonly UserPasswordHasherInterface $hasher)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('login', InputArgument::REQUIRED)
            ->addArgument('role', InputArgument::REQUIRED, implode(', ', array_column(Role::cases(), 'value')))
            ->addOption('place', null, InputOption::VALUE_REQUIRED, 'id of a place; without it everywhere')
            ->addOption('password', null, InputOption::VALUE_NONE, 'make a new password');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $words = static fn (mixed $word): string => is_string($word) ? $word : '';
        [$login, $role, $place] = [$words($input->getArgument('login')), Role::tryFrom($words($input->getArgument('role'))), $input->getOption('place')];
        if ($role === null || preg_match('/^[a-z0-9][a-z0-9.-]{0,79}$/D', $login) !== 1) {
            $output->writeln('A login of small letters, figures, dots and dashes is right, and one of the roles ' . implode(', ', array_column(Role::cases(), 'value')) . '.');

            return Command::INVALID;
        }
        $account = $this->entities->find(Account::class, $login);
        if ($account === null || $input->getOption('password') === true) {
            $account ??= new Account($login, ucfirst($login));
            $password = bin2hex(random_bytes(9));
            $account->setPasswordHash($this->hasher->hashPassword($account, $password));
            $this->entities->persist($account);
            $output->writeln($password);
        }
        $place = is_string($place) ? $place : null;
        if ($this->entities->getRepository(Grant::class)->findOneBy(['login' => $login, 'role' => $role, 'placeId' => $place]) === null) {
            $this->entities->persist(new Grant($login, $role, $place));
        }
        $this->entities->flush();

        return Command::SUCCESS;
    }
}
