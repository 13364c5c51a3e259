<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Symfony\Component\DependencyInjection\Attribute\Autowire;

/** What sources are asked with beside their address: kept sealed (libsodium's secretbox), opened by who fetches alone. */
final readonly class Sealing
{
    private string $key;

    public function __construct(#[Autowire('%kernel.secret%')] string $secret)
    {
        $this->key = sodium_crypto_generichash('upper pane, headers of sources', $secret === '' ? '' : hash('sha256', $secret, true), SODIUM_CRYPTO_SECRETBOX_KEYBYTES);
    }

    /** @param array<string, string> $headers */
    public function sealed(array $headers): string
    {
        $nonce = random_bytes(SODIUM_CRYPTO_SECRETBOX_NONCEBYTES);

        return base64_encode($nonce . sodium_crypto_secretbox(json_encode((object) $headers, JSON_THROW_ON_ERROR), $nonce, $this->key));
    }

    /** @return ?array<string, string> null where it was sealed with another key, or is damaged */
    public function opened(string $sealed): ?array
    {
        $bytes = (string) base64_decode($sealed, true);
        $nonce = substr($bytes, 0, SODIUM_CRYPTO_SECRETBOX_NONCEBYTES);
        $text = strlen($nonce) < SODIUM_CRYPTO_SECRETBOX_NONCEBYTES ? false : sodium_crypto_secretbox_open(substr($bytes, SODIUM_CRYPTO_SECRETBOX_NONCEBYTES), $nonce, $this->key);
        $headers = $text === false ? null : json_decode($text, true);

        if (!is_array($headers)) {
            return null;
        }
        $opened = [];
        foreach ($headers as $name => $value) {
            $opened[(string) $name] = is_string($value) ? $value : '';
        }

        return $opened;
    }
}
