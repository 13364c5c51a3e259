<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use UpperPane\Core\Data\Tree\Trees;

/** One address being fetched: what has come so far, from wherever it was sent on to. */
final class Fetch
{
    public ?int $status = null;
    public ?string $etag = null;
    public ?string $modified = null;
    public string $bytes = '';
    public int $came = 0;
    public int $redirects = 0;

    private ?\InflateContext $inflating = null;

    /**
     * @param array<string, string> $headers
     * @param float $begun s, as microtime tells it
     * @param \Closure(Fetched): void $done
     */
    public function __construct(
        public readonly string $url,
        public readonly array $headers,
        private readonly float $begun,
        public readonly int $timeoutS,
        public readonly \Closure $done,
    ) {
    }

    /** The same at another address; who is there is told nothing that only the first host may know. */
    public function sentOn(string $url): self
    {
        $on = new self($url, self::origin($url) === self::origin($this->url) ? $this->headers : [], $this->begun, $this->timeoutS, $this->done);
        $on->redirects = $this->redirects + 1;
        $on->came = $this->came;

        return $on;
    }

    /** Scheme, host and port: who it is that is asked. */
    public static function origin(string $url): string
    {
        return strtolower(implode(':', array_map(strval(...), array_intersect_key((array) parse_url($url), ['scheme' => 1, 'host' => 1, 'port' => 1]))));
    }

    public function inflates(): void
    {
        $context = inflate_init(ZLIB_ENCODING_GZIP);
        $this->inflating = $context === false ? null : $context;
    }

    /** False for what cannot be unpacked. */
    public function takes(string $piece): bool
    {
        if ($piece === '') {
            return true;
        }
        $this->came += strlen($piece);
        // In small pieces: what unpacks to more than is read ends soon.
        foreach ($this->inflating === null ? [$piece] : str_split($piece, 8_192) as $part) {
            $plain = $this->inflating === null ? $part : @inflate_add($this->inflating, $part);
            if ($plain === false) {
                return false;
            }
            $this->bytes .= $plain;
            if (strlen($this->bytes) > Trees::LARGEST) {
                break;
            }
        }

        return true;
    }

    public function isWhole(): bool
    {
        return $this->inflating === null || inflate_get_status($this->inflating) === ZLIB_STREAM_END;
    }

    public function tookMs(): int
    {
        return (int) round(1000 * (microtime(true) - $this->begun));
    }

    public function leftS(): float
    {
        return $this->begun + $this->timeoutS - microtime(true);
    }
}
