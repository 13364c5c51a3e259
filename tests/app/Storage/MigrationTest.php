<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Storage;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Schema\Schema;
use Doctrine\DBAL\Tools\DsnParser;
use Doctrine\Migrations\AbstractMigration;
use PHPUnit\Framework\TestCase;
use Psr\Log\NullLogger;
use UpperPane\Migrations\Version20261127080000;
use UpperPane\Migrations\Version20261127090000;
use UpperPane\Migrations\Version20261127100000;
use UpperPane\Migrations\Version20261127110000;
use UpperPane\Migrations\Version20261127120000;
use UpperPane\Migrations\Version20261127130000;
use UpperPane\Tests\Core\Make;

/**
 * On a dump that was made with the code as it was before releases were manifests, with rows in it that only a comparison without regard to
 * case and white space held together (before-manifests.sql.gz).
 */
final class MigrationTest extends TestCase
{
    private const MIGRATIONS = [
        Version20261127080000::class,
        Version20261127090000::class,
        Version20261127100000::class,
        Version20261127110000::class,
        Version20261127120000::class,
        Version20261127130000::class,
    ];

    private Connection $connection;

    public static function setUpBeforeClass(): void
    {
        foreach (self::MIGRATIONS as $class) {
            require_once dirname(__DIR__, 3) . '/app/migrations/' . substr((string) strrchr($class, '\\'), 1) . '.php';
        }
    }

    protected function setUp(): void
    {
        $url = getenv('DATABASE_URL') ?: throw new \RuntimeException('Run by bin/test, which has a database.');
        $parameters = (new DsnParser(['mysql' => 'pdo_mysql']))->parse($url);
        $this->connection = DriverManager::getConnection(['dbname' => 'mysql'] + $parameters);
        $this->connection->executeStatement('CREATE DATABASE IF NOT EXISTS upper_pane_trial');
    }

    protected function tearDown(): void
    {
        $this->connection->executeStatement('DROP DATABASE upper_pane_trial');
        $this->connection->close();
    }

    public function testWhatNamedARowInAnotherSpellingNamesItStill(): void
    {
        $this->load();
        $this->migrate();
        $one = fn (string $sql): mixed => $this->connection->fetchOne($sql);
        self::assertSame(['check-in-1', 'hall', 'saltgate-quay'], [
            $one("SELECT display_id FROM player WHERE id = 'player-check-in-1'"),
            $one("SELECT place_id FROM surveyed_display WHERE id = 'check-in-3'"),
            $one("SELECT parent_id FROM place WHERE id = 'shop'"),
        ]);
        self::assertSame('house-notices', $one("SELECT JSON_VALUE(document, '$.id') FROM design WHERE id = 'house-notices'"), 'the id of a document is that of its row');
        self::assertSame(['house-notices', 'house-notices'], $this->connection->fetchFirstColumn("SELECT JSON_VALUE(document, '$.id') FROM design_revision WHERE design_id = 'house-notices'"));
        self::assertStringContainsString('"ref":"house-notices"', (string) $one("SELECT document FROM design WHERE id = 'shop-window-round'"));
        self::assertSame('check-in-day', $one("SELECT source_id FROM handed_release WHERE display_id = 'check-in-2' AND number = 2"));
        self::assertSame(0, (int) $one("SELECT COUNT(*) FROM release_part WHERE design_id LIKE BINARY '%HOUSE-NOTICES%'"));
        self::assertGreaterThan(0, (int) $one('SELECT COUNT(*) FROM handed_release r JOIN release_part p ON p.made_of = r.made_of JOIN design d ON d.id = p.design_id AND d.revision >= p.revision'));
        self::assertSame(0, (int) $one("SELECT COUNT(*) FROM design WHERE id = 'HOUSE-NOTICES'"), 'and no other spelling is its name any more');
        self::assertSame(0, (int) $one("SELECT COUNT(*) FROM account WHERE login = 'rui '"));
        $columns = "SELECT collation_name FROM information_schema.columns WHERE table_schema = 'upper_pane_trial'";
        self::assertSame('utf8mb4_nopad_bin', $one("$columns AND table_name = 'account' AND column_name = 'login'"));
        self::assertSame(['shop-window-round'], $this->connection->fetchFirstColumn("SELECT DISTINCT design_id FROM reference WHERE kind = 'design' AND thing_id = 'house-notices'"));
        self::assertSame('Hall wall', $one("SELECT name FROM surveyed_display WHERE id = 'hall'"));
    }

