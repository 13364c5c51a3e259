<?php

declare(strict_types=1);

// The outside world as it is at its worst, for FetchingTest: run by php -S with this as its router.

$path = (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH);
$drip = static function (int $bytes, int $eachUs): void {
    for ($n = 0; $n < $bytes; $n++) {
        echo ' ';
        @ob_flush();
        flush();
        usleep($eachUs);
    }
};
while (ob_get_level() > 0) {
    ob_end_flush();
}
match (true) {
    $path === '/ok' => print('[{"to": "Tolm"}]'),
    $path === '/asked' => print(json_encode(array_change_key_case(getallheaders()))),
    $path === '/known' => (static function (): void {
        header('ETag: "1"');
        ($_SERVER['HTTP_IF_NONE_MATCH'] ?? '') === '"1"' ? http_response_code(304) : print('[1]');
    })(),
    $path === '/gzip' => (static function (): void {
        header('Content-Encoding: gzip');
        echo gzencode('[{"to": "Tolm"}]');
    })(),
    $path === '/half-gzip' => (static function (): void {
        header('Content-Encoding: gzip');
        echo substr((string) gzencode(str_repeat('[1]', 5_000)), 0, -20);
    })(),
    $path === '/bomb' => (static function (): void {
        header('Content-Encoding: gzip');
        echo gzencode(str_repeat("\0", 400_000_000), 1);
    })(),
    $path === '/large' => print(str_repeat(' ', 20_000_000)),
    $path === '/too-large' => print(str_repeat(' ', 20_000_001)),
    $path === '/endless' => (static function (): void {
        while (!connection_aborted()) {
            echo str_repeat(' ', 100_000);
        }
    })(),
    $path === '/drip' => $drip(100, 200_000),
    $path === '/silent' => usleep(5_000_000),
    $path === '/empty' => null,
    $path === '/loop' => header('Location: /loop', true, 302),
    $path === '/once' => header('Location: ok', true, 307),
    $path === '/elsewhere' => header('Location: ' . ($_GET['to'] ?? ''), true, 302),
    preg_match('~^/status/(\d+)$~', $path, $m) === 1 => http_response_code((int) $m[1]),
    default => http_response_code(404),
};
