<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** All kinds of design. */
final readonly class DesignForms
{
    /** @param iterable<DesignForm> $forms */
    public function __construct(
        #[AutowireIterator(DesignForm::class)]
        private iterable $forms,
    ) {
    }

    public function of(DesignKind $kind): DesignForm
    {
        foreach ($this->forms as $form) {
            if ($form::kind() === $kind) {
                return $form;
            }
        }
        throw new \LogicException("Nobody says what a $kind->value is.");
    }
}
