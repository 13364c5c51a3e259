<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use BaconQrCode\Common\ErrorCorrectionLevel;
use BaconQrCode\Encoder\Encoder;
use Symfony\Contracts\Cache\CacheInterface;
use UpperPane\Core\Layout\Kind\Code\CodeMaker;

/** QR codes by BaconQrCode, from Debian's php-bacon-qr-code. A code is drawn once for each text and level that this process meets. */
final class QrCodes implements CodeMaker
{
    private const LIBRARY = '/usr/share/php/Bacon/BaconQrCode/autoload.php';
    private const KEPT = 500;

    /** @var array<string, list<string>> */
    private array $kept = [];

    /** @param ?CacheInterface $cache where codes are kept between requests; null for nowhere */
    public function __construct(private readonly ?CacheInterface $cache = null)
    {
    }

    public function modules(string $text, string $level): array
    {
        $key = 'code.' . hash('sha256', "$level $text");
        if (!isset($this->kept[$key])) {
            $this->kept = count($this->kept) < self::KEPT ? $this->kept : [];
            $this->kept[$key] = $this->cache === null ? self::made($text, $level) : $this->cache->get($key, static fn (): array => self::made($text, $level));
        }

        return $this->kept[$key];
    }

    /**
     * @param 'L'|'M'|'Q'|'H' $level
     * @return list<string>
     */
    private static function made(string $text, string $level): array
    {
        require_once self::LIBRARY;
        // Bytes that are not ASCII are said to be UTF-8; ASCII needs no saying.
        $code = Encoder::encode($text, match ($level) {
            'L' => ErrorCorrectionLevel::L(),
            'M' => ErrorCorrectionLevel::M(),
            'Q' => ErrorCorrectionLevel::Q(),
            default => ErrorCorrectionLevel::H(),
        }, preg_match('/[^\x00-\x7f]/', $text) === 1 ? 'UTF-8' : 'ISO-8859-1');
        $rows = [];
        $matrix = $code->getMatrix();
        for ($y = 0; $y < $matrix->getHeight(); $y++) {
            $row = '';
            for ($x = 0; $x < $matrix->getWidth(); $x++) {
                $row .= $matrix->get($x, $y) === 1 ? '1' : '0';
            }
            $rows[] = $row;
        }

        return $rows;
    }
}
