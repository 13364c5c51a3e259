<?php

declare(strict_types=1);

namespace UpperPane\App\Jobs;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** Whoever noted a job of a kind: says on the thing that it is for what became of it. */
#[AutoconfigureTag]
interface Owner
{
    /** @return class-string of the jobs that are its own */
    public static function job(): string;

    /** It failed for good. */
    public function gaveUp(object $job, string $why): void;

    /** It is to be tried again: notes it anew, with a job of its own, in the transaction that is open. */
    public function again(object $job): void;

    /** What it is for, in words. */
    public function says(object $job): string;
}
