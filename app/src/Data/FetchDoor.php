<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\IpUtils;

/**
 * Which addresses may be fetched: those of allowed hosts in the open network, and exact hosts and ports within that an administrator allows.
 *
 * A name is looked up here, every answer is judged, and who fetches connects to what was judged.
 */
final readonly class FetchDoor
{
    /** What is no address of a host in the open network (IANA's special-purpose registries), beside what IpUtils calls private. */
    private const SPECIAL = [
        '100.64.0.0/10', '192.0.0.0/24', '192.0.2.0/24', '192.88.99.0/24', '198.18.0.0/15', '198.51.100.0/24', '203.0.113.0/24', '224.0.0.0/4',
        '64:ff9b::/96', '64:ff9b:1::/48', '100::/64', '2001::/23', '2001:db8::/32', '2002::/16', 'ff00::/8',
    ];

    /**
     * @param string $hosts that may be fetched, parted by commas: names, `*.name` for those below one, `*` for all
     * @param string $inside hosts and ports that may be fetched wherever they lie, parted by commas: `127.0.0.1:18080`
     * @param ?\Closure(string): list<string> $lookup addresses of a name
     */
    public function __construct(
        #[Autowire('%env(UPPER_PANE_FETCH_HOSTS)%')]
        private string $hosts,
        #[Autowire('%env(UPPER_PANE_FETCH_INSIDE)%')]
        private string $inside,
        private ?\Closure $lookup = null,
    ) {
    }

    /**
     * @return array{host: string, ip: string} the host as it is asked for, and the address to connect to
     * @throws NotFetched with the reason, as a sentence
     */
    public function open(string $url): array
    {
        $parts = parse_url($url);
        $scheme = strtolower($parts['scheme'] ?? '');
        $host = strtolower(trim($parts['host'] ?? '', '[]'));
        if ($parts === false || !in_array($scheme, ['http', 'https'], true) || $host === '' || isset($parts['user']) || isset($parts['pass'])) {
            throw new NotFetched(sprintf('"%s" is no address that is fetched; http:// or https:// with a host is.', mb_strimwidth($url, 0, 80, '...')));
        }
        $isAddress = filter_var($host, FILTER_VALIDATE_IP) !== false;
        // A name that ends in a number is an address written in another way (WHATWG URL, 3.5).
        if (!$isAddress && preg_match('/^(?:[a-z0-9_](?:[a-z0-9_-]*[a-z0-9_])?\.)*[a-z](?:[a-z0-9-]*[a-z0-9])?\.?$/D', $host) !== 1) {
            throw new NotFetched(sprintf('"%s" is no name of a host.', mb_strimwidth($host, 0, 80, '...')));
        }
        $port = $parts['port'] ?? ($scheme === 'https' ? 443 : 80);
        $isInside = in_array("$host:$port", self::listed($this->inside), true);
        if (!$isInside && !$this->isAllowed($host)) {
            throw new NotFetched(sprintf('"%s" is none of the hosts that may be fetched; an administrator adds it to UPPER_PANE_FETCH_HOSTS.', $host));
        }
        $addresses = $isAddress ? [$host] : $this->lookedUp($host);
        if ($addresses === []) {
            throw new NotFetched(sprintf('No host is called "%s".', $host));
        }
        foreach ($addresses as $address) {
            if (!$isInside && self::isWithin($address)) {
                throw new NotFetched(sprintf(
                    '"%s" lies within the network here (%s), which sources may not be fetched from; an administrator may allow %s:%d in UPPER_PANE_FETCH_INSIDE.',
                    $host,
                    $address,
                    $host,
                    $port,
                ));
            }
        }

        return ['host' => $host, 'ip' => $addresses[0]];
    }

    /** Loopback, private, link-local and whatever else is no host of the open network. */
    private static function isWithin(string $address): bool
    {
        // An IPv4 address in the clothes of IPv6 is judged as what it is.
        $packed = @inet_pton($address);
        if ($packed === false) {
            return true;
        }
        if (strlen($packed) === 16 && str_starts_with($packed, str_repeat("\0", 10) . "\xFF\xFF")) {
            $address = (string) inet_ntop(substr($packed, 12));
        }

        return IpUtils::isPrivateIp($address) || IpUtils::checkIp($address, self::SPECIAL);
    }

    private function isAllowed(string $host): bool
    {
        foreach (self::listed($this->hosts) as $allowed) {
            if ($allowed === '*' || $allowed === $host || (str_starts_with($allowed, '*.') && str_ends_with($host, substr($allowed, 1)))) {
                return true;
            }
        }

        return false;
    }

    /** @return list<string> */
    private function lookedUp(string $host): array
    {
        if ($this->lookup !== null) {
            return ($this->lookup)($host);
        }
        $four = gethostbynamel($host);
        $six = @dns_get_record($host, DNS_AAAA);

        return [
            ...($four === false ? [] : $four),
            ...array_filter(array_column($six === false ? [] : $six, 'ipv6'), is_string(...)),
        ];
    }

    /** @return list<string> */
    private static function listed(string $text): array
    {
        return array_values(array_filter(array_map(trim(...), explode(',', strtolower($text))), static fn (string $one): bool => $one !== ''));
    }
}
