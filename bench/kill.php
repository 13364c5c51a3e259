<?php

declare(strict_types=1);

// Called by bench/kill with the address of its instance, how many kills, how long to wait before judging (s), the instance's folder and its name and
// ports for bin/lib/server; and by itself as a writer: php bench/kill.php writer ADDRESS NUMBER LEDGER STOP-FILE

namespace UpperPane\Bench;

use Random\Engine\Mt19937;
use Random\Randomizer;

require dirname(__DIR__) . '/vendor/autoload.php';

const WRITERS = 8;

/** One signed-in browser, as far as the API goes. */
final class Hand
{
    private string $cookies;
    private string $csrf = '';

    public function __construct(private readonly string $base)
    {
        $this->cookies = (string) tempnam(sys_get_temp_dir(), 'upper-pane-kill');
    }

    /**
     * @param array<string, mixed>|null $body
     * @param ?string $file path of a file that is sent as a form
     * @return array{int, array<string, mixed>} status, 0 where nobody answered
     */
    public function ask(string $method, string $path, ?array $body = null, ?string $file = null): array
    {
        $curl = curl_init($this->base . $path);
        assert($curl !== false && $this->cookies !== '' && $method !== '');
        curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 20, CURLOPT_CUSTOMREQUEST => $method]);
        curl_setopt_array($curl, [CURLOPT_COOKIEFILE => $this->cookies, CURLOPT_COOKIEJAR => $this->cookies]);
        $headers = ["X-CSRF-Token: $this->csrf"];
        if ($file !== null) {
            curl_setopt($curl, CURLOPT_POSTFIELDS, ['file' => new \CURLFile($file)]);
        } elseif ($body !== null) {
            $headers[] = 'Content-Type: application/json';
            curl_setopt($curl, CURLOPT_POSTFIELDS, (string) json_encode($body));
        }
        curl_setopt($curl, CURLOPT_HTTPHEADER, $headers);
        $answer = curl_exec($curl);
        $told = is_string($answer) ? json_decode($answer, true) : null;
        /** @var array<string, mixed> $told */
        $told = is_array($told) ? $told : [];

        return [(int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE), $told];
    }

    public function signIn(): bool
    {
        $this->ask('POST', '/api/sign-in', ['login' => 'ines', 'password' => 'harbour']);
        $csrf = $this->ask('GET', '/api/session')[1]['csrf'] ?? '';
        $this->csrf = is_string($csrf) ? $csrf : '';

        return $this->ask('GET', '/api/session')[1]['account'] !== null;
    }
}

/** A picture that nobody else has. */
function picture(int $seed): string
{
    $image = imagecreatetruecolor(64, 64);
    assert($image !== false);
    mt_srand($seed);
    for ($i = 0; $i < 200; $i++) {
        imagesetpixel($image, mt_rand(0, 63), mt_rand(0, 63), mt_rand(0, 0xFFFFFF));
    }
    $file = sys_get_temp_dir() . "/upper-pane-kill-$seed.png";
    imagepng($image, $file);

    return $file;
}

/** Writes until it is told to stop, and notes in its ledger what it was told has been done. */
function write(string $base, int $number, string $ledger, string $stop): void
{
    $hand = new Hand($base);
    while (!is_file($stop) && !$hand->signIn()) {
        usleep(300_000);
    }
    $display = ['check-in-1', 'check-in-2', 'check-in-3', 'check-in-4', 'gate-totem-a', 'gate-totem-b', 'gate-totem-c', 'shop-window'][$number];
    $known = ['saved' => null, 'handed' => [], 'brought' => []];
    [$status, $layout] = [0, []];
    while ($status !== 201 && !is_file($stop)) {
        usleep(200_000);
        if ($status === 401 || $status === 403) {
            $hand->signIn();
        }
        [$status, $layout] = $hand->ask('POST', '/api/layouts', ['name' => "Writer $number", 'document' => ['canvas' => ['width' => 1920, 'height' => 1080], 'elements' => []]]);
    }
    if ($status !== 201) {
        return;
    }
    $layout = (array) $layout;
    $id = is_string($layout['id'] ?? null) ? $layout['id'] : '';
    $document = (array) $layout['document'];
    $base = 1;
    $random = new Randomizer(new Mt19937($number));
    for ($round = 1; !is_file($stop); $round++) {
        switch ($random->getInt(0, 5)) {
            case 0:
                $picture = picture(1000 * $number + $round);
                [$status, $asset] = $hand->ask('POST', '/api/media', null, $picture);
                unlink($picture);
                if ($status === 202) {
                    $known['brought'][] = $asset['id'];
                }
                break;
            case 1:
                $source = ['kind' => 'media', 'id' => ['shop-charts', 'shop-woollens', 'great-pellan-market'][$round % 3]];
                [$status, $handing] = $hand->ask('POST', '/api/handover', ['source' => $source, 'displays' => [$display]]);
                if ($status === 202 && is_array($handing['handing'])) {
                    $known['handed'][] = $handing['handing']['id'];
                }
                break;
            default:
                $document['name'] = "Writer $number, $round";
                // Sent again until it is answered: what had landed is answered as landed.
                for ($status = 0; $status !== 200 && $status !== 409 && !is_file($stop); usleep(100_000)) {
                    [$status, $saved] = $hand->ask('PUT', "/api/layouts/$id", ['base' => $base, 'document' => $document]);
                    if ($status === 401 || $status === 403) {
                        $hand->signIn();
                    }
                }
                if ($status === 200) {
                    $base = is_int($saved['revision'] ?? null) ? $saved['revision'] : $base;
                    $known['saved'] = ['id' => $id, 'name' => $document['name'], 'revision' => $base];
                } elseif ($status === 409) {
                    $known['clash'] = true;
                }
        }
        file_put_contents("$ledger.part", json_encode($known));
        rename("$ledger.part", $ledger);
        usleep($random->getInt(20_000, 120_000));
    }
}

