<?php

declare(strict_types=1);

namespace UpperPane\Tests\App;

use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\Clock\Clock;
use Symfony\Component\Clock\Test\ClockSensitiveTrait;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Messenger\Stamp\ReceivedStamp;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use UpperPane\App\Account\Account;
use UpperPane\App\Account\Grant;
use UpperPane\App\Account\Role;
use UpperPane\App\Display\Place;
use UpperPane\App\Display\SurveyedDisplay;
use UpperPane\App\Jobs\TableTransport;
use UpperPane\App\Media\MediaAsset;
use UpperPane\App\Playback\Player;
use UpperPane\App\Playback\Reports;
use UpperPane\Core\Handover\Release;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Tests\Core\Make;

/** Speaks with the API as a signed-in designer, on a small estate that is rolled back after each test. */
abstract class ApiTestCase extends WebTestCase
{
    use ClockSensitiveTrait;

    protected KernelBrowser $client;
    protected string $csrf = '';

    protected function setUp(): void
    {
        // It is ten in the morning of a summer's day in Lisbon, whenever the tests run.
        static::mockTime('2026-06-01T09:00:00Z');
        $this->client = static::createClient();
        $this->client->disableReboot();
        $this->entities()->persist($hall = new Place('hall', 'Departure hall'));
        $this->entities()->persist($gates = new Place('gates', 'Gates', $hall));
        $this->entities()->persist(new SurveyedDisplay('wide', $hall, ['id' => 'wide', 'name' => 'Wide'] + Make::display()));
        $this->entities()->persist(new SurveyedDisplay('tall', $gates, ['id' => 'tall', 'name' => 'Tall'] + Make::display(1920, 1080, 90), 1));
        $account = new Account('ines', 'Ines');
        $hasher = static::getContainer()->get(UserPasswordHasherInterface::class);
        $account->setPasswordHash($hasher->hashPassword($account, 'harbour'));
        $this->entities()->persist($account);
        $this->entities()->persist(new Grant('ines', Role::Administrator));
        $this->entities()->flush();
    }

    /** The instant at which the test happens, or one beside it, such as `-1 minute`. */
    protected static function now(string $beside = '+0 seconds'): \DateTimeImmutable
    {
        return Clock::get()->now()->modify($beside);
    }

    protected function signIn(string $password = 'harbour', string $login = 'ines'): int
    {
        $status = $this->ask('POST', '/api/sign-in', ['login' => $login, 'password' => $password])[0];
        $this->csrf = (string) ($this->ask('GET', '/api/session')[1]['csrf'] ?? '');

        return $status;
    }

    /**
     * @param array<string, mixed>|string|null $body
     * @return array{int, array<string, mixed>}
     */
    protected function ask(string $method, string $path, array|string|null $body = null, bool $withToken = true): array
    {
        $headers = ['HTTP_ACCEPT' => 'application/json'] + ($withToken ? ['HTTP_X_CSRF_TOKEN' => $this->csrf] : []);
        if ($body !== null) {
            $headers['CONTENT_TYPE'] = 'application/json';
        }
        $this->client->request($method, $path, server: $headers, content: is_array($body) ? (string) json_encode($body) : $body);
        $response = $this->client->getResponse();

        return [$response->getStatusCode(), (array) json_decode((string) $response->getContent(), true)];
    }

    /**
     * Signs in an account with a role at a place, or everywhere.
     *
     * @param list<array{Role, string}> $others
     */
    protected function somebody(string $login, Role $role, ?string $place = null, array $others = []): void
    {
        $account = new Account($login === '' ? 'x' : $login, ucfirst($login));
        $account->setPasswordHash(static::getContainer()->get(UserPasswordHasherInterface::class)->hashPassword($account, 'harbour'));
        $this->entities()->persist($account);
        foreach ([[$role, $place], ...$others] as [$one, $at]) {
            $this->entities()->persist(new Grant($account->login, $one, $at));
        }
        $this->entities()->flush();
        self::assertSame(200, $this->signIn(login: $login));
    }

    protected function entities(): EntityManagerInterface
    {
        return static::getContainer()->get(EntityManagerInterface::class);
    }

    protected function published(): FilesystemOperator
    {
        return static::getContainer()->get('app.published');
    }

    /** @return array<string, mixed> of what was handed over to a display */
    protected function manifestOn(string $display): array
    {
        $release = $this->entities()->getConnection()->fetchOne('SELECT r.file FROM surveyed_display s JOIN handed_release r ON r.id = s.current_id WHERE s.id = ?', [$display]);

        return (array) json_decode($this->published()->read(is_string($release) ? $release : ''), true);
    }

