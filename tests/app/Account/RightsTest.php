<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Account;

use Symfony\Component\Routing\RouterInterface;
use UpperPane\App\Account\Role;
use UpperPane\App\Layout\Design;
use UpperPane\App\Layout\DesignKind;
use UpperPane\Tests\App\ApiTestCase;
use UpperPane\Tests\Core\Make;

/** What each role may do, route by route and place by place; what is not hers is for nobody there. */
final class RightsTest extends ApiTestCase
{
    /**
     * Which right a route asks for, by methods and what its path begins with; the longest that suits holds. One that none suits fails: whoever adds a route
     * says here who may.
     */
    private const TABLE = [
        '* /api/session' => null, '* /api/sign-in' => null, '* /api/pairing' => null, '* /api/play/' => null, '* /api/health' => null,
        '* /api/account' => null, '* /api/invitation' => null, '* /api/accounts' => 'administer',

        'GET /api/record' => 'look', '* /api/bin' => 'design', 'GET /api/work' => 'look', '* /api/work/failed' => 'administer',
        'GET /api/survey/sizes' => 'look', '* /api/survey/' => 'survey', 'GET /api/displays' => 'look', '* /api/displays' => 'survey',
        'GET /api/displays/1/panels/' => 'survey', 'POST /api/displays/analysis' => 'look', '* /api/displays/1/settings' => 'design', 'GET /api/displays/1/settings' => 'look',
        '* /api/places' => 'survey', 'GET /api/places/1/settings' => 'look', '* /api/places/1/settings' => 'design', 'GET /api/settings' => 'look',
        'GET /api/estate' => 'look', 'GET /api/matches' => 'look', 'GET /api/words' => 'look', 'GET /api/house-style' => 'look',
        'POST /api/handover' => 'fill-in', 'POST /api/handover/back' => 'hand-over', 'GET /api/handings' => 'look', 'POST /api/handings' => 'fill-in',
        'GET /api/in-force' => 'look', 'GET /api/in-force/where' => 'fill-in', 'POST /api/notices' => 'fill-in', 'POST /api/takeovers' => 'hand-over', 'GET /api/above' => 'look',
        'POST /api/above' => 'hand-over', 'POST /api/above/look' => 'look', 'POST /api/above/cures' => 'look',
        'POST /api/reactions' => 'design', '* /api/bench' => 'design', 'GET /api/data' => 'look', 'POST /api/rows' => 'design', 'GET /api/sources/1/state' => 'design',
        'GET /api/faces' => 'look', '* /api/faces' => 'design', '* /api/rehearsal' => 'look',
        '* /api/players' => 'survey', 'GET /api/players/1/glass' => 'look',
        'POST /api/plays' => 'look', 'POST /api/plays/edit' => 'design', 'POST /api/plays/act' => 'design', 'POST /api/plays/calendar' => 'design', 'POST /api/items' => 'fill-in',
        'GET /api/layouts' => 'look', 'GET /api/playlists' => 'look', 'GET /api/schedules' => 'look', 'GET /api/sources' => 'look', 'GET /api/styles' => 'look',
        'GET /api/overlays' => 'look', 'GET /api/triggers' => 'look', 'GET /api/panels' => 'look', 'GET /api/filled' => 'look',
        '* /api/layouts' => 'design', '* /api/playlists' => 'design', '* /api/schedules' => 'design', '* /api/sources' => 'design', '* /api/styles' => 'design',
        '* /api/overlays' => 'design', '* /api/triggers' => 'design', '* /api/panels' => 'design', '* /api/filled' => 'fill-in',
        'GET /api/panels/1/told' => 'hand-over', 'POST /api/panels/1/press' => 'hand-over', 'POST /api/panels/1/back' => 'hand-over',
        '* /api/layouts/1/filled' => 'fill-in', 'GET /api/layouts/1/rows' => 'design',
        'GET /api/layouts/1/filled' => 'look', 'GET /api/filled/1/shown' => 'fill-in', 'POST /api/filling' => 'look', 'POST /api/templates' => 'design',
        '* /api/divisions' => 'design', '* /api/boards' => 'design', '* /api/arrangement' => 'design',
        '* /api/analysis' => 'design', '* /api/cures' => 'design', '* /api/figure' => 'design', '* /api/clock' => 'design', '* /api/as-seen' => 'design',
        '* /api/timeline' => 'design', '* /api/shown' => 'design',
        'GET /api/media' => 'look', '* /api/media' => 'fill-in', 'DELETE /api/media' => 'design',
    ];