if (($argv[1] ?? '') === 'writer') {
    write($argv[2], (int) $argv[3], $argv[4], $argv[5]);
    exit(0);
}

[, $base, $kills, $wait, $run, $named] = $argv + [1 => '', 2 => '100', 3 => '200', 4 => '', 5 => ''];
$begin = microtime(true);
$folder = sys_get_temp_dir() . '/upper-pane-kill-' . bin2hex(random_bytes(4));
mkdir($folder);
$writers = [];
for ($n = 0; $n < WRITERS; $n++) {
    $said = [['file', '/dev/null', 'r'], ['file', "$folder/$n.log", 'w'], ['file', "$folder/$n.log", 'a']];
    $writers[] = proc_open(['php', __FILE__, 'writer', $base, (string) $n, "$folder/$n.json", "$folder/stop"], $said, $pipes);
}
$server = dirname(__DIR__) . '/bin/lib/server ' . $named;
$random = new Randomizer(new Mt19937((int) (getenv('UPPER_PANE_SEED') ?: 1)));
$killed = [];
for ($n = 0; $n < (int) $kills; $n++) {
    usleep($random->getInt(300_000, 2_000_000));
    $what = ['nginx', 'fpm', 'mariadb', 'probe', 'release', 'keeper', 'renewer'][$random->getInt(0, 6)];
    [$leader] = explode(' ', (string) file_get_contents("$run/$what.pid"));
    $group = array_values(array_filter(explode("\n", (string) shell_exec('pgrep -g ' . (int) $leader))));
    // Of a group sometimes the first, sometimes any one of it, sometimes all.
    $those = match ($random->getInt(0, 2)) {
        0 => [(int) $leader],
        1 => $group === [] ? [] : [(int) $group[$random->getInt(0, count($group) - 1)]],
        default => array_map(intval(...), $group),
    };
    foreach ($those as $pid) {
        @posix_kill($pid, SIGKILL);
    }
    $killed[$what] = ($killed[$what] ?? 0) + 1;
    usleep($random->getInt(0, 800_000));
    $start = in_array($what, ['nginx', 'fpm', 'mariadb'], true) ? $what : 'workers';
    exec("$server start $start </dev/null >$folder/server.log 2>&1", $out, $code);
    if ($code !== 0) {
        echo "could not be started again: $what\n", file_get_contents("$folder/server.log");
        exit(1);
    }
}
ksort($killed);
$each = array_map(static fn (string $what, int $times): string => "$what $times", array_keys($killed), $killed);
printf("%d kills in %.0f s: %s\n", array_sum($killed), microtime(true) - $begin, implode(', ', $each));
touch("$folder/stop");
foreach ($writers as $writer) {
    assert(is_resource($writer));
    proc_close($writer);
}
exec("$server start mariadb fpm nginx workers </dev/null >$folder/server.log 2>&1");
sleep((int) $wait);

