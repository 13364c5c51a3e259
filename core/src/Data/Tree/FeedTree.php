<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

use UpperPane\Core\Document\DataRefused;
use UpperPane\Core\Document\Reason;

/** News of RSS 2.0, RSS 1.0 (RDF) and Atom (RFC 4287), all told alike. What lies outside of the text is never read. */
final class FeedTree implements TreeReader
{
    private const ATOM = 'http://www.w3.org/2005/Atom';
    /** RSS 2.0 has none of its own, versions before it and beside it had. */
    private const RSS = [null, 'http://purl.org/rss/1.0/', 'http://backend.userland.com/rss2', 'http://my.netscape.com/rdf/simple/0.9/'];
    private const MEDIA = 'http://search.yahoo.com/mrss/';
    private const DC = 'http://purl.org/dc/elements/1.1/';
    private const CONTENT = 'http://purl.org/rss/1.0/modules/content/';
    private const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';

    private ?string $title = null;
    private ?string $link = null;

    /** @var list<\stdClass> */
    private array $items = [];

    public static function read(string $bytes, ReadOptions $options): mixed
    {
        $loader = libxml_get_external_entity_loader();
        $errors = libxml_use_internal_errors(true);
        libxml_set_external_entity_loader(static fn (): ?string => null);
        libxml_clear_errors();
        try {
            return (new self())->feed(ltrim($bytes, " \t\r\n"), $bytes);
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($errors);
            libxml_set_external_entity_loader($loader);
        }
    }

    private function feed(string $xml, string $bytes): \stdClass
    {
        if ($xml === '') {
            throw DataRefused::inLine(Reason::DataSyntax, 'there is nothing here; a feed begins with <rss, <rdf:RDF or <feed.', 1);
        }
        if (preg_match('/^(?:<!--.*?-->\s*)*<(?:!doctype\s+)?html\b/is', $xml) === 1) {
            throw DataRefused::inLine(Reason::DataKind, 'this is a web page, and no feed; one begins with <rss, <rdf:RDF or <feed.', 1);
        }
        // Names of HTML's entities are no XML, but many feeds have them.
        if (stripos(substr($xml, 0, 2_000), '<!DOCTYPE') === false) {
            $xml = (string) preg_replace_callback('/&(?!(?:amp|lt|gt|quot|apos);)([A-Za-z][A-Za-z0-9]{1,30};)/', static function (array $m): string {
                $sign = html_entity_decode("&$m[1]", ENT_HTML5, 'UTF-8');

                return $sign === "&$m[1]" ? $m[0] : implode('', array_map(static fn (string $one): string => '&#' . mb_ord($one) . ';', mb_str_split($sign)));
            }, $xml);
        }
        $reader = \XMLReader::XML($xml, null, LIBXML_NONET | LIBXML_NOENT | LIBXML_COMPACT);
        assert($reader instanceof \XMLReader);
        $doc = new \DOMDocument();
        $more = @$reader->read();
        $skipped = substr_count(substr($bytes, 0, strlen($bytes) - strlen($xml)), "\n");
        while ($more && $reader->nodeType !== \XMLReader::ELEMENT) {
            $more = @$reader->read();
        }
        if ($more && !in_array($reader->localName, ['rss', 'RDF', 'feed'], true)) {
            $what = sprintf('this is XML that begins with <%s>', mb_strimwidth($reader->localName, 0, 40, '...'));
            throw DataRefused::inLine(Reason::DataKind, "$what, and no feed; one begins with <rss, <rdf:RDF or <feed.", 1 + $skipped);
        }
        $isAtom = $more && $reader->localName === 'feed';
        $more = $more && @$reader->read();
        while ($more) {
            $isElement = $reader->nodeType === \XMLReader::ELEMENT;
            if ($isElement && ($reader->localName === 'item' || $reader->localName === 'entry')) {
                $node = @$reader->expand($doc);
                if (!$node instanceof \DOMElement) {
                    break;
                }
                $this->items[] = $isAtom ? $this->entry($node) : $this->item($node);
                Trees::holdRows(count($this->items), 'items');
                $more = @$reader->next();
            } elseif ($isElement && ($reader->localName === 'title' || $reader->localName === 'link') && in_array($reader->depth, $isAtom ? [1] : [2], true)) {
                $node = @$reader->expand($doc);
                if ($node instanceof \DOMElement) {
                    $this->head($node, $isAtom);
                }
                $more = @$reader->next();
            } elseif ($isElement && $reader->localName !== 'channel' && ($isAtom || $reader->depth >= 2)) {
                $more = @$reader->next();
            } else {
                $more = @$reader->read();
            }
        }
        foreach (libxml_get_errors() as $error) {
            if ($error->level >= LIBXML_ERR_ERROR) {
                throw DataRefused::inLine(Reason::DataSyntax, self::inWords($error), max(1, $error->line) + $skipped, max(1, $error->column));
            }
        }

        return (object) ['title' => $this->title, 'link' => $this->link, 'items' => $this->items];
    }

    private static function inWords(\LibXMLError $error): string
    {
        $message = lcfirst(rtrim(trim($error->message), '.'));

        return "this is no XML that can be read: $message.";
    }

    private function head(\DOMElement $node, bool $isAtom): void
    {
        if (!in_array($node->namespaceURI, $isAtom ? [null, self::ATOM] : self::RSS, true)) {
            return;
        }
        if ($node->localName === 'title') {
            $this->title ??= $isAtom ? self::atomText($node) : self::html($node);
        } elseif ($isAtom) {
            $this->link ??= self::isAlternate($node) ? self::present($node->getAttribute('href')) : null;
        } else {
            $this->link ??= self::present($node->textContent);
        }
    }

