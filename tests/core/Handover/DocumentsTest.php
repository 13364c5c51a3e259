<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Handover;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Handover\Documents;
use UpperPane\Tests\Core\Make;

final class DocumentsTest extends TestCase
{
    /** Also of what lies within, and of what cannot be read. */
    public function testWhatViewersReadIsFoundWithoutReadingTheDocument(): void
    {
        $ticker = ['id' => 'n', 'kind' => 'ticker', 'rect' => 'wrong', 'text' => 'Fog  on the river'];
        $inner = Make::layout([['id' => 't', 'kind' => 'text', 'text' => "Gate\n closed"], ['id' => 'c', 'kind' => 'code', 'text' => 'https://example.org'], $ticker]);
        $document = Make::layout([
            Make::zone('z', 0, 0, 9, 9, [['id' => 'i', 'layout' => $inner, 'duration_ms' => 9000]]),
            ['id' => 'u', 'kind' => 'text', 'text' => 'Gate closed'],
            ['id' => 'v', 'kind' => 'text', 'text' => " \n"],
        ]);
        $named = Documents::named($document);
        sort($named['words']);
        self::assertSame(['Fog on the river', 'Gate closed', 'https://example.org'], $named['words']);
    }
}
