<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

/** By what it is compiled, and by what it is played. */
final readonly class Toolchain
{
    /** @param string $coreBuild of the core and of what measures and draws for it (Kernel) */
    public function __construct(private string $projectDir, public string $coreBuild)
    {
    }

    /** Build of the player page that is handed out now; '' where none was built yet. */
    public function pageBuild(): string
    {
        $file = "$this->projectDir/web/dist/build.json";
        $told = is_file($file) ? json_decode((string) file_get_contents($file), true) : null;

        return is_array($told) && is_string($told['build'] ?? null) ? $told['build'] : '';
    }
}
