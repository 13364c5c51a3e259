<?php

declare(strict_types=1);

// Called by bench/large, with the address of its instance and how many displays there are to be.

namespace UpperPane\Bench;

use Doctrine\DBAL\Connection;
use Symfony\Component\Dotenv\Dotenv;
use UpperPane\App\Display\Summary;
use UpperPane\App\Kernel;
use UpperPane\App\Playback\Player;
use UpperPane\Core\Display\Display;
use UpperPane\Tests\Core\Make;

require dirname(__DIR__) . '/vendor/autoload.php';
(new Dotenv())->bootEnv(dirname(__DIR__) . '/.env');

[, $base, $count] = $argv + [1 => '', 2 => '10000'];
$count = (int) $count;
const RASTERS = 30;

$kernel = new Kernel('prod', false);
$kernel->boot();
$connection = $kernel->getContainer()->get('doctrine.dbal.default_connection');

/**
 * @param non-empty-string $method
 * @return array{int, string, float} status, body, seconds
 */
function ask(string $url, ?string $json = null, string $method = 'POST'): array
{
    /** @var array{string, string} $session where its cookies lie, and its token */
    static $session = ['', ''];
    if ($session[0] === '') {
        $session[0] = (string) tempnam(sys_get_temp_dir(), 'upper-pane-bench');
    }
    $curl = curl_init($url);
    assert($curl !== false && $session[0] !== '');
    curl_setopt_array($curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_TIMEOUT => 300, CURLOPT_COOKIEJAR => $session[0], CURLOPT_COOKIEFILE => $session[0], CURLOPT_ENCODING => 'gzip']);
    if ($json !== null) {
        curl_setopt_array($curl, [CURLOPT_CUSTOMREQUEST => $method, CURLOPT_POSTFIELDS => $json, CURLOPT_HTTPHEADER => ['Content-Type: application/json', "X-CSRF-Token: $session[1]"]]);
    }
    $body = (string) curl_exec($curl);
    if (str_ends_with($url, '/api/session')) {
        $told = json_decode($body, true);
        $session[1] = is_array($told) && is_string($told['csrf'] ?? null) ? $told['csrf'] : '';
    }

    return [(int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE), $body, (float) curl_getinfo($curl, CURLINFO_TOTAL_TIME)];
}

function say(string $what, string $figure, string $wanted): void
{
    printf("%-64s %-34s %s\n", $what, $figure, $wanted);
}

/** @return float s, of the middle one */
function median(string $url, int $times): float
{
    $all = [];
    for ($i = 0; $i < $times; $i++) {
        $all[] = ask($url)[2];
    }
    sort($all);

    return $all[intdiv($times, 2)];
}

// Displays that are alike but for their names, on 30 rasters.
// No schedule rules there.
$place = 'lanes';
$settled = $connection->fetchOne('SELECT settled FROM surveyed_display WHERE place_id = ? LIMIT 1', [$place]);
$connection->transactional(static function (Connection $connection) use ($count, $place, $settled): void {
    $kinds = [];
    for ($n = 0; $n < $count; $n++) {
        $kind = $n % RASTERS;
        if (!isset($kinds[$kind])) {
            $document = Make::display(1280 + 32 * $kind, 720 + 18 * $kind);
            $display = Display::fromArray(['id' => 'x', 'name' => 'X'] + $document);
            $kinds[$kind] = [$document, Summary::of($display, 'Europe/Lisbon'), Summary::shape($display), Summary::alike($document)];
        }
        [$document, $summary, $shape, $alike] = $kinds[$kind];
        $connection->insert('surveyed_display', [
            'id' => "large-$n", 'document' => json_encode(['id' => "large-$n", 'name' => "Large $n"] + $document), 'position' => 1000 + $n, 'place_id' => $place, 'revision' => 1,
            'summary' => json_encode(['name' => "Large $n"] + $summary), 'shape' => $shape, 'alike' => $alike, 'settled' => $settled,
        ]);
        $connection->insert('player', [
            'id' => "large-$n", 'name' => "Player $n", 'display_id' => "large-$n", 'secret' => Player::newSecret(),
            'bound_at' => gmdate('Y-m-d H:i:s'), 'build' => 'bench', 'pointer_due' => 0,
        ]);
    }
});