    /** What each role has, as the house has decided it. */
    private const ROLES = [
        'reader' => ['look'],
        'editor' => ['look', 'fill-in'],
        'operator' => ['look', 'fill-in', 'hand-over'],
        'installer' => ['look', 'survey'],
        'designer' => ['look', 'fill-in', 'hand-over', 'design'],
        'administrator' => ['look', 'fill-in', 'hand-over', 'survey', 'design', 'administer'],
    ];

    public function testEachRoleMayDoOnEachRouteWhatTheTableSays(): void
    {
        $tried = 0;
        $routes = $this->routes();
        foreach (self::ROLES as $role => $rights) {
            $this->somebody($role, Role::from($role));
            foreach ($routes as [$method, $path]) {
                $right = self::right($method, $path);
                if ($right === null) {
                    continue;
                }
                $written = self::written();
                [$status, $answer] = $this->ask($method, $path, $method === 'GET' ? null : '{}');
                $isDenied = str_contains(self::written($written), "Not allowed: $role asked $method $path");
                self::assertSame(!in_array($right, $rights, true), $isDenied, "$role: $method $path answers $status");
                if ($isDenied) {
                    self::assertSame([404, 'What you asked for is not there, or no longer.'], [$status, $answer['error']['message']], "$role: $method $path");
                }
                $tried++;
            }
        }
        self::assertGreaterThan(600, $tried);
    }

    public function testNobodyIsAnsweredWhoIsNotSignedIn(): void
    {
        foreach ($this->routes() as [$method, $path]) {
            if (self::right($method, $path) !== null) {
                self::assertContains($this->ask($method, $path, $method === 'GET' ? null : '{}')[0], $method === 'GET' ? [401] : [401, 403], "$method $path");
            }
        }
    }

    public function testAnEditorReachesHerPlacesAndWhatIsFilledInThere(): void
    {
        $this->signIn();
        $template = $this->template('Offer');
        $plain = $this->made(Make::layout([], width: 1080, height: 1920), 'Plain')['id'];
        [$here, $there] = [$this->fill($template, 'tall'), $this->fill($template, 'wide')];
        $this->somebody('marta', Role::Editor, 'gates');
        self::assertSame(['look' => ['gates'], 'fill-in' => ['gates']], $this->ask('GET', '/api/session')[1]['account']['rights']);

        self::assertSame(['tall'], array_column($this->estate()['displays'], 'id'));
        self::assertSame([[$template], [$here]], [
            array_column($this->ask('GET', '/api/layouts')[1]['layouts'], 'id'),
            array_column($this->ask('GET', '/api/filled')[1]['filled'], 'id'),
        ], 'templates, and what is filled in for her displays');
        $document = fn (string $words): array => ['base' => 1, 'document' => ['name' => 'x', 'template' => $template, 'template_revision' => 1, 'values' => ['head' => $words]]];
        self::assertSame([200, 404, 404, 404, 404], array_map(fn (array $asked): int => $this->ask(...$asked)[0], [
            ['PUT', "/api/filled/$here", $document('Boats')], ['PUT', "/api/filled/$there", $document('Boats')], ['GET', "/api/filled/$there"],
            ['GET', "/api/layouts/$plain"], ['PUT', "/api/layouts/$template", ['base' => 1, 'document' => self::open()]],
        ]));
        self::assertSame(422, $this->ask('POST', '/api/filled', ['name' => 'y', 'document' => ['template' => $plain, 'values' => []]])[0], 'no template of hers');
        $mine = $this->fill($template, null);
        self::assertSame(200, $this->ask('GET', "/api/filled/$mine")[0], 'what she has filled in herself, wherever it is for');

        // Nor is it looked at, by whatever way it is named.
        $look = fn (array $document): int => $this->ask('POST', '/api/filling', ['document' => $document + ['format' => 'upper-pane/filled@1', 'id' => 'new', 'name' => 'x', 'values' => []]])[0];
        self::assertSame([200, 422, 422], [$look(['template' => $template]), $look(['template' => $plain]), $look(['template' => $template, 'values' => ['head' => [
            ['id' => 'a', 'layout' => ['ref' => $plain], 'duration_ms' => 1000],
        ]]])]);

        // Handed over within her places, and nothing but what is filled in.
        $source = static fn (string $kind, string $id): array => ['source' => ['kind' => $kind, 'id' => $id]];
        $this->handOver($source('filled', $here) + ['displays' => ['tall']]);
        self::assertSame([422, 404, 404, 422], [
            $this->ask('POST', '/api/handover', $source('filled', $here) + ['displays' => ['wide']])[0],
            $this->ask('POST', '/api/handover', $source('filled', $there) + ['displays' => ['tall']])[0],
            $this->ask('POST', '/api/handover', $source('layout', $plain) + ['displays' => ['tall']])[0],
            $this->ask('POST', '/api/handover', $source('media', $this->media()->id) + ['displays' => ['tall']])[0],
        ]);
    }

