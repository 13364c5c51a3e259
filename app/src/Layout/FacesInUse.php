<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;
use UpperPane\App\Text\HouseFaces;

/** The last face of a family stays as long as a text is set in it. */
final readonly class FacesInUse implements Holding
{
    public function __construct(private HouseFaces $faces, private References $references)
    {
    }

    public function letsGo(About $thing): void
    {
        $all = $this->faces->all();
        $family = array_column($all, 'family', 'id')[$thing->id] ?? null;
        if ($thing->kind !== 'face' || $family === null || array_count_values(array_column($all, 'family'))[$family] > 1) {
            return;
        }
        $users = $this->references->names(References::FACE, $family);
        if ($users !== []) {
            $named = implode(', ', array_map(static fn (string $name): string => "\"$name\"", $users));
            throw new Problem(409, 'face.used', sprintf('%s is the face of texts in %s. Set those in another one first.', $family, $named));
        }
    }

    public function goesWith(string $kind): array
    {
        return [];
    }

    public function forgets(string $kind): array
    {
        return [];
    }
}