$judge = new Hand($base);
$judge->signIn();
// What is still being done is waited for, as long as it goes on.
$left = null;
for ($idle = 0; $left !== [] && $idle < (int) $wait; $idle++) {
    [, $work] = $judge->ask('GET', '/api/work');
    $idle = $left === ($work['queues'] ?? null) ? $idle : 0;
    $left = $work['queues'] ?? null;
    sleep(1);
}
$wrong = [];
$told = ['saved' => 0, 'handed' => 0, 'brought' => 0];
[, $answer] = $judge->ask('GET', '/api/media');
/** @var array<string, array<string, mixed>> $media */
$media = array_column((array) ($answer['media'] ?? []), null, 'id');
for ($n = 0; $n < WRITERS; $n++) {
    /** @var array{saved: ?array{id: string, name: string, revision: int}, handed: list<string>, brought: list<string>, clash?: bool} $known */
    $known = json_decode((string) @file_get_contents("$folder/$n.json"), true) ?? ['saved' => null, 'handed' => [], 'brought' => []];
    if (isset($known['clash'])) {
        $wrong[] = "writer $n was told of a clash with himself";
    }
    if ($known['saved'] !== null) {
        $told['saved'] += $known['saved']['revision'];
        [, $layout] = $judge->ask('GET', '/api/layouts/' . $known['saved']['id']);
        $revision = is_int($layout['revision'] ?? null) ? $layout['revision'] : 0;
        if ($revision < $known['saved']['revision'] || ($revision === $known['saved']['revision'] && $layout['name'] !== $known['saved']['name'])) {
            $wrong[] = "writer $n: \"{$known['saved']['name']}\" was acknowledged and is lost";
        }
        /** @var list<int> $numbers */
        $numbers = array_column((array) $judge->ask('GET', '/api/layouts/' . $known['saved']['id'] . '/revisions')[1]['revisions'], 'number');
        if (count($numbers) !== count(array_unique($numbers))) {
            $wrong[] = "writer $n: a revision is there twice";
        }
    }
    foreach ($known['handed'] as $id) {
        $told['handed']++;
        [, $handing] = $judge->ask('GET', "/api/handings/$id");
        if (($handing['state'] ?? null) !== 'done' || count((array) ($handing['releases'] ?? [])) !== 1) {
            $wrong[] = "writer $n: a handover that was noted is " . json_encode($handing);
        }
    }
    foreach ($known['brought'] as $id) {
        $told['brought']++;
        $one = $media[$id] ?? null;
        if (($one['state'] ?? null) !== 'ready' || !is_string($one['url'] ?? null)) {
            $wrong[] = "writer $n: what was brought in is " . json_encode($one);
        } elseif (!str_contains($one['url'], hash('sha256', (string) file_get_contents($base . $one['url'])))) {
            $wrong[] = "writer $n: {$one['url']} is torn";
        }
    }
}
foreach ($media as $one) {
    if (!in_array($one['state'] ?? null, ['ready', 'refused'], true)) {
        $wrong[] = 'stuck: ' . json_encode($one);
    }
}
[, $estate] = $judge->ask('GET', '/api/estate');
[, $answer] = $judge->ask('GET', '/api/players');
foreach ((array) ($answer['players'] ?? []) as $player) {
    assert(is_array($player) && is_string($player['display']));
    $display = array_column((array) $estate['displays'], null, 'id')[$player['display']];
    assert(is_array($display));
    $want = is_int($display['release'] ?? null) ? ((array) $estate['releases'])[$display['release']] : null;
    $secret = basename(is_string($player['address']) ? $player['address'] : '');
    $pointer = json_decode((string) @file_get_contents("$base/pointers/$secret.json"), true);
    if (!is_array($pointer) || (is_array($want) ? $want['sha256'] : null) !== (is_array($pointer['manifest'] ?? null) ? $pointer['manifest']['sha256'] : null)) {
        $wrong[] = "the pointer of {$player['display']} is apart from the database";
    }
}
[, $work] = $judge->ask('GET', '/api/work');
foreach ((array) ($work['queues'] ?? []) as $queue) {
    $wrong[] = 'a job is left: ' . json_encode($queue);
}
foreach ((array) ($work['failed'] ?? []) as $job) {
    $wrong[] = 'a job failed for good: ' . json_encode($job);
}
printf("acknowledged: %d saves, %d handovers, %d pictures; wrong: %d\n", $told['saved'], $told['handed'], $told['brought'], count($wrong));
echo implode("\n", array_slice($wrong, 0, 40)), $wrong === [] ? '' : "\n";
printf("%.0f s in all\n", microtime(true) - $begin);
exit($wrong === [] ? 0 : 1);
