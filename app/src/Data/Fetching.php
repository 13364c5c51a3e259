<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Symfony\Component\HttpClient\Exception\TimeoutException;
use Symfony\Contracts\HttpClient\Exception\ExceptionInterface;
use Symfony\Contracts\HttpClient\HttpClientInterface;
use Symfony\Contracts\HttpClient\ResponseInterface;
use UpperPane\Core\Data\Tree\Trees;

/** Fetches addresses, many at a time, each within its time and no larger than data may be. */
final class Fetching
{
    private const MOST_REDIRECTS = 5;

    /** So long it is waited for something to come of any of them, s. */
    private const LOOK_S = 0.2;

    /** @var \SplObjectStorage<ResponseInterface, Fetch> */
    private \SplObjectStorage $open;

    public function __construct(private readonly HttpClientInterface $client, private readonly FetchDoor $door)
    {
        $this->open = new \SplObjectStorage();
    }

    /** How many are under way. */
    public function count(): int
    {
        return count($this->open);
    }

    /**
     * @param array<string, string> $headers that only the host of the address is told
     * @param \Closure(Fetched): void $done told once, whatever becomes of it
     */
    public function begin(string $url, array $headers, int $timeoutS, ?string $etag, ?string $modified, \Closure $done): void
    {
        $headers = array_filter(['If-None-Match' => $etag, 'If-Modified-Since' => $etag === null ? $modified : null], static fn (?string $one): bool => $one !== null) + $headers;
        $this->ask(new Fetch($url, $headers, microtime(true), $timeoutS, $done));
    }

    /** Goes on with what is under way, for a moment. */
    public function look(): void
    {
        $until = microtime(true) + self::LOOK_S;
        while (count($this->open) > 0 && microtime(true) < $until) {
            $responses = iterator_to_array($this->open, false);
            foreach ($this->client->stream($responses, max(0.001, $until - microtime(true))) as $response => $chunk) {
                $fetch = $this->open[$response];
                try {
                    if ($chunk->isTimeout()) {
                        $this->endLate($response, $fetch);
                    } elseif ($chunk->isFirst()) {
                        $this->head($response, $fetch);
                    } else {
                        $this->piece($response, $fetch, $chunk->getContent(), $chunk->isLast());
                    }
                } catch (TimeoutException) {
                    $this->endLate($response, $fetch);
                } catch (ExceptionInterface $e) {
                    $this->end($response, $fetch, self::inWords($e->getMessage(), $fetch));
                }
                if (microtime(true) >= $until) {
                    break;
                }
            }
        }
        foreach (iterator_to_array($this->open, false) as $response) {
            $this->endLate($response, $this->open[$response]);
        }
    }

    private function ask(Fetch $fetch): void
    {
        try {
            ['host' => $host, 'ip' => $ip] = $this->door->open($fetch->url);
        } catch (NotFetched $e) {
            ($fetch->done)(new Fetched(null, null, 0, $fetch->tookMs(), $e->getMessage()));

            return;
        }
        $this->open[$this->client->request('GET', $fetch->url, [
            'headers' => ['Accept-Encoding' => 'gzip', 'User-Agent' => 'Upper Pane'] + $fetch->headers,
            // What was judged is what is connected to.
            'resolve' => [$host => $ip],
            'max_redirects' => 0,
            'buffer' => false,
            'timeout' => $fetch->timeoutS,
            'max_duration' => max(0.1, $fetch->leftS()),
        ])] = $fetch;
    }

    private function head(ResponseInterface $response, Fetch $fetch): void
    {
        $status = $response->getStatusCode();
        $headers = $response->getHeaders(false);
        $fetch->status = $status;
        $fetch->etag = $headers['etag'][0] ?? null;
        $fetch->modified = $headers['last-modified'][0] ?? null;
        if ($status === 304) {
            $this->end($response, $fetch, null, false);
        } elseif (in_array($status, [301, 302, 303, 307, 308], true)) {
            $this->follow($response, $fetch, $headers['location'][0] ?? '');
        } elseif ($status !== 200) {
            $this->end($response, $fetch, "The server answers $status" . ($status === 401 || $status === 403 ? ': it wants to know who asks.' : '.'));
        } elseif (strtolower($headers['content-encoding'][0] ?? '') === 'gzip') {
            $fetch->inflates();
        }
    }