    /** What viewers read is no name of anything, also where it sounds like one. */
    public function testWordsAreLeftAsTheyAre(): void
    {
        $this->load();
        $media = $this->connection->fetchOne('SELECT id FROM media_asset ORDER BY id LIMIT 1');
        $words = strtoupper(is_string($media) ? $media : '');
        $this->connection->executeStatement(
            "UPDATE design SET document = JSON_ARRAY_APPEND(document, '$.elements', JSON_OBJECT('id', ?, 'kind', 'text', 'text', ?)) WHERE id = 'check-in-day'",
            [$words, $words],
        );
        $this->migrate();
        self::assertNotSame($media, $words);
        self::assertSame($words, $this->connection->fetchOne("SELECT JSON_VALUE(document, '$.elements[last].id') FROM design WHERE id = 'check-in-day'"));
    }

    /** The one that ruled goes on ruling; the other is kept, and rules nowhere. */
    public function testOfTwoSchedulesOfOnePlaceTheOneThatRulesStays(): void
    {
        $this->load();
        $this->migrate();
        self::assertSame(['piers' => null, 'piers-second' => 'piers'], $this->connection->fetchAllKeyValue("SELECT id, place_id FROM design WHERE kind = 'schedule' ORDER BY id"));
        $this->expectExceptionMessage('one_schedule');
        $this->connection->executeStatement("UPDATE design SET place_id = 'piers' WHERE id = 'piers'");
    }

    /** Killed between any two statements and begun anew, it ends in the same. */
    public function testItCanBeKilledAtAnyStatementAndRunAgain(): void
    {
        $this->load();
        $this->migrate();
        $whole = $this->state();
        $random = Make::random(12);
        for ($round = 0; $round < Make::rounds(3); $round++) {
            $this->load();
            $killed = '';
            foreach (self::MIGRATIONS as $class) {
                $statements = $this->statements($class);
                $stop = $random->getInt(0, count($statements) - 1);
                $killed .= " $stop";
                foreach (array_slice($statements, 0, $stop) as [$sql, $values]) {
                    $this->connection->executeStatement($sql, $values);
                }
                $this->runOne($class);
            }
            self::assertSame($whole, $this->state(), "killed before statements$killed");
        }
    }

    private function load(): void
    {
        $this->connection->executeStatement('DROP DATABASE upper_pane_trial');
        $this->connection->executeStatement('CREATE DATABASE upper_pane_trial CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
        $this->connection->executeStatement('USE upper_pane_trial');
        $this->connection->executeStatement((string) gzdecode((string) file_get_contents(__DIR__ . '/before-manifests.sql.gz')));
        // Reads the answers of all the statements that were sent at once.
        $this->connection->close();
        $this->connection->executeStatement('USE upper_pane_trial');
    }

    private function migrate(): void
    {
        foreach (self::MIGRATIONS as $class) {
            $this->runOne($class);
        }
    }

    /** @param class-string<AbstractMigration> $class */
    private function runOne(string $class): void
    {
        foreach ($this->statements($class) as [$sql, $values]) {
            $this->connection->executeStatement($sql, $values);
        }
    }

    /**
     * @param class-string<AbstractMigration> $class
     * @return list<array{string, list<mixed>}>
     */
    private function statements(string $class): array
    {
        $migration = new $class($this->connection, new NullLogger());
        $migration->up(new Schema());

        return array_map(static fn ($query): array => [$query->getStatement(), array_values($query->getParameters())], array_values($migration->getSql()));
    }

    /** @return array<string, mixed> how each table is made, and what is in it */
    private function state(): array
    {
        $state = [];
        foreach ($this->connection->fetchFirstColumn('SHOW TABLES') as $table) {
            $made = $this->connection->fetchNumeric("SHOW CREATE TABLE $table");
            $rows = array_map(static fn (array $row): string => (string) json_encode($row), $this->connection->fetchAllAssociative("SELECT * FROM $table"));
            sort($rows);
            $state[$table] = [$made[1] ?? '', $rows];
        }

        return $state;
    }
}
