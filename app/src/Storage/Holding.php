<?php

declare(strict_types=1);

namespace UpperPane\App\Storage;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use UpperPane\App\Http\Problem;

/** Whatever holds to things of other rooms: it says why one cannot be deleted, what of its own goes with it, and what forgets it. */
#[AutoconfigureTag]
interface Holding
{
    /**
     * In the transaction in which it is deleted.
     *
     * @throws Problem where it cannot be deleted as things are
     */
    public function letsGo(About $thing): void;

    /** @return array<string, string> tables, the one that others name first, and which of their rows go with a thing of this kind, with a ? for its id */
    public function goesWith(string $kind): array;

    /** @return array<string, string> columns that name a thing of this kind, by table: they forget it, and know it again when it comes back */
    public function forgets(string $kind): array;
}
