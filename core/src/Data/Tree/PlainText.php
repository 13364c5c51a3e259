<?php

declare(strict_types=1);

namespace UpperPane\Core\Data\Tree;

/** What is left of HTML when nothing but words may stay. */
final readonly class PlainText
{
    private const BLOCKS = 'address|article|aside|blockquote|br|caption|center|dd|details|dialog|dir|div|dl|dt|fieldset|figcaption|figure|footer|form|h[1-6]|header|hgroup|hr'
        . '|li|main|menu|nav|ol|optgroup|option|p|pre|search|section|summary|table|tbody|td|tfoot|th|thead|tr|ul';

    /** The rest of a tag, behind its name. */
    private const REST = '(?:[^<>"\']|"[^"]*"|\'[^\']*\')*+>';

    private const TAKEN_OUT = [
        '/<!--.*?(?:-->|\z)/s' => '',
        '/<!\[CDATA\[(.*?)\]\]>/s' => '$1',
        '/<(script|style)\b[^>]*>.*?(?:<\/\1\s*>|\z)/is' => '',
        '/<[!?][^>]*>/' => '',
        '/<\/?(?:' . self::BLOCKS . ')(?=[\s>\/])' . self::REST . '/i' => ' ',
        '/<\/?[A-Za-z]' . self::REST . '/' => '',
    ];

    /** Markup is taken out, script and style with what is in them; a block or a break is a space, and white space is folded. */
    public static function ofHtml(string $html): string
    {
        $bare = (string) preg_replace(array_keys(self::TAKEN_OUT), array_values(self::TAKEN_OUT), $html);

        return self::folded(html_entity_decode($bare, ENT_QUOTES | ENT_HTML5, 'UTF-8'));
    }

    public static function folded(string $text): string
    {
        return trim((string) preg_replace('/[\s\x{A0}\x{1680}\x{2000}-\x{200A}\x{2028}\x{2029}\x{202F}\x{205F}\x{3000}]+/u', ' ', $text), ' ');
    }
}
