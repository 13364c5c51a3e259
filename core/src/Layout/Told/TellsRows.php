<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Told;

use UpperPane\Core\Data\Message\Message;
use UpperPane\Core\Layout\Kind\Element;

/** An element that may tell data: its words are messages over a row. */
interface TellsRows extends Element
{
    /** @return list<Message> none where it says what it says */
    public function messages(): array;

    /** What it says, as far as data decide it. */
    public function says(): string;

    /** The same with its words told over a row. */
    public function told(RowTeller $row): static;
}
