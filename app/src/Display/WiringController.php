<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use Psr\Clock\ClockInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Process\Process;
use Symfony\Component\Routing\Attribute\Route;
use UpperPane\App\Account\Needs;
use UpperPane\App\Account\Right;
use UpperPane\App\Http\Problem;

/** The wiring sheet of a display, to look at and to print. */
final readonly class WiringController
{
    public function __construct(
        private Displays $displays,
        private ClockInterface $clock,
        private string $projectDir,
        #[Autowire('%kernel.cache_dir%')]
        private string $cacheDir,
    ) {
    }

    #[Route('/api/displays/{id}/wiring', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function pages(string $id): JsonResponse
    {
        return new JsonResponse(['pages' => $this->drawn($id)]);
    }

    #[Route('/api/displays/{id}/wiring-{page}.svg', methods: ['GET'], requirements: ['page' => '\d{1,2}'])]
    #[Needs(Right::Look)]
    public function svg(string $id, int $page): Response
    {
        $svg = $this->drawn($id)[$page - 1] ?? throw Problem::notFound('This page');

        return new Response($svg, 200, ['Content-Type' => 'image/svg+xml', 'Content-Disposition' => sprintf('attachment; filename="wiring-%s-%d.svg"', $id, $page)]);
    }

    #[Route('/api/displays/{id}/wiring.pdf', methods: ['GET'])]
    #[Needs(Right::Look)]
    public function pdf(string $id): Response
    {
        $folder = sprintf('%s/wiring-%s', $this->cacheDir, bin2hex(random_bytes(6)));
        mkdir($folder, 0700, true);
        try {
            $files = [];
            foreach ($this->drawn($id) as $number => $svg) {
                file_put_contents($files[] = "$folder/$number.svg", $svg);
            }
            // The faces of the house, whatever the machine has.
            file_put_contents("$folder/fonts.conf", sprintf(
                '<?xml version="1.0"?><fontconfig><dir>%s/web/node_modules/@expo-google-fonts</dir><cachedir>%s</cachedir></fontconfig>',
                $this->projectDir,
                $folder,
            ));
            $process = new Process(['rsvg-convert', '-f', 'pdf', '-o', "$folder/sheet.pdf", ...$files], env: ['FONTCONFIG_FILE' => "$folder/fonts.conf"], timeout: 60);
            $process->mustRun();

            return new Response((string) file_get_contents("$folder/sheet.pdf"), 200, [
                'Content-Type' => 'application/pdf',
                'Content-Disposition' => sprintf('attachment; filename="wiring-%s.pdf"', $id),
            ]);
        } finally {
            (new Process(['rm', '-rf', $folder]))->run();
        }
    }

    /** @return list<string> */
    private function drawn(string $id): array
    {
        $surveyed = $this->displays->one($id);

        return WiringDrawing::pages($surveyed->display(), implode(' › ', $surveyed->place->way()), $surveyed->revision, $this->clock->now());
    }
}
