<?php

declare(strict_types=1);

namespace UpperPane\Demo;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Target;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use Symfony\Component\Security\Core\Authentication\Token\UsernamePasswordToken;
use UpperPane\App\Account\Account;
use UpperPane\App\Account\Grant;
use UpperPane\App\Account\Role;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Display\SurveyRevision;
use UpperPane\App\Handover\Handings;
use UpperPane\App\Handover\HandOver;
use UpperPane\App\Handover\Offer;
use UpperPane\App\Handover\Offers;
use UpperPane\App\Handover\Order;
use UpperPane\App\Handover\Programmes;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Media\ProbeMedia;
use UpperPane\App\Media\ProbeMediaHandler;
use UpperPane\App\Playback\Player;
use UpperPane\App\Playback\Pointers;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Thing;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Units\LocalTime;

/** Loads the demo estate into an empty database: the Pellan Islands Ferries, all made up. */
#[AsCommand('upper-pane:demo', 'Loads the demo estate into an empty database.')]
final readonly class LoadDemo
{
    public const PASSWORD = 'harbour';

    public function __construct(
        private EntityManagerInterface $entities,
        private UserPasswordHasherInterface $hasher,
        private ProbeMediaHandler $probe,
        private Programmes $programmes,
        private Offers $offers,
        private Handings $handings,
        private Pointers $pointers,
        private Transaction $transaction,
        private Record $record,
        private TokenStorageInterface $tokens,
        private ClockInterface $clock,
        #[Target('incoming')]
        private FilesystemOperator $incoming,
        private string $projectDir,
        private string $storageDir,
        private string $feedsUrl,
    ) {
    }

    public function __invoke(InputInterface $input, OutputInterface $output): int
    {
        if ($this->entities->getRepository(Place::class)->count() > 0) {
            $output->writeln('There is an estate already; nothing is loaded.');

            return Command::SUCCESS;
        }
        $demo = Node::fromJson((string) file_get_contents("$this->projectDir/demo/estate.json"));
        $this->accounts($demo->field('accounts'));
        $this->signIn('ines');
        $this->places($demo->field('places'));
        $this->displays($demo->field('displays'));
        $this->media();
        $this->designs($demo->field('made_for'), $demo->field('open_at'));
        $this->players($demo);
        foreach ($demo->field('handed_over')->items() as $row) {
            $source = $this->programmes->source($row->field('source'));
            $offers = $this->offers->of($this->offers->now($source), array_map(static fn (Node $id): string => $id->id(), $row->field('displays')->items()));
            $orders = array_map(static fn (Offer $offer): Order => Order::of($offer), $offers);
            // Whoever works on it later finds it done.
            $this->handings->work(new HandOver($this->handings->begin($source->name, $orders)->id));
            $this->entities->clear();
        }

        return Command::SUCCESS;
    }

    private function accounts(Node $accounts): void
    {
        foreach ($accounts->items() as $row) {
            $login = $row->field('login')->id();
            assert($login !== '');
            $account = new Account($login, $row->field('name')->text());
            $account->setPasswordHash($this->hasher->hashPassword($account, self::PASSWORD));
            $this->entities->persist($account);
            foreach ($row->field('roles')->items() as $grant) {
                $role = Role::from($grant->field('role')->oneOf(...array_column(Role::cases(), 'value')));
                $this->entities->persist(new Grant($login, $role, $grant->optional('place')?->id()));
            }
        }
        $this->entities->flush();
    }

    /** Whoever does all this, as the record tells it. */
    private function signIn(string $login): void
    {
        $account = $this->entities->find(Account::class, $login) ?? throw new \LogicException("There is no account $login.");
        $this->tokens->setToken(new UsernamePasswordToken($account, 'desk', $account->getRoles()));
    }

    private function made(Thing $thing): void
    {
        $this->transaction->of(fn () => $this->record->note(Did::Made, $thing->about()));
    }

    private function places(Node $places): void
    {
        foreach ($places->items() as $position => $row) {
            $parent = $row->field('parent')->value === null ? null : $this->entities->find(Place::class, $row->field('parent')->id());
            $this->entities->persist(new Place($row->field('id')->id(), $row->field('name')->text(), $parent, $position, $row->optional('settings')?->fields() ?? []));
            $this->entities->flush();
        }
    }

    private function displays(Node $displays): void
    {
        foreach ($displays->items() as $position => $row) {
            $document = $row->field('display');
            $place = $this->entities->find(Place::class, $row->field('place')->id()) ?? throw $row->refused(Reason::RefUnknown, 'hangs at no place.');
            $display = new SurveyedDisplay($document->field('id')->id(), $place, (array) $document->value, $position);
            $display->settings = $row->optional('settings')?->fields() ?? [];
            $display->settle();
            $now = $this->clock->now();
            $display->savedAt = $now;
            $display->savedBy = 'ines';
            $this->entities->persist($display);
            $this->entities->persist(new SurveyRevision($display->id, 1, $display->document, $now, 'ines'));
            $this->made($display);
        }
        $this->entities->flush();
    }

    private function media(): void
    {
        foreach (glob("$this->projectDir/demo/media/*.*") ?: [] as $file) {
            $asset = new MediaAsset(pathinfo($file, PATHINFO_FILENAME), basename($file), (int) filesize($file), $this->clock->now(), 'ines');
            $this->incoming->write($asset->id, (string) file_get_contents($file));
            $this->entities->persist($asset);
            $this->entities->flush();
            ($this->probe)(new ProbeMedia($asset->id));
            $this->made($asset);
            if ($asset->state !== MediaAsset::READY) {
                throw new \RuntimeException((string) $asset->refusal);
            }
        }
    }

    private function keep(Design $design): void
    {
        $this->entities->persist($design);
        $this->entities->persist($design->asRevision());
        $this->made($design);
    }

    private function designs(Node $madeFor, Node $openAt): void
    {
        foreach (glob("$this->projectDir/demo/layouts/*.json") ?: [] as $file) {
            $document = $this->document($file);
            $earlier = "$this->projectDir/demo/earlier/" . basename($file);
            $design = $this->design(is_file($earlier) ? $this->document($earlier) : $document, $madeFor->optional(basename($file, '.json'))?->id(), $openAt->optional(basename($file, '.json'))?->id());
            $this->keep($design);
            if (is_file($earlier)) {
                $this->entities->flush();
                $design->take($document, $this->clock->now(), 'ines');
                $this->entities->persist($design->asRevision());
            }
        }
        foreach (glob("$this->projectDir/demo/overlays/*.json") ?: [] as $file) {
            $this->keep($this->design($this->document($file), null));
        }
        foreach (glob("$this->projectDir/demo/triggers/*.json") ?: [] as $file) {
            $this->keep($this->design($this->document($file), $madeFor->optional(basename($file, '.json'))?->id()));
        }
        foreach (glob("$this->projectDir/demo/panels/*.json") ?: [] as $file) {
            $this->keep($this->design($this->document($file), null));
        }
        foreach (glob("$this->projectDir/demo/styles/*.json") ?: [] as $file) {
            /** @var array<string, mixed> $document */
            $document = (array) Node::fromJson((string) file_get_contents($file))->value;
            $head = Node::root($document);
            $this->keep(new Design($head->field('id')->id(), DesignKind::Style, $head->field('name')->text(), $document, null, $this->clock->now(), 'ines'));
        }
        $this->entities->flush();
        foreach (glob("$this->projectDir/demo/filled/*.json") ?: [] as $file) {
            $node = Node::fromJson((string) file_get_contents($file));
            $this->keep($this->design($this->withMediaIds((array) $node->field('document')->value), $node->field('display')->id()));
        }
        foreach (glob("$this->projectDir/demo/sources/*.json") ?: [] as $file) {
            // The outside world of the demo is the Bench's feeds.
            /** @var array<string, mixed> $document */
            $document = (array) Node::fromJson(str_replace('http://feeds.example', $this->feedsUrl, (string) file_get_contents($file)))->value;
            $head = Node::root($document);
            $this->keep(new Design($head->field('id')->id(), DesignKind::Source, $head->field('name')->text(), $document, null, $this->clock->now(), 'ines'));
        }
        foreach (glob("$this->projectDir/demo/schedules/*.json") ?: [] as $file) {
            $node = Node::fromJson((string) file_get_contents($file));
            /** @var array<string, mixed> $document */
            $document = $this->ahead((array) $node->field('document')->value);
            $head = $node->field('document');
            $this->keep(new Design($head->field('id')->id(), DesignKind::Schedule, $head->field('name')->text(), $document, null, $this->clock->now(), 'ines', $node->field('place')->id()));
        }
        $this->entities->flush();
    }

    /** @return array<string, mixed> */
    private function document(string $file): array
    {
        /** @var array<string, mixed> $document */
        $document = $this->withMediaIds((array) Node::fromJson((string) file_get_contents($file))->value);

        return $document;
    }

    /** @param array<mixed> $document */
    private function design(array $document, ?string $display, ?string $place = null): Design
    {
        /** @var array<string, mixed> $document */
        $node = Node::root($document);
        $kind = DesignKind::ofFormat($node->field('format')->text()) ?? throw $node->field('format')->refused(Reason::ValueUnknown, 'is no format of a design.');

        return new Design($node->field('id')->id(), $kind, $node->field('name')->text(), $document, $display, $this->clock->now(), 'ines', $place);
    }

    /**
     * What is booked for one date stands on the same weekday of the seven days from tomorrow on: on any day something lies ahead.
     *
     * @param array<mixed> $schedule
     * @return array<mixed>
     */
    private function ahead(array $schedule): array
    {
        $tomorrow = intdiv($this->clock->now()->getTimestamp(), 86_400) + 1;
        $bookings = is_array($schedule['bookings']) ? $schedule['bookings'] : [];
        foreach ($bookings as $place => $booking) {
            if (!is_array($booking) || isset($booking['rrule']) || !is_string($booking['start']) || !is_string($booking['end'])) {
                continue;
            }
            $weeks = (int) ceil(($tomorrow - LocalTime::parse($booking['start'])->day()) / 7);
            foreach (['start' => $booking['start'], 'end' => $booking['end']] as $edge => $text) {
                $booking[$edge] = (string) LocalTime::ofSeconds(LocalTime::parse($text)->seconds + $weeks * 7 * 86_400);
            }
            $bookings[$place] = $booking;
        }

        return array_replace($schedule, ['bookings' => $bookings]);
    }

    /** Players that the stand-in plays (stand-ins/players.php reads the list that is written here). */
    private function players(Node $demo): void
    {
        $names = static fn (string $list): array => array_map(static fn (Node $id): string => $id->id(), $demo->field($list)->items());
        $addresses = [];
        foreach ($this->entities->getRepository(SurveyedDisplay::class)->findBy([], ['position' => 'ASC']) as $display) {
            if (in_array($display->id, $names('without_player'), true)) {
                continue;
            }
            $surveyed = $display->display();
            foreach ($surveyed->players as $part) {
                $several = count($surveyed->players) > 1;
                $id = "player-$display->id" . ($several ? "-$part->id" : '');
                $name = 'Player ' . ($several ? "$part->id " : '') . "of $surveyed->name";
                $player = new Player($id, $name, $display, Player::newSecret(), $this->clock->now());
                $player->part = $part->id;
                $this->entities->persist($player);
                $addresses[] = [
                    'secret' => $player->secret,
                    'display' => $display->id,
                    'outputs' => $player->outputs(),
                    'silent_after_s' => in_array($display->id, $names('silent_players'), true) ? 5 : null,
                ];
            }
        }
        $this->entities->flush();
        while ($this->pointers->doDue() > 0) {
        }
        file_put_contents("$this->storageDir/players.json", json_encode($addresses, JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR));
    }

    /**
     * @param array<mixed> $document
     * @return array<mixed>
     */
    private function withMediaIds(array $document): array
    {
        foreach ($document as $key => $value) {
            // What is filled in names a picture by the name of its slot.
            if (in_array($key, ['media', 'standby', 'photo'], true) && is_array($value) && is_string($value['name'] ?? null)) {
                $document[$key] = ['id' => pathinfo($value['name'], PATHINFO_FILENAME)] + $value;
            } elseif (is_array($value)) {
                $document[$key] = $this->withMediaIds($value);
            }
        }

        return $document;
    }
}
