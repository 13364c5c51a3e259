<?php

declare(strict_types=1);

namespace UpperPane\App\Layout;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Ulid;
use UpperPane\App\Account\Who;
use UpperPane\App\Http\Problem;
use UpperPane\App\Storage\About;
use UpperPane\App\Storage\Holding;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Data\Message\Formats;
use UpperPane\Core\Data\Rows\Rows;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Layout\Template\FilledRows;
use UpperPane\Core\Layout\Template\Slot;
use UpperPane\Core\Layout\Template\TextSlot;

/**
 * One template filled in with each row of a source; again when the rows are others. A row is known by its key, so that what is filled in with it goes on
 * as the same.
 *
 * @phpstan-type Filling array{template: string, rows: array<string, mixed>, map: array<string, mixed>, name: ?string, key: string}
 */
final readonly class FillFromRows implements Holding
{
    /** So many are filled in at once. */
    public const MOST = 1_000;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Designs $designs,
        private MakeDesign $make,
        private SaveDesign $save,
        private Feeding $feeding,
        private Transaction $transaction,
        private Who $who,
        private ClockInterface $clock,
    ) {
    }

    public function letsGo(About $thing): void
    {
        // What is filled in holds to its template by itself (References).
    }

    /** The rows go with their template, and come back with it. */
    public function goesWith(string $kind): array
    {
        return $kind !== DesignKind::Layout->value ? [] : [
            'rows_filling' => 'template_id = ?',
            'rows_filled' => 'filling_id IN (SELECT id FROM rows_filling WHERE template_id = ?)',
        ];
    }

    public function forgets(string $kind): array
    {
        return [];
    }

    /**
     * What would be filled in, and with which row.
     *
     * @param Node $body `rows`, `map` by slot (a field, or a message over the row), `name` (a message), `key` (a field that tells rows apart)
     * @return array<string, array<string, mixed>> documents by the keys of their rows
     * @throws Refused
     */
    public function documents(Design $template, Node $body): array
    {
        $rows = Rows::fromNode($body->field('rows'));
        $nowMs = (int) $this->clock->now()->format('Uv');
        $inTime = $this->feeding->now($nowMs)->rows($rows, 'UTC')
            ?? throw $body->field('rows')->field('source')->refused(Reason::DataUnknown, sprintf('is "%s", and there is no source of that id, or it has told nothing yet.', $rows->source));
        $chosen = $inTime->at($nowMs)->rows;
        if (count($chosen) > self::MOST) {
            throw $body->field('rows')->refused(Reason::ValueRange, sprintf('chooses %d rows; %d at the most are filled in at once.', count($chosen), self::MOST));
        }
        $many = FilledRows::of(Layout::fromArray($template->document), Node::at($body->field('map')->value, '/map'), $body->optional('name')?->text(0, 2000));
        $filled = $many->filled($chosen, new Formats($rows->language(), 'UTC'), $rows->fallbacks());
        $field = $body->field('key')->text(1, 80);
        $documents = [];
        foreach ($filled as $number => $document) {
            if (!array_key_exists($field, $chosen[$number])) {
                throw $body->field('key')->refused(Reason::RefUnknown, sprintf('is "%s", no field of these rows.', $field));
            }
            $key = mb_substr(trim((string) $chosen[$number][$field]), 0, 150);
            for ($n = 2, $free = $key; isset($documents[$free]); $n++) {
                $free = "$key, $n";
            }
            $documents[$free] = array_diff_key($document, ['id' => 1, 'format' => 1]) + ['template_revision' => $template->revision];
        }

        return $documents;
    }

    /** @return array<string, mixed> as it is told (all) */
    public function begin(Design $template, Node $body): array
    {
        return $this->transaction->of(function () use ($template, $body): array {
            $id = strtolower((string) new Ulid());
            $this->connection->insert('rows_filling', [
                'id' => $id,
                'template_id' => $template->id,
                'told' => json_encode(array_intersect_key($body->fields(), ['rows' => 1, 'map' => 1, 'name' => 1, 'key' => 1]), JSON_THROW_ON_ERROR),
                'done_at' => $this->clock->now()->format('Y-m-d H:i:s'),
                'done_by' => $this->who->login(),
            ]);
            $this->fill($id, $template, $this->documents($template, $body));
            $this->entities->flush();

            return $this->one($template, $id);
        });
    }

    /** @return array<string, mixed> */
    public function again(Design $template, string $id): array
    {
        return $this->transaction->of(function () use ($template, $id): array {
            $this->fill($id, $template, $this->documents($template, $this->body($template, $id)));
            $this->connection->update('rows_filling', ['done_at' => $this->clock->now()->format('Y-m-d H:i:s'), 'done_by' => $this->who->login()], ['id' => $id]);
            $this->entities->flush();

            return $this->one($template, $id);
        });
    }

    /** What was filled in stays; nobody fills it in anew. */
    public function forget(Design $template, string $id): void
    {
        $this->body($template, $id);
        $this->transaction->of(function () use ($id): void {
            $this->connection->delete('rows_filled', ['filling_id' => $id]);
            $this->connection->delete('rows_filling', ['id' => $id]);
        });
    }

    /** @return list<array<string, mixed>> what was filled in from rows, and what would be another by now */
    public function all(Design $template): array
    {
        $ids = $this->connection->fetchFirstColumn('SELECT id FROM rows_filling WHERE template_id = ? ORDER BY done_at DESC, id DESC', [$template->id]);

        return array_map(fn (mixed $id): array => $this->one($template, is_string($id) ? $id : ''), $ids);
    }

    /** @return array<string, mixed> */
    private function one(Design $template, string $id): array
    {
        $body = $this->body($template, $id);
        $row = $this->connection->fetchAssociative('SELECT done_at, done_by FROM rows_filling WHERE id = ?', [$id]) ?: [];
        $filled = $this->filled($id);
        $told = ['id' => $id, 'filled' => count($filled), 'done_at' => is_string($row['done_at'] ?? null) ? strtr($row['done_at'], ' ', 'T') . 'Z' : null, 'done_by' => $row['done_by'] ?? null]
            + $body->fields();
        try {
            $documents = $this->documents($template, $body);
        } catch (Refused $e) {
            return $told + ['news' => null, 'trouble' => $e->getMessage()];
        }
        $changed = 0;
        foreach (array_intersect_key($documents, $filled) as $key => $document) {
            $changed += self::isAnother($filled[$key], $document) ? 1 : 0;
        }

        return $told + ['news' => [
            'new' => count(array_diff_key($documents, $filled)),
            'changed' => $changed,
            'gone' => array_map(static fn (Design $one): string => $one->name, array_values(array_diff_key($filled, $documents))),
        ], 'trouble' => null];
    }

    private function body(Design $template, string $id): Node
    {
        $told = $this->connection->fetchOne('SELECT told FROM rows_filling WHERE id = ? AND template_id = ?', [$id, $template->id]);

        return Node::fromJson(is_string($told) ? $told : throw Problem::notFound('This filling from rows'));
    }

    /** @return array<string, Design> by the keys of their rows */
    private function filled(string $id): array
    {
        /** @var array<string, string> $ids */
        $ids = $this->connection->fetchAllKeyValue('SELECT row_key, design_id FROM rows_filled WHERE filling_id = ?', [$id]);
        $designs = [];
        foreach ($this->designs->those(array_values($ids)) as $design) {
            $designs[$design->id] = $design;
        }
        $filled = [];
        foreach ($ids as $key => $design) {
            isset($designs[$design]) ? $filled[(string) $key] = $designs[$design] : null;
        }

        return $filled;
    }

    /** @param array<string, array<string, mixed>> $documents by the keys of their rows */
    private function fill(string $id, Design $template, array $documents): void
    {
        $filled = $this->filled($id);
        // What was deleted by somebody is filled in anew.
        $this->connection->executeStatement('DELETE FROM rows_filled WHERE filling_id = ? AND design_id NOT IN (?)', [
            $id, array_map(static fn (Design $one): string => $one->id, array_values($filled)) ?: [''],
        ], [1 => ArrayParameterType::STRING]);
        $texts = array_map(static fn (Slot $slot): string => $slot->head()->id, array_filter(Layout::fromArray($template->document)->slots, static fn (Slot $slot): bool => $slot instanceof TextSlot));
        $alike = [];
        foreach ($documents as $key => $document) {
            $name = is_string($document['name']) ? $document['name'] : $template->name;
            $there = $filled[$key] ?? null;
            if ($there === null) {
                $kind = self::pictures($document, $texts);
                $made = $alike[$kind] = $this->make->like($alike[$kind] ?? null, DesignKind::Filled, $name, array_diff_key($document, ['name' => 1]), null, null);
                $this->connection->insert('rows_filled', ['filling_id' => $id, 'row_key' => (string) $key, 'design_id' => $made->id]);
            } elseif (self::isAnother($there, $document)) {
                $this->save->of(DesignKind::Filled, $there->id, $there->revision, $document, 'filled in from its row again')->told(static fn (Design $one): array => $one->summary());
            }
        }
    }

    /**
     * Rows were read by their slots, and words and figures are composed whatever they say; what names something else may be refused.
     *
     * @param array<string, mixed> $document
     * @param array<string> $texts slots that take words
     * @return string the same for all that name the same
     */
    private static function pictures(array $document, array $texts): string
    {
        $values = is_array($document['values'] ?? null) ? array_diff_key($document['values'], array_flip($texts)) : [];

        return json_encode(array_filter($values, is_array(...)), JSON_THROW_ON_ERROR);
    }

    /** @param array<string, mixed> $document */
    private static function isAnother(Design $design, array $document): bool
    {
        $told = static fn (array $one): string => json_encode(array_intersect_key($one, ['name' => 1, 'values' => 1]), JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION);
        $sorted = ['name' => $design->document['name'] ?? '', 'values' => $design->document['values'] ?? new \stdClass()];

        return $told($sorted) !== $told(['name' => $document['name'] ?? '', 'values' => $document['values'] ?? new \stdClass()]);
    }
}