    private function item(\DOMElement $item): \stdClass
    {
        $own = static fn (string $name): ?\DOMElement => self::child($item, $name);
        $html = static fn (?\DOMElement $node): ?string => $node === null ? null : self::html($node);
        $guid = $own('guid');
        $about = $item->getAttributeNS(self::RDF, 'about');
        $time = $own('pubDate') ?? self::child($item, 'date', self::DC) ?? $own('published') ?? $own('updated');
        $enclosure = null;
        foreach (self::children($item, 'enclosure') as $one) {
            if (self::isImage($one->getAttribute('type'))) {
                $enclosure ??= self::present($one->getAttribute('url'));
            }
        }

        return (object) [
            'id' => self::present($guid->textContent ?? $about),
            'title' => $html($own('title')),
            'link' => self::present($own('link')->textContent ?? ''),
            'published' => $time === null ? null : FeedTime::told($time->textContent),
            'summary' => $html($own('description')) ?? $html($own('summary')) ?? $html(self::child($item, 'encoded', self::CONTENT)) ?? $html($own('content')),
            'picture' => $enclosure ?? self::mediaPicture($item),
        ];
    }

    private function entry(\DOMElement $entry): \stdClass
    {
        $own = static fn (string $name): ?\DOMElement => self::child($entry, $name);
        $text = static fn (?\DOMElement $node): ?string => $node === null ? null : self::atomText($node);
        [$link, $enclosure] = [null, null];
        foreach (self::children($entry, 'link') as $one) {
            if (self::isAlternate($one)) {
                $link ??= self::present($one->getAttribute('href'));
            } elseif ($one->getAttribute('rel') === 'enclosure' && self::isImage($one->getAttribute('type'))) {
                $enclosure ??= self::present($one->getAttribute('href'));
            }
        }
        $time = self::child($entry, 'date', self::DC) ?? $own('published') ?? $own('updated');

        return (object) [
            'id' => self::present($own('id')->textContent ?? ''),
            'title' => $text($own('title')),
            'link' => $link,
            'published' => $time === null ? null : FeedTime::told($time->textContent),
            'summary' => $text($own('summary')) ?? $text($own('content')),
            'picture' => $enclosure ?? self::mediaPicture($entry),
        ];
    }

    /** media:content of an image, else media:thumbnail (Media RSS), also within media:group. */
    private static function mediaPicture(\DOMElement $item): ?string
    {
        $within = [$item, ...self::children($item, 'group', self::MEDIA)];
        foreach ($within as $parent) {
            foreach (self::children($parent, 'content', self::MEDIA) as $content) {
                if (self::isImage($content->getAttribute('type')) || $content->getAttribute('medium') === 'image') {
                    return self::present($content->getAttribute('url'));
                }
            }
        }
        foreach ($within as $parent) {
            // A thumbnail may stand within the content that it is of.
            foreach ([$parent, ...self::children($parent, 'content', self::MEDIA)] as $holder) {
                $thumbnail = self::child($holder, 'thumbnail', self::MEDIA);
                if ($thumbnail !== null) {
                    return self::present($thumbnail->getAttribute('url'));
                }
            }
        }

        return null;
    }

    private static function atomText(\DOMElement $node): ?string
    {
        $type = strtolower($node->getAttribute('type'));

        return match (true) {
            $type === '' || $type === 'text' || $type === 'text/plain' => self::present($node->textContent),
            $type === 'xhtml' => self::present(PlainText::ofHtml(self::inner($node))),
            default => self::html($node),
        };
    }

    private static function html(\DOMElement $node): ?string
    {
        return self::present(PlainText::ofHtml($node->getElementsByTagName('*')->length > 0 ? self::inner($node) : $node->textContent));
    }

    private static function inner(\DOMElement $node): string
    {
        $inner = '';
        foreach ($node->childNodes as $child) {
            $inner .= $child instanceof \DOMCdataSection ? htmlspecialchars($child->data) : (string) $node->ownerDocument?->saveXML($child);
        }

        // Names of XHTML may have a prefix.
        return (string) preg_replace('/<(\/?)[A-Za-z_][\w.-]*:(?=[A-Za-z])/', '<$1', $inner);
    }

    private static function isAlternate(\DOMElement $link): bool
    {
        return in_array($link->getAttribute('rel'), ['', 'alternate'], true);
    }

    private static function isImage(string $type): bool
    {
        return str_starts_with(strtolower(trim($type)), 'image/');
    }

    private static function present(string $text): ?string
    {
        $text = PlainText::folded($text);

        return $text === '' ? null : $text;
    }

    private static function child(\DOMElement $parent, string $name, ?string $namespace = null): ?\DOMElement
    {
        return self::children($parent, $name, $namespace)[0] ?? null;
    }

    /**
     * @param ?string $namespace null for what belongs to the feed itself, whose versions have several
     * @return list<\DOMElement>
     */
    private static function children(\DOMElement $parent, string $name, ?string $namespace = null): array
    {
        $children = [];
        foreach ($parent->childNodes as $child) {
            if ($child instanceof \DOMElement && $child->localName === $name && ($namespace === null ? $child->namespaceURI === $parent->namespaceURI : $child->namespaceURI === $namespace)) {
                $children[] = $child;
            }
        }

        return $children;
    }
}
