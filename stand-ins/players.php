<?php

declare(strict_types=1);

// Simulated players: each polls its pointer, fetches a new release whole, verifies it, "plays" it and reports.
// It calls as often as its pointer says, and at once where anything changes, as the page of a player does.
// What an operator asks for it answers as its release's maps of triggers say: the first way that leads on, and back when its time is over. It has no sensors.
// Usage: php stand-ins/players.php http://127.0.0.1:8080 players.json [seconds]
// players.json: [{"secret", "display", "outputs": numbers of those that report, "silent_after_s": null or seconds, "refuse_media": true to fail every download}]
// Ends by itself after the seconds given, else runs until it is stopped.

use UpperPane\StandIns\Answering;

require __DIR__ . '/Answering.php';

[, $base, $list] = $argv + [1 => '', 2 => ''];
$until = isset($argv[3]) ? microtime(true) + (float) $argv[3] : INF;
$players = is_file($list) ? json_decode((string) file_get_contents($list), true) : null;
if (!is_array($players) || !str_starts_with($base, 'http://127.0.0.1')) {
    fwrite(STDERR, "Wanted: the address of the application on 127.0.0.1, and a list of players.\n");
    exit(2);
}

/** @return array{int, string} status and body; status 0 when nobody answers */
function ask(string $url, ?string $json = null): array
{
    $curl = curl_init($url);
    assert($curl !== false);
    curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 10, CURLOPT_CONNECTTIMEOUT => 2]);
    if ($json !== null) {
        curl_setopt_array($curl, [CURLOPT_POST => true, CURLOPT_POSTFIELDS => $json, CURLOPT_HTTPHEADER => ['Content-Type: application/json']]);
    }
    $body = curl_exec($curl);

    return [(int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE), is_string($body) ? $body : ''];
}

/** Whether all of a release is there and unharmed. */
function fetched(string $base, string $url, string $sha256, bool $refuseMedia): bool
{
    [$status, $release] = ask($base . $url);
    if ($status !== 200 || hash('sha256', $release) !== $sha256) {
        return false;
    }
    $content = json_decode($release, true);
    foreach (['sheets', 'media'] as $kind) {
        foreach (is_array($content) && is_array($content[$kind] ?? null) ? $content[$kind] : [] as $file) {
            $isRefused = $refuseMedia && $kind === 'media';
            if ($isRefused || !is_array($file) || !is_string($file['url']) || hash('sha256', ask($base . $file['url'])[1]) !== $file['sha256']) {
                return false;
            }
        }
    }

    return true;
}

$began = microtime(true);
/** @var array<int, array{plays: ?string, since: ?string, trouble: ?string, calls_at: float, answering: Answering}> $states */
$states = [];
while (microtime(true) < $until) {
    foreach ($players as $index => $player) {
        if (!is_array($player) || !is_string($player['secret'] ?? null)) {
            continue;
        }
        $state = $states[$index] ?? ['plays' => null, 'since' => null, 'trouble' => null, 'calls_at' => 0.0, 'answering' => new Answering()];
        $silentAfter = $player['silent_after_s'] ?? null;
        if (is_numeric($silentAfter) && microtime(true) - $began > $silentAfter) {
            continue;
        }
        [$status, $body] = ask("$base/pointers/{$player['secret']}.json");
        $pointer = $status === 200 ? json_decode($body, true) : null;
        $release = is_array($pointer) ? $pointer['manifest'] ?? $pointer['release'] ?? null : null;
        $release = is_array($release) ? $release : null;
        $every = is_array($pointer) && is_int($pointer['report_every_s'] ?? null) ? $pointer['report_every_s'] : 10;
        $before = $state['answering']->told();
        /** @var list<array{id: string, signal: string, until: string}> $said */
        $said = is_array($pointer) && is_array($pointer['said'] ?? null) ? $pointer['said'] : [];
        $state['answering']->pass($said);
        $changed = $before !== $state['answering']->told();
        if ($release !== null && is_string($release['sha256']) && is_string($release['url']) && $release['sha256'] !== $state['plays']) {
            $whole = fetched($base, $release['url'], $release['sha256'], ($player['refuse_media'] ?? false) === true);
            $state['trouble'] = $whole ? null : 'A file of the new release could not be fetched; the old one goes on.';
            $state['plays'] = $whole ? $release['sha256'] : $state['plays'];
            if ($whole) {
                $state['answering']->take(static fn (string $url): mixed => json_decode(ask($base . $url)[1], true), $release['url']);
            }
            $state['since'] = $whole ? gmdate('Y-m-d\TH:i:s\Z') : $state['since'];
            $changed = true;
        }
        if ($changed || microtime(true) > $state['calls_at']) {
            $outputs = is_array($player['outputs'] ?? null) && $player['outputs'] !== [] ? $player['outputs'] : [null];
            foreach ($outputs as $output) {
                $report = ['release' => $state['plays'], 'since' => $state['since'], 'trouble' => $state['trouble'], 'output' => $output, 'build' => 'stand-in', 'every_s' => $every]
                    + $state['answering']->told();
                ask("$base/api/play/{$player['secret']}/report", (string) json_encode($report));
            }
            $state['calls_at'] = microtime(true) + $every * random_int(90, 110) / 100;
        }
        $states[$index] = $state;
    }
    usleep(2_000_000);
}
