<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Template\Filled;

/** What was filled into a template goes by the revision that it was filled into, until it takes over another one. */
final readonly class TakeOver
{
    public function __construct(private Designs $designs, private References $references, private SaveDesign $save, private Transaction $transaction)
    {
    }

    /** @return list<Design> all that is filled into a template, in the order of their names */
    public function filledInto(Design $template): array
    {
        $ids = array_keys(array_filter($this->references->users(References::DESIGN, $template->id), static fn (DesignKind $kind): bool => $kind === DesignKind::Filled));
        $filled = array_filter($this->designs->those(array_map(strval(...), $ids)), static fn (Design $one): bool => ($one->document['template'] ?? null) === $template->id);
        usort($filled, static fn (Design $a, Design $b): int => [$a->name, $a->id] <=> [$b->name, $b->id]);

        return $filled;
    }

    /** The revision of its template that it goes by. */
    public static function revision(Design $filled, Design $template): int
    {
        return Filled::pinned($filled->document)[1] ?? $template->revision;
    }

    /**
     * As it would be with its template as that is saved by now.
     *
     * @return array{array<string, mixed>, list<string>} the document, and the slots whose values no slot takes any more
     * @throws Refused
     */
    public function newer(Design $filled): array
    {
        $template = $this->template($filled);

        return Filled::fromArray($filled->document)->takenOver(Layout::fromArray($template->document), $template->revision);
    }

    public function template(Design $filled): Design
    {
        $id = $filled->document['template'] ?? null;

        return $this->designs->of(DesignKind::Layout, is_string($id) ? $id : '');
    }

    /**
     * All of them or none.
     *
     * @param list<string> $ids
     * @return list<Design> as they stand then
     * @throws Refused where one of them could not be drawn any more
     */
    public function of(Design $template, array $ids): array
    {
        return $this->transaction->of(function () use ($template, $ids): array {
            $done = [];
            foreach ($ids as $id) {
                $filled = $this->designs->of(DesignKind::Filled, $id);
                if (($filled->document['template'] ?? null) !== $template->id) {
                    throw new Problem(409, 'filled.elsewhere', sprintf('"%s" is not filled into "%s".', $filled->name, $template->name));
                }
                [$document] = $this->newer($filled);
                $this->save->of(DesignKind::Filled, $filled->id, $filled->revision, $document, sprintf('took over revision %d of the template', $template->revision))
                    ->told(static fn (Design $design): array => $design->summary());
                $done[] = $filled;
            }

            return $done;
        });
    }
}
