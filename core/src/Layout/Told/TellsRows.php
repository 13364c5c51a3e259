<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Layout\Kind\Element;

/** An element that may tell data: its words are messages over a row, or its picture is. */
interface TellsRows extends Element
{
    /** Whether it is another over another row. */
    public function tells(): bool;

    /** @return list<Message> none where it says what it says */
    public function messages(): array;

    /** What it says, as far as data decide it. */
    public function says(): string;

    /** The same told over a row. */
    public function told(RowTeller $row): static;
}
