<?php

declare(strict_types=1);

namespace UpperPane\App\Http;

use Symfony\Component\HttpFoundation\Request;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;

/** The JSON body of a request, read through nodes so that each fault has its path. */
final readonly class Body
{
    /** A layout of 500 elements with long playlists has about 0.5 MB. */
    public const LIMIT = 4_194_304;

    /** @throws Problem when it is too large */
    public static function of(Request $request): Node
    {
        $type = (string) $request->headers->get('Content-Type');
        if ($type !== '' && $request->getContentTypeFormat() !== 'json') {
            throw new Problem(415, 'type.not-json', sprintf('What is sent here is JSON; this came as %s. Say Content-Type: application/json.', mb_strimwidth($type, 0, 60, '...')));
        }
        try {
            return Node::fromJson($request->getContent(), self::LIMIT);
        } catch (DocumentRefused $e) {
            throw $e->reason === Reason::DocumentTooLarge ? new Problem(413, $e->reason->value, $e->getMessage()) : $e;
        }
    }

    /**
     * A document inside a body, as the array it is kept as.
     *
     * @return array<string, mixed>
     * @throws DocumentRefused
     */
    public static function document(Node $node): array
    {
        if (!is_array($node->value) || array_is_list($node->value)) {
            throw $node->refused(Reason::TypeWrong, 'is no JSON object.');
        }
        $document = [];
        foreach ($node->value as $name => $value) {
            $document[(string) $name] = $value;
        }

        return $document;
    }
}
