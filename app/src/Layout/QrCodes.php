<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use BaconQrCode\Common\ErrorCorrectionLevel;
use BaconQrCode\Encoder\Encoder;
use UpperPane\Core\Layout\CodeMaker;

/** QR codes by BaconQrCode, from Debian's php-bacon-qr-code. A code is drawn once for each text and level that this process meets. */
final class QrCodes implements CodeMaker
{
    private const LIBRARY = '/usr/share/php/Bacon/BaconQrCode/autoload.php';
    private const KEPT = 500;

    /** @var array<string, list<string>> */
    private array $kept = [];

    /** @param ?string $folder where codes are kept between requests; null for nowhere */
    public function __construct(private readonly ?string $folder = null)
    {
    }

    public function modules(string $text, string $level): array
    {
        $key = hash('sha256', "$level $text");
        if (!isset($this->kept[$key])) {
            $this->kept = count($this->kept) < self::KEPT ? $this->kept : [];
            $this->kept[$key] = $this->remembered($key) ?? $this->made($key, $text, $level);
        }

        return $this->kept[$key];
    }

    /** @return ?list<string> */
    private function remembered(string $key): ?array
    {
        $file = "$this->folder/$key";
        $rows = $this->folder !== null && is_file($file) ? explode("\n", (string) file_get_contents($file)) : [];

        return count($rows) >= 21 && strlen($rows[0]) === count($rows) ? $rows : null;
    }

    /** @return list<string> */
    private function made(string $key, string $text, string $level): array
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
        if ($this->folder !== null && (is_dir($this->folder) || @mkdir($this->folder, 0o777, true) || is_dir($this->folder))) {
            $part = "$this->folder/" . bin2hex(random_bytes(8));
            if (@file_put_contents($part, implode("\n", $rows)) !== false) {
                rename($part, "$this->folder/$key");
            }
        }

        return $rows;
    }
}
