<?php

declare(strict_types=1);

namespace UpperPane\Core\Display;

/**
 * What a cable and its two ends can carry.
 *
 * HDMI 1.4: 340 MHz, HDMI 2.0: 600 MHz of TMDS clock; DisplayPort 1.2: 17.28 Gbit/s after coding. All limits here are from memory.
 */
final readonly class Link
{
    private const TMDS_KHZ = ['dvi' => 165_000, 'hdmi-1.4' => 340_000, 'hdmi-2.0' => 600_000];
    private const BITS_PER_SECOND = ['displayport-1.1' => 8.64e9, 'displayport-1.2' => 17.28e9, 'displayport-1.4' => 25.92e9, 'hdmi-2.1' => 42.67e9];

    private function __construct(public string $name, public float $limit, public bool $isClock)
    {
    }

    /** @return list<string> as the survey writes them */
    public static function names(): array
    {
        return ['hdmi-1.4', 'hdmi-2.0', 'hdmi-2.1', 'displayport-1.1', 'displayport-1.2', 'displayport-1.4', 'dvi'];
    }

    /** Null where nothing is known of such a link. */
    public static function named(string $name): ?self
    {
        $name = (string) preg_replace('/^dp-/', 'displayport-', strtolower($name));

        return match (true) {
            isset(self::TMDS_KHZ[$name]) => new self($name, self::TMDS_KHZ[$name], true),
            isset(self::BITS_PER_SECOND[$name]) => new self($name, self::BITS_PER_SECOND[$name], false),
            default => null,
        };
    }

    /**
     * What a signal of 4:4:4 takes of it.
     *
     * @param int $bits for each colour of a pixel
     * @return float the share of the limit; above 1 it does not go through
     */
    public function load(Timing $timing, int $bits): float
    {
        return $this->isClock ? $timing->clockKhz * max($bits, 8) / 8 / $this->limit : self::bitsPerSecond($timing, $bits) / $this->limit;
    }

    /** Bits a second of three colours. */
    public static function bitsPerSecond(Timing $timing, int $bits): float
    {
        return $timing->clockKhz * 1000.0 * 3 * $bits;
    }

    /** The load in the link's own unit, as `533.3 of 600 MHz`. */
    public function says(Timing $timing, int $bits): string
    {
        return $this->isClock
            ? sprintf('%s of %s MHz', round($timing->clockKhz * max($bits, 8) / 8000, 1), $this->limit / 1000)
            : sprintf('%s of %s Gbit/s', round(self::bitsPerSecond($timing, $bits) / 1e9, 1), round($this->limit / 1e9, 1));
    }
}
