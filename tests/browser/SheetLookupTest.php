<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser;

use PHPUnit\Framework\TestCase;
use UpperPane\Core\Layout\Layout;
use UpperPane\Core\Playback\RunSheet;
use UpperPane\Core\Playback\ShownAt;
use UpperPane\Tests\Core\Make;

/** The lookup that players, composer and thumbnails share (web/src/pane/sheet.ts), run in Node, says what the core says. */
final class SheetLookupTest extends TestCase
{
    private const SCRIPT = <<<'JS'
        const ts = require(process.argv[1] + '/web/node_modules/typescript')
        const fs = require('fs')
        const source = fs.readFileSync(process.argv[1] + '/web/src/pane/sheet.ts', 'utf8')
        const out = { exports: {} }
        new Function('exports', ts.transpileModule(source, { compilerOptions: { module: 'commonjs', target: 'es2022' } }).outputText)(out.exports)
        const cases = JSON.parse(fs.readFileSync(process.argv[2], 'utf8'))
        process.stdout.write(JSON.stringify(cases.map(({ sheet, at }) => at.map((t) => out.exports.dueAt(sheet, t).map((d) => ({
          ...d.part, ...(d.offset_ms === null ? {} : { offset_ms: d.offset_ms }), ...(d.opacity < 1 ? { opacity: Math.round(d.opacity * 1e4) / 1e4 } : {}) })))))
          )
        JS;

    public function testTheBrowserLooksUpWhatTheCoreShows(): void
    {
        $random = Make::random(77);
        $cases = [];
        $want = [];
        for ($i = 0; $i < 40; $i++) {
            $layout = Layout::fromArray(Make::randomLayout($random));
            $anchor = $random->getInt(0, 1) * 1_790_000_000_000;
            $at = array_map(static fn (): int => $anchor + $random->getInt(-9000, 90_000), range(0, 30));
            $cases[] = ['sheet' => RunSheet::of($layout, $anchor), 'at' => $at];
            $shown = ShownAt::of($layout, $anchor);
            $want[] = array_map(static fn (int $ms): array => $shown->at($ms)->toArray()['things'], $at);
        }
        $file = (string) tempnam(sys_get_temp_dir(), 'sheets');
        file_put_contents($file, json_encode($cases));
        $found = shell_exec('node -e ' . escapeshellarg(self::SCRIPT) . ' ' . escapeshellarg(dirname(__DIR__, 2)) . ' ' . escapeshellarg($file));
        unlink($file);

        self::assertEquals(json_decode((string) json_encode($want), true), json_decode((string) $found, true));
    }
}