// What the demo noted is done already.
$connection->executeStatement('DELETE FROM job');
ask("$base/api/sign-in", '{"login":"ines","password":"harbour"}');
ask("$base/api/session");
$ids = array_map(static fn (int $n): string => "large-$n", range(0, $count - 1));
$request = (string) json_encode(['source' => ['kind' => 'layout', 'id' => 'check-in-day'], 'displays' => $ids]);
foreach (['first look', 'again'] as $time) {
    [$status, $body, $s] = ask("$base/api/handover/preview", $request);
    $offers = json_decode($body, true);
    $told = is_array($offers) && is_array($offers['offers'] ?? null) ? count($offers['offers']) : 0;
    say("preview of one layout on $count displays of " . RASTERS . " rasters, $time", sprintf('%.2f s, %d offers, %.0f kB (%d)', $s, $told, strlen($body) / 1000, $status), 'under 2 s');
}
[$status, $body, $s] = ask("$base/api/handover", $request);
say('noting that it is handed over', sprintf('%.2f s (%d)', $s, $status), '');
$handing = json_decode($body, true);
assert(is_array($handing) && is_array($handing['handing']) && is_string($handing['handing']['id']), $body);
$begin = microtime(true);
exec(sprintf('php -d memory_limit=128M %s/bin/console messenger:consume release --limit=1 --time-limit=300 -q', escapeshellarg(dirname(__DIR__))), $out, $code);
$used = getrusage(1) ?: [];
$largest = is_int($used['ru_maxrss'] ?? null) ? $used['ru_maxrss'] : 0;
$s = microtime(true) - $begin;
$done = json_decode(ask("$base/api/handings/{$handing['handing']['id']}")[1], true);
$state = is_array($done) && is_string($done['state'] ?? null) ? $done['state'] : '?';
say('one worker, until every pointer is written', sprintf('%.1f s, %.0f MB, %s (%d)', $s, $largest / 1024, $state, $code), 'under 60 s, 128 MB');
// In a hurry: the answer comes once the last pointer is written.
$thousand = array_slice($ids, 0, 1000);
$releases = $connection->fetchOne('SELECT COUNT(*) FROM handed_release');
foreach (['takeovers' => ['overlay' => 'take-evacuation', 'reason' => 'Drill'], 'notices' => ['text' => 'The lift is out of order']] as $kind => $what) {
    $id = substr(str_repeat('0', 25) . ($kind === 'notices' ? '1' : '2'), -26);
    [$status, $body, $s] = ask("$base/api/$kind", (string) json_encode($what + ['id' => $id, 'for_min' => 15, 'displays' => $thousand]));
    $due = $connection->fetchOne('SELECT COUNT(*) FROM player WHERE pointer_due = 1');
    say("$kind on 1,000 displays, from press to the last pointer", sprintf('%.2f s (%d), %s pointers left', $s, $status, is_int($due) ? $due : '?'), 'under 3 s');
    [$status, , $s] = ask("$base/api/$kind/$id/end", '{}');
    say('  ended', sprintf('%.2f s (%d)', $s, $status), 'under 3 s');
}
say('  releases made for both', (string) ($connection->fetchOne('SELECT COUNT(*) FROM handed_release') === $releases ? 0 : 'some'), '0');
$first = $connection->fetchOne('SELECT id FROM place WHERE parent_id IS NULL ORDER BY position LIMIT 1');
assert(is_string($first));
foreach (['style' => 'pellan-night', 'vars.phone' => '555 0199'] as $setting => $value) {
    [$status, $body, $s] = ask("$base/api/places/$first/settings/reach", (string) json_encode(['setting' => $setting, 'value' => $value]));
    $reached = json_decode($body, true);
    $told = is_array($reached) && is_array($reached['displays'] ?? null) ? count($reached['displays']) : 0;
    say("what $setting of the outermost place would reach", sprintf('%.2f s, %d displays, %.0f kB (%d)', $s, $told, strlen($body) / 1000, $status), 'under 3 s');
}
foreach (['pellan-night', 'pellan'] as $style) {
    [$status, , $s] = ask("$base/api/places/$first/settings", (string) json_encode(['setting' => 'style', 'value' => $style]), 'PUT');
    say("stating that $style holds there", sprintf('%.2f s (%d)', $s, $status), 'under 5 s');
}

say('estate, first answer, gzipped, median of 20', sprintf('%.0f ms', 1000 * median("$base/api/estate", 20)), '5,000: under 100 ms');

