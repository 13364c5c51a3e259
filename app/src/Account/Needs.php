<?php

declare(strict_types=1);

namespace UpperPane\App\Account;

/** Which right a route asks for. A route without one answers nobody (NeededRight). */
#[\Attribute(\Attribute::TARGET_METHOD | \Attribute::TARGET_CLASS)]
final readonly class Needs
{
    /**
     * @param ?Right $right null for whoever comes, signed in or not: then the route itself says who may
     * @param array<string, Right> $ofKind what it asks for instead where the path names this kind of design
     */
    public function __construct(public ?Right $right, public array $ofKind = [])
    {
    }

    public function of(string $plural): ?Right
    {
        return $this->ofKind[$plural] ?? $this->right;
    }
}
