<?php

declare(strict_types=1);

namespace UpperPane\App\Handover;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use League\Flysystem\FilesystemOperator;
use Symfony\Component\DependencyInjection\Attribute\Target;
use UpperPane\App\Display\SurveyRevision;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Display\Display;
use UpperPane\Core\Document\Json;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Handover\Planned;
use UpperPane\Core\Handover\Sheet;
use UpperPane\Core\Playback\RunSheet;

/** Compiles anew what was handed over: for the days to come, or since sources tell something else. What was handed over stays what it is. */
final readonly class Renewal
{
    private const CHUNK = 500;

    public function __construct(
        private EntityManagerInterface $entities,
        private HandedReleaseRepository $releases,
        private Transaction $transaction,
        private Compiler $compiler,
        #[Target('published')]
        private FilesystemOperator $published,
    ) {
    }

    /**
     * @param list<int> $alike releases of displays that are alike, made of the same: those that have it from then on
     * @param ?int $newFromMs since when sources tell something else, Unix ms: what tells data goes on from what stands then
     * @return bool whether it is another one
     * @throws Refused where it cannot be worked out
     * @throws Problem where something in it is not there any more
     */
    public function of(HandedRelease $release, array $alike, int $nowMs, ?int $newFromMs = null): bool
    {
        $contents = $this->releases->contents($release) ?? throw new Problem(409, 'release.unknown', 'What it was made from was not recorded.');
        $standsMs = $newFromMs ?? $nowMs;
        $carried = ['at_ms' => $standsMs, 'begun' => self::begun($this->sheet($release), $standsMs)];
        [$fromMs, $toMs] = Planned::span($nowMs);
        $compiled = $this->compiler->release($contents, $this->surveyed($release), $fromMs, $toMs, $carried);
        $file = $this->compiler->published($compiled);
        if ($newFromMs !== null && $file['sha256'] === $release->sha256) {
            return false;
        }
        $planned = $compiled->planned();
        $columns = $file + [
            'manifest' => 1,
            'whole_sha256' => null,
            'planned_until' => $planned === null ? null : gmdate('Y-m-d H:i:s', intdiv($planned->untilMs, 1000)),
            'planned_then' => $planned?->then,
            'plan_trouble' => null,
        ];
        $connection = $this->entities->getConnection();
        $set = implode(', ', array_map(static fn (string $column): string => "$column = ?", array_keys($columns)));
        $this->transaction->of(static function () use ($connection, $alike, $columns, $set): void {
            foreach (array_chunk($alike, self::CHUNK) as $ids) {
                $connection->executeStatement("UPDATE handed_release SET $set WHERE id IN (?)", [...array_values($columns), $ids], [count($columns) => ArrayParameterType::INTEGER]);
                $connection->executeStatement(
                    'UPDATE player p JOIN surveyed_display s ON s.id = p.display_id SET p.pointer_due = 1 WHERE s.current_id IN (?) AND p.revoked_at IS NULL',
                    [$ids],
                    [ArrayParameterType::INTEGER],
                );
            }
        });

        return true;
    }

    /**
     * @param array<mixed> $sheet
     * @return array<string, array{int, int}>
     */
    private static function begun(array $sheet, int $ms): array
    {
        $layers = $sheet['layers'] ?? null;

        return is_array($layers) ? RunSheet::begunAt($layers, $ms, is_int($sheet['anchor_ms'] ?? null) ? $sheet['anchor_ms'] : null) : [];
    }

    /** @return array<mixed> what stands on the displays, in one piece */
    private function sheet(HandedRelease $release): array
    {
        if (!$this->published->fileExists($release->file)) {
            return [];
        }
        $read = fn (string $path): array => (array) Json::decode($this->published->read(ltrim($path, '/')));
        $base = Node::root($read($release->file))->optional('planes')?->optional('base')?->field('sheet')->field('url')->text();

        return $base === null ? [] : Sheet::inOne($read($base), static fn (string $sha256): array => $read(Sheet::path($sha256)));
    }

    /** The display as it was surveyed when this was handed over: a survey that was changed since is not handed over by itself. */
    private function surveyed(HandedRelease $release): Display
    {
        $then = $release->surveyRevision === null || $release->surveyRevision === $release->display->revision
            ? null
            : $this->entities->getRepository(SurveyRevision::class)->findOneBy(['displayId' => $release->display->id, 'number' => $release->surveyRevision]);
        $display = $then === null ? $release->display->display() : Display::fromArray($then->document);

        return $then !== null || $release->shape === null || $release->shape === $release->display->shape
            ? $display
            : throw new Problem(409, 'display.reshaped', 'The display was surveyed anew since, and how it was then is not known. Hand over again.');
    }
}
