<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use UpperPane\App\Storage\Saved;
use UpperPane\App\Storage\Saving;
use UpperPane\Core\Document\BudgetExceeded;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;

final readonly class SaveDesign
{
    public function __construct(private Designs $designs, private DesignForms $forms, private Saving $saving)
    {
    }

    /**
     * @param array<string, mixed> $document
     * @param ?\Closure(Design): mixed $also what else is set
     * @return Saved<Design>
     * @throws Refused
     */
    public function of(DesignKind $kind, string $id, int $base, array $document, ?string $note = null, ?\Closure $also = null): Saved
    {
        $known = $this->designs->of($kind, $id);
        $document = ['format' => $kind->format(), 'id' => $known->id] + $document;
        Node::root($document)->field('name')->name();
        $this->check($kind, $document, $known->document);

        return $this->saving->of(fn (): Design => $this->designs->of($kind, $id, lock: true), $base, $document, $note, $also);
    }

    /**
     * @param array<string, mixed> $document
     * @param ?array<string, mixed> $stored as it was saved before: what went beyond a bound then may be saved again, as long as it is no worse
     * @throws Refused
     */
    private function check(DesignKind $kind, array $document, ?array $stored = null): void
    {
        try {
            $this->forms->of($kind)->check($document);
        } catch (BudgetExceeded $e) {
            try {
                $stored === null ?: $this->check($kind, $stored);
            } catch (BudgetExceeded $before) {
                if ($e->isNoWorseThan($before)) {
                    return;
                }
            }
            throw $e;
        }
    }
}