// Players at the page's own rhythm, and beside them ten designers who open, look and save one after the other.
$secrets = array_filter($connection->fetchFirstColumn("SELECT secret FROM player WHERE id LIKE 'large-%' ORDER BY id"), is_string(...));
foreach (array_filter([5000, 10_000], static fn (int $players): bool => $players <= $count) as $players) {
    $list = (string) tempnam(sys_get_temp_dir(), 'upper-pane-secrets');
    file_put_contents($list, json_encode(array_slice($secrets, 0, $players)));
    $command = ['nice', '-n', '19', 'php', '-d', 'memory_limit=1G', __DIR__ . '/players.php', $base, $list, '40'];
    $generator = proc_open($command, [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/tmp/upper-pane-players.log', 'w']], $pipes);
    assert(is_resource($generator));
    sleep(8);
    $times = [];
    $layout = json_decode(ask("$base/api/layouts/check-in-day")[1], true);
    assert(is_array($layout));
    $analysis = (string) json_encode(['document' => $layout['document']]);
    for ($end = microtime(true) + 25; microtime(true) < $end; usleep(100_000)) {
        $times[] = ask("$base/api/layouts/check-in-day")[2];
        $times[] = ask("$base/api/analysis", $analysis)[2];
        $times[] = ask("$base/api/layouts")[2];
    }
    sort($times);
    $said = json_decode((string) stream_get_contents($pipes[1]), true);
    proc_close($generator);
    say("designers beside $players players", sprintf('p50 %.0f, p95 %.0f ms', 1000 * $times[intdiv(count($times), 2)], 1000 * $times[(int) (0.95 * count($times))]), '5,000: p95 under 150 ms');
    say('  the players', (string) json_encode($said), 'no poll refused');
}

// Something that is filled in, shown on as many as one act takes: in their place, for a stated time, and taken off again.
$handed = static function (string $answer): float {
    $handing = json_decode($answer, true);
    assert(is_array($handing) && is_array($handing['handing'] ?? null), $answer);
    $begin = microtime(true);
    exec(sprintf('php -d memory_limit=128M %s/bin/console messenger:consume release --limit=1 --time-limit=300 -q', escapeshellarg(dirname(__DIR__))));

    return microtime(true) - $begin;
};
$notice = 'office-hours';
say("on which of $count displays something filled in stands, median of 10", sprintf('%.0f ms', 1000 * median("$base/api/filled/$notice/shown?search=large+9", 10)), 'under 150 ms');
$some = array_slice($ids, 0, 200);
foreach (['', '2035-01-01T00:00:00'] as $until) {
    $how = $until === '' ? 'in the place of what plays' : 'booked until a day';
    $asked = (string) json_encode(['displays' => $some, 'how' => 'instead'] + ($until === '' ? [] : ['within' => ['until' => $until]]));
    [$status, , $s] = ask("$base/api/filled/$notice/shown/preview", $asked);
    say("what showing it on 200 would mean, $how", sprintf('%.2f s (%d)', $s, $status), 'under 5 s');
    [$status, $body, $s] = ask("$base/api/filled/$notice/shown", $asked);
    say("showing it on 200, $how", sprintf('%.2f s (%d), %.1f s until it stands', $s, $status, $handed($body)), 'under 5 s');
    say('  where it stands by then, median of 10', sprintf('%.0f ms', 1000 * median("$base/api/filled/$notice/shown?search=large+9", 10)), '');
    [$status, $body, $s] = ask("$base/api/filled/$notice/shown/off", (string) json_encode(['displays' => $some]));
    say('taking it off 200', sprintf('%.2f s (%d), %.1f s until it is off', $s, $status, $handed($body)), 'under 5 s');
}

// A house colour that 500 layouts name.
$style = json_decode(ask("$base/api/styles/pellan")[1], true);
$layout = json_decode(ask("$base/api/layouts/check-in-day")[1], true);
assert(is_array($style) && is_array($style['document']) && is_array($style['document']['colours']) && is_array($layout) && is_array($layout['document']));
for ($n = 0; $n < 500; $n++) {
    ask("$base/api/layouts", (string) json_encode(['name' => "Many $n", 'document' => $layout['document']]));
}
$colours = $style['document']['colours'];
foreach (array_keys($colours) as $name) {
    $colours[$name] = '#' . substr(hash('xxh32', (string) $name), 0, 6);
}
$changed = ['colours' => $colours] + $style['document'];
[$status, $body, $s] = ask("$base/api/styles/pellan/reach", (string) json_encode(['document' => $changed]));
$reached = json_decode($body, true);
$told = is_array($reached) && is_array($reached['designs'] ?? null) ? count($reached['designs']) : 0;
say('what another house colour would reach, checked before and after', sprintf('%.2f s, %d designs, %.0f kB (%d)', $s, $told, strlen($body) / 1000, $status), '500: under 3 s');
[$status, , $s] = ask("$base/api/styles/pellan", (string) json_encode(['base' => $style['revision'] ?? 1, 'document' => $changed]), 'PUT');
say('changing it', sprintf('%.2f s (%d)', $s, $status), 'under 5 s');
