<?php

declare(strict_types=1);

// What a player in the field has: a page that was built before there were manifests (tests/browser/field), and all else from the desk that is
// tried. Once the file named by FIELD_NEW is there, the page is the one that the desk hands out now; where it says `later`, its worker is another
// than before, as that of a later build is. For `php -S`.

$path = (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH);
$isNew = is_file((string) getenv('FIELD_NEW'));
$page = preg_match('~^/play/[0-9a-f]{40}/$~', $path) === 1 ? '/player.html' : $path;
$kept = dirname(__DIR__) . '/field' . $page;
if (!$isNew && is_file($kept) || str_starts_with($path, '/assets/') && is_file($kept)) {
    header('Content-Type: ' . match (pathinfo($kept, PATHINFO_EXTENSION)) {
        'html' => 'text/html',
        'css' => 'text/css',
        'svg' => 'image/svg+xml',
        default => 'text/javascript',
    });
    header('Cache-Control: no-cache');
    readfile($kept);

    return true;
}
$curl = curl_init(getenv('FIELD_DESK') . $_SERVER['REQUEST_URI']);
assert($curl !== false);
curl_setopt_array($curl, [
    CURLOPT_RETURNTRANSFER => true,
    CURLOPT_CUSTOMREQUEST => $_SERVER['REQUEST_METHOD'] === 'POST' ? 'POST' : 'GET',
    CURLOPT_HTTPHEADER => ['Content-Type: ' . ($_SERVER['CONTENT_TYPE'] ?? 'application/json')],
] + ($_SERVER['REQUEST_METHOD'] === 'POST' ? [CURLOPT_POSTFIELDS => (string) file_get_contents('php://input')] : []));
$body = curl_exec($curl);
http_response_code((int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE) ?: 502);
header('Content-Type: ' . curl_getinfo($curl, CURLINFO_CONTENT_TYPE));
header('Cache-Control: no-cache');
echo is_string($body) ? $body : '';
if ($isNew && $path === '/play/sw.js' && trim((string) file_get_contents((string) getenv('FIELD_NEW'))) === 'later') {
    echo "\n// later";
}

return true;
