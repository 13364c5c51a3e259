<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Kind\Code;

/** Who draws QR codes. The core knows how large they are and where they stand; which modules are dark is a library's matter. */
interface CodeMaker
{
    /**
     * @param 'L'|'M'|'Q'|'H' $level of error correction
     * @return list<string> a row of modules each, 1 for dark and 0 for light, quiet zone left out
     */
    public function modules(string $text, string $level): array;
}
