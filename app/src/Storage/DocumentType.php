<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\ValueNotConvertible;
use Doctrine\DBAL\Types\JsonType;
use UpperPane\Core\Document\Json;

/** A document in a column: as JSON, and read back as it was written, objects without fields included. */
final class DocumentType extends JsonType
{
    public const NAME = 'document';

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): mixed
    {
        if (!is_string($value) || $value === '') {
            return null;
        }
        try {
            return Json::decode($value);
        } catch (\JsonException $e) {
            throw ValueNotConvertible::new($value, self::NAME, $e->getMessage(), $e);
        }
    }
}