    private function piece(ResponseInterface $response, Fetch $fetch, string $piece, bool $isLast): void
    {
        if (!$fetch->takes($piece)) {
            $this->end($response, $fetch, 'What comes is packed as gzip, and damaged.');
        } elseif (strlen($fetch->bytes) > Trees::LARGEST) {
            $this->end($response, $fetch, sprintf('More than %s bytes come; no more are read.', number_format(Trees::LARGEST)));
        } elseif ($isLast) {
            $this->end($response, $fetch, $fetch->isWhole() ? null : 'What comes is packed as gzip, and ends too soon.', true);
        }
    }

    private function follow(ResponseInterface $response, Fetch $fetch, string $location): void
    {
        $this->drop($response);
        $to = self::resolved($fetch->url, $location);
        if ($location === '' || $to === null || $fetch->redirects >= self::MOST_REDIRECTS) {
            $why = $fetch->redirects >= self::MOST_REDIRECTS ? 'The server sends on and on, from one address to the next.' : 'The server sends on to no address that is fetched.';
            ($fetch->done)(new Fetched($fetch->status, null, $fetch->came, $fetch->tookMs(), $why));

            return;
        }
        $this->ask($fetch->sentOn($to));
    }

    private function endLate(ResponseInterface $response, Fetch $fetch): void
    {
        if ($fetch->leftS() <= 0) {
            $this->end($response, $fetch, sprintf($fetch->came > 0 ? 'Not all of it came within %d s.' : 'Nothing came within %d s.', $fetch->timeoutS));
        }
    }

    private function end(ResponseInterface $response, Fetch $fetch, ?string $why, bool $hasBytes = false): void
    {
        $this->drop($response);
        ($fetch->done)(new Fetched($fetch->status, $why === null && $hasBytes ? $fetch->bytes : null, $fetch->came, $fetch->tookMs(), $why, $fetch->etag, $fetch->modified));
    }

    private function drop(ResponseInterface $response): void
    {
        $this->open->detach($response);
        $response->cancel();
    }

    /** RFC 3986, 5.2, as far as servers send on; null for what is no address that is fetched. */
    public static function resolved(string $base, string $location): ?string
    {
        if (preg_match('~^https?://~i', $location) === 1) {
            return $location;
        }
        if (preg_match('~^(https?:)(//[^/?#]*)([^?#]*)~i', $base, $m) !== 1 || preg_match('~^[a-z][a-z0-9+.-]*:~i', $location) === 1) {
            return null;
        }

        return match (true) {
            str_starts_with($location, '//') => $m[1] . $location,
            str_starts_with($location, '/') => $m[1] . $m[2] . $location,
            str_starts_with($location, '?') => $m[1] . $m[2] . $m[3] . $location,
            default => $m[1] . $m[2] . substr($m[3], 0, (int) strrpos($m[3], '/')) . "/$location",
        };
    }

    private static function inWords(string $message, Fetch $fetch): string
    {
        return match (true) {
            str_contains($message, 'Max duration') || str_contains($message, 'timeout') || str_contains($message, 'timed out') => sprintf('Not all of it came within %d s.', $fetch->timeoutS),
            str_contains($message, 'refused') || str_contains($message, 'Failed to connect') || str_contains($message, "Couldn't connect") => 'No server answers there.',
            str_contains($message, 'SSL') || str_contains($message, 'certificate') => 'The server cannot show that it is the one of that name (its certificate is not right).',
            default => 'The connection broke off: ' . mb_strimwidth($message, 0, 200, '...'),
        };
    }
}