    public function testOnlyWhatIsBroughtToOnesDisplaysIsTold(): void
    {
        $this->signIn();
        $media = $this->media()->id;
        $this->handOver(['source' => ['kind' => 'media', 'id' => $media], 'displays' => ['wide']]);
        $this->handOver(['source' => ['kind' => 'media', 'id' => $media], 'displays' => ['tall']]);
        self::assertCount(2, $all = $this->ask('GET', '/api/handings')[1]['handings']);
        $this->somebody('marta', Role::Editor, 'gates');
        $mine = $this->ask('GET', '/api/handings')[1]['handings'];
        self::assertSame([['tall']], array_column($mine, 'displays'));
        $other = array_values(array_diff(array_column($all, 'id'), array_column($mine, 'id')))[0];
        self::assertSame([200, 404, 404], [
            $this->ask('GET', "/api/handings/{$mine[0]['id']}")[0], $this->ask('GET', "/api/handings/$other")[0], $this->ask('POST', "/api/handings/$other/again")[0],
        ]);
    }

    /** Whoever may do more at one place than at another does there no more than is his. */
    public function testRolesHoldWhereTheyAreGiven(): void
    {
        $this->signIn();
        $plain = $this->made(Make::layout([], width: 1080, height: 1920), 'Plain')['id'];
        $this->somebody('rui', Role::Operator, 'gates', [[Role::Reader, 'hall']]);
        self::assertSame(['wide', 'tall'], array_column($this->estate()['displays'], 'id'), 'he looks at all of the hall');
        $this->handOver(['source' => ['kind' => 'layout', 'id' => $plain], 'displays' => ['tall']]);
        self::assertSame(422, $this->ask('POST', '/api/handover', ['source' => ['kind' => 'layout', 'id' => $plain], 'displays' => ['wide']])[0]);
        self::assertSame(404, $this->ask('POST', '/api/handover/back', ['releases' => [['display' => 'wide', 'number' => 1]]])[0]);

        $this->somebody('olav', Role::Installer, 'gates');
        $document = ['format' => 'upper-pane/display@1', 'id' => 'tall', 'name' => 'Taller'] + Make::display(1920, 1080, 90);
        self::assertSame([200, 404], [
            $this->ask('PUT', '/api/displays/tall', ['base' => 1, 'document' => $document])[0],
            $this->ask('PUT', '/api/displays/wide', ['base' => 1, 'document' => ['id' => 'wide'] + $document])[0],
        ]);
        // A place that is moved takes its people with it, from the next question on.
        $this->entities()->getConnection()->executeStatement("UPDATE place SET parent_id = NULL WHERE id = 'gates'");
        $this->somebody('eva', Role::Reader, 'hall');
        self::assertSame(['wide'], array_column($this->estate()['displays'], 'id'));
    }

