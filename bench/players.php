<?php

declare(strict_types=1);

// Simulated players at the rhythm of the page: each asks for its pointer every 2 s with If-None-Match over a connection that it keeps, and reports as often
// as its pointer says. php bench/players.php ADDRESS SECRETS-FILE SECONDS; loopback only, ends by itself. Prints JSON of what came of it.

namespace UpperPane\Bench;

use UpperPane\Core\Playback\Rhythm;

require dirname(__DIR__) . '/vendor/autoload.php';

/** One player with its connection. */
final class Polling
{
    public \CurlHandle $curl;
    public string $etag = '';
    public bool $isReporting = false;

    public function __construct(private readonly string $base, private readonly string $secret, private readonly int $everyS, private float $reportAt)
    {
        $curl = curl_init();
        assert($curl !== false);
        $this->curl = $curl;
        curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 30]);
        curl_setopt($curl, CURLOPT_HEADERFUNCTION, function (\CurlHandle $handle, string $line): int {
            if (stripos($line, 'etag:') === 0) {
                $this->etag = trim(substr($line, 5));
            }

            return strlen($line);
        });
    }

    public function begin(float $now): void
    {
        $this->isReporting = $now >= $this->reportAt;
        if ($this->isReporting) {
            $this->reportAt = $now + $this->everyS * (0.9 + 0.2 * mt_rand() / mt_getrandmax());
            curl_setopt($this->curl, CURLOPT_URL, "$this->base/api/play/$this->secret/report");
            curl_setopt($this->curl, CURLOPT_POSTFIELDS, (string) json_encode(['release' => null, 'since' => null, 'trouble' => null, 'output' => 1, 'build' => 'bench', 'every_s' => $this->everyS]));
            curl_setopt($this->curl, CURLOPT_HTTPHEADER, ['Content-Type: application/json']);
        } else {
            curl_setopt($this->curl, CURLOPT_HTTPGET, true);
            curl_setopt($this->curl, CURLOPT_URL, "$this->base/pointers/$this->secret.json");
            curl_setopt($this->curl, CURLOPT_HTTPHEADER, $this->etag === '' ? [] : ["If-None-Match: $this->etag"]);
        }
    }
}

[, $base, $list, $seconds] = $argv + [1 => '', 2 => '', 3 => '10'];
$secrets = json_decode((string) file_get_contents($list), true);
if (!str_starts_with($base, 'http://127.0.0.1:') || !is_array($secrets)) {
    fwrite(STDERR, "Wanted: an address on 127.0.0.1, and a file with the secrets of players.\n");
    exit(2);
}
$every = Rhythm::of(count($secrets));
$multi = curl_multi_init();
curl_multi_setopt($multi, CURLMOPT_MAXCONNECTS, 2 * count($secrets));
$begin = microtime(true);
$end = $begin + (float) $seconds;
/** @var array<int, Polling> $players by the id of their handles */
$players = [];
/** @var \SplPriorityQueue<float, Polling> $due */
$due = new \SplPriorityQueue();
foreach ($secrets as $secret) {
    $player = new Polling($base, is_string($secret) ? $secret : '', $every, $begin + $every * mt_rand() / mt_getrandmax());
    $players[spl_object_id($player->curl)] = $player;
    $due->insert($player, -($begin + 2 * mt_rand() / mt_getrandmax()));
}
$due->setExtractFlags(\SplPriorityQueue::EXTR_BOTH);
[$polls, $refused, $reports, $reportsRefused, $slowest] = [0, 0, 0, 0, []];
do {
    $now = microtime(true);
    while ($now <= $end && !$due->isEmpty()) {
        /** @var array{data: Polling, priority: float} $top */
        $top = $due->top();
        if (-$top['priority'] > $now) {
            break;
        }
        $due->extract();
        $top['data']->begin($now);
        curl_multi_add_handle($multi, $top['data']->curl);
    }
    curl_multi_exec($multi, $running);
    while (($done = curl_multi_info_read($multi)) !== false) {
        assert($done['handle'] instanceof \CurlHandle);
        $player = $players[spl_object_id($done['handle'])];
        $status = (int) curl_getinfo($player->curl, CURLINFO_RESPONSE_CODE);
        if ($player->isReporting) {
            $reports++;
            $reportsRefused += $status === 204 ? 0 : 1;
        } else {
            $polls++;
            $refused += in_array($status, [200, 304], true) ? 0 : 1;
            $slowest[] = (float) curl_getinfo($player->curl, CURLINFO_TOTAL_TIME);
        }
        curl_multi_remove_handle($multi, $player->curl);
        $due->insert($player, -(microtime(true) + ($player->isReporting ? 0.0 : 2.0)));
    }
    curl_multi_select($multi, 0.005);
} while (microtime(true) < $end || $running > 0);
sort($slowest);
/** @var array<string, int> $used */
$used = getrusage() ?: [];
$cpu = ($used['ru_utime.tv_sec'] ?? 0) + ($used['ru_stime.tv_sec'] ?? 0);
echo json_encode([
    'players' => count($secrets),
    'polls' => $polls,
    'refused' => $refused,
    'poll_p95_ms' => round(1000 * ($slowest[(int) (0.95 * count($slowest))] ?? 0), 1),
    'reports' => $reports,
    'reports_refused' => $reportsRefused,
    'cpu' => round($cpu / (microtime(true) - $begin), 2),
]), "\n";
