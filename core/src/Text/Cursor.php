<?php

declare(strict_types=1);

namespace UpperPane\Core\Text;

/** Going through a text from its beginning, for what reads a syntax. */
trait Cursor
{
    private int $at = 0;

    /** Goes past a sign where it stands here. */
    private function takes(string $sign): bool
    {
        if (substr_compare($this->text, $sign, $this->at, strlen($sign)) !== 0) {
            return false;
        }
        $this->at += strlen($sign);

        return true;
    }

    /**
     * Goes past what matches here; null where nothing does.
     *
     * @param string $pattern of PCRE, beginning with \G
     */
    private function matched(string $pattern): ?string
    {
        if (preg_match($pattern, $this->text, $m, 0, $this->at) !== 1) {
            return null;
        }
        $this->at += strlen($m[0]);

        return $m[0];
    }
}
