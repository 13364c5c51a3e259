<?php

declare(strict_types=1);

namespace UpperPane\Tests\Core\Document;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Document\Node;

/** JSON in memory: arrays by names, and objects without fields as what they are (RFC 8259, 4 and 5). */
final class JsonTest extends TestCase
{
    #[TestWith(['{}'])]
    #[TestWith(['[]'])]
    #[TestWith(['{"a":{},"b":[]}'])]
    #[TestWith(['[{},[],[{}]]'])]
    #[TestWith(['{"a":{"b":{"c":{}}},"d":1.5,"e":null,"f":"{}"}'])]
    #[TestWith(['{"1":{"2":{}}}'])]
    #[TestWith(['"{ }"'])]
    public function testWhatIsReadIsWrittenTheSame(string $text): void
    {
        self::assertSame($text, json_encode(Json::decode($text)));
    }

    public function testWithoutEmptyObjectsAllIsArrays(): void
    {
        self::assertSame(['a' => [1, ['b' => 2.0]]], Json::decode('{"a": [1, {"b": 2.0}]}'));
    }

    public function testNodesTakeAnEmptyObjectForOneWithoutFields(): void
    {
        $node = Node::fromJson('{"valid": {}, "items": []}');
        self::assertSame([], $node->field('valid')->object('from')->value);
        self::assertSame([], $node->field('items')->items());
    }

    #[TestWith(['{"a": }'])]
    #[TestWith([''])]
    #[TestWith(['{"a": {}'])]
    public function testWhatIsNoneIsNotRead(string $text): void
    {
        $this->expectException(\JsonException::class);
        Json::decode($text);
    }
}