    protected function media(string $id = 'pier', int $width = 1920, int $height = 1080, ?int $lengthMs = null): MediaAsset
    {
        $asset = new MediaAsset($id, "$id.png", 1000, self::now());
        [$path, $sha256] = static::getContainer()->get(\UpperPane\App\Media\Publisher::class)->content('files', "content of $id", 'png');
        $asset->ready(new \UpperPane\App\Media\Probed('image/png', 'png', \UpperPane\Core\Geometry\Size::px($width, $height), $lengthMs), $sha256, $path, $path);
        $this->entities()->persist($asset);
        $this->entities()->flush();

        return $asset;
    }

    protected function player(string $display): Player
    {
        $player = new Player("player-$display", 'Player', $this->entities()->find(SurveyedDisplay::class, $display) ?? throw new \LogicException(), Player::newSecret(), self::now());
        $this->entities()->persist($player);
        $this->entities()->flush();

        return $player;
    }

    /**
     * @param array<string, mixed> $document
     * @return array<string, mixed> the saved layout
     */
    protected function made(array $document, string $name = 'Morning'): array
    {
        [$status, $layout] = $this->ask('POST', '/api/layouts', ['name' => $name, 'document' => array_diff_key($document, ['format' => 1, 'id' => 1, 'name' => 1])]);
        self::assertSame(201, $status, (string) json_encode($layout));

        return $layout;
    }

    /**
     * Hands over, and lets the job that is noted do its work.
     *
     * @param array<string, mixed> $body
     * @return array<string, mixed> what is said of it afterwards, with its releases
     */
    protected function handOver(array $body, string $path = '/api/handover'): array
    {
        [$status, $answer] = $this->ask('POST', $path, $body);
        self::assertSame(202, $status, (string) json_encode($answer));
        $this->work();

        return $this->ask('GET', "/api/handings/{$answer['handing']['id']}")[1];
    }

    /**
     * @param array<string, mixed> $release as it is told
     * @return array<string, mixed> in one piece, as it lies there to be fetched
     */
    protected function fetched(array $release): array
    {
        $read = fn (string $url): array => (array) json_decode($this->published()->read(ltrim($url, '/')), true);

        return Release::inOne($read($release['url']), static fn (string $sha256): array => $read(Sheet::path($sha256)), 'any', 'Any');
    }

    /**
     * What a player says, put together at once.
     *
     * @param array<string, mixed> $report
     * @return int status of the answer
     */
    protected function reports(string $secret, array $report): int
    {
        [$status] = $this->ask('POST', "/api/play/$secret/report", $report);
        $reports = static::getContainer()->get(Reports::class);
        $reports->doDue();
        $this->entities()->clear();

        return $status;
    }

    /**
     * What a player is told.
     *
     * @return array<string, mixed>
     */
    protected function pointer(string $secret): array
    {
        return (array) json_decode($this->published()->read("pointers/$secret.json"), true);
    }

    /** @return array<string, mixed> what stands on a display, as its player reads it */
    protected function sheetOn(string $display): array
    {
        $file = $this->entities()->getConnection()->fetchOne('SELECT r.file FROM handed_release r JOIN surveyed_display s ON s.current_id = r.id WHERE s.id = ?', [$display]);
        $read = fn (string $path): array => (array) json_decode($this->published()->read(ltrim($path, '/')), true);
        $base = $read(is_string($file) ? $file : '')['planes']['base']['sheet']['url'];

        return Sheet::inOne($read($base), static fn (string $sha256): array => $read(Sheet::path($sha256)));
    }

    /** @return list<string> displays on which something stands that is another by now */
    protected function older(): array
    {
        $displays = Estate::together($this->ask('GET', '/api/estate')[1])['displays'];

        return array_column(array_filter($displays, static fn (array $one): bool => $one['saved_not_handed_over']), 'id');
    }

    /**
     * The estate, with what is told once for many put to each.
     *
     * @return array<string, mixed>
     */
    protected function estate(string $query = ''): array
    {
        return Estate::together($this->ask('GET', "/api/estate?$query")[1]);
    }

    /** Does all jobs that are noted. */
    protected function work(): void
    {
        foreach (['probe', 'release'] as $name) {
            $queue = static::getContainer()->get("messenger.transport.$name");
            assert($queue instanceof TableTransport);
            while (($envelope = [...$queue->get()][0] ?? null) !== null) {
                static::getContainer()->get(MessageBusInterface::class)->dispatch($envelope->with(new ReceivedStamp($name)));
                $queue->ack($envelope);
            }
        }
        // The next request knows nothing of what a worker has read.
        $this->entities()->clear();
    }

    /** @return array<string, mixed> a layout of one picture over a whole canvas */
    protected function whole(MediaAsset $asset, int $width = 1920, int $height = 1080): array
    {
        $item = ['id' => 'i1', 'media' => $asset->media()?->toArray(), 'duration_ms' => 10_000];

        return Make::layout([Make::zone('main', 0, 0, $width, $height, [$item])], $width, $height);
    }
}