    public function testADesignerAtOnePlaceMakesWhatIsForNoOther(): void
    {
        $this->signIn();
        $document = Make::layout([]);
        [$free, $here, $there] = array_map(
            fn (?string $display): string => $this->ask('POST', '/api/layouts', ['name' => 'L', 'document' => $document] + ($display === null ? [] : ['display' => $display]))[1]['id'],
            [null, 'tall', 'wide'],
        );
        $this->somebody('eva', Role::Designer, 'gates');
        $put = fn (string $id): int => $this->ask('PUT', "/api/layouts/$id", ['base' => 1, 'document' => ['name' => 'M'] + $document])[0];
        self::assertSame([200, 200, 404], [$put($free), $put($here), $put($there)]);
        self::assertSame([422, 404, 200], [
            $this->ask('POST', '/api/layouts', ['name' => 'N', 'document' => $document, 'display' => 'wide'])[0],
            $this->ask('PUT', '/api/places/hall/settings', ['setting' => 'vars.phone', 'value' => '1'])[0],
            $this->ask('PUT', '/api/places/gates/settings', ['setting' => 'vars.phone', 'value' => '1'])[0],
        ]);
    }

    public function testATemplateMayBeFreeForOnePlaceOnly(): void
    {
        $this->signIn();
        [$hall, $gates] = [$this->template('Of the hall'), $this->template('Of the gates')];
        $this->entities()->getConnection()->executeStatement("UPDATE design SET place_id = 'gates' WHERE id = ?", [$gates]);
        $this->entities()->persist(new Design('elsewhere', DesignKind::Layout, 'Elsewhere', ['id' => 'elsewhere'] + self::open(), null, self::now(), 'ines', 'nowhere'));
        $this->entities()->flush();
        $this->somebody('marta', Role::Editor, 'gates');
        self::assertSame([$gates, $hall], array_column($this->ask('GET', '/api/layouts')[1]['layouts'], 'id'));
    }

    private function template(string $name): string
    {
        return $this->made(self::open(), $name)['id'];
    }

    private function fill(string $template, ?string $display): string
    {
        $made = $this->ask('POST', '/api/filled', ['name' => 'Filled', 'document' => ['template' => $template, 'template_revision' => 1, 'values' => ['head' => 'x']]]
            + ($display === null ? [] : ['display' => $display]));
        self::assertSame(201, $made[0], json_encode($made[1]) ?: '');

        return $made[1]['id'];
    }

    /** @return array<string, mixed> */
    private static function open(): array
    {
        return ['slots' => [['id' => 'head', 'name' => 'Headline', 'kind' => 'text', 'element' => 'head']]]
            + Make::layout([Make::told('head', 'Headline', 1200, 150, message: false)], width: 1080, height: 1920);
    }

    /** @return list<array{string, string}> methods and paths of all routes, with something in place of what stands in braces */
    private function routes(): array
    {
        $routes = [];
        foreach (static::getContainer()->get(RouterInterface::class)->getRouteCollection()->all() as $route) {
            $paths = [$route->getPath()];
            foreach (['plural', 'kind'] as $word) {
                $words = explode('|', (string) $route->getRequirement($word));
                $each = static fn (string $path): array => array_map(static fn (string $one): string => str_replace("{{$word}}", $one, $path), $words);
                $paths = $words === [''] ? $paths : array_merge(...array_map($each, $paths));
            }
            foreach ($paths as $path) {
                $path = str_replace(['{day}', '{kind}'], ['2026-01-01', 'layout'], $path);
                $routes[] = [$route->getMethods()[0] ?? 'POST', (string) preg_replace('/\{\w+\}/', '1', $path)];
            }
        }

        return $routes;
    }

    private static function right(string $method, string $path): ?string
    {
        $found = null;
        foreach (array_keys(self::TABLE) as $line) {
            [$methods, $begin] = explode(' ', $line);
            $isLonger = $found === null || [strlen($begin), $methods !== '*'] > [strlen(explode(' ', $found)[1]), !str_starts_with($found, '*')];
            if (str_starts_with($path, $begin) && in_array($methods, [$method, '*'], true) && $isLonger) {
                $found = $line;
            }
        }

        return $found === null ? self::fail("Nobody says who may $method $path: it has no line in the table.") : self::TABLE[$found];
    }

    /** What is written down from a place on; without one, how far it goes. */
    private static function written(?string $from = null): string
    {
        $file = max(glob(dirname(__DIR__, 3) . '/var/log/test-*.log') ?: ['']);
        clearstatcache();
        if ($from === null) {
            return (string) ($file === '' ? 0 : filesize($file));
        }

        return (string) file_get_contents($file, offset: (int) $from);
    }
}
