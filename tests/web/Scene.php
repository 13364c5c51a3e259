<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

/**
 * A piece of the desk played in Node, with real Vue, Pinia and queries, and with a server, a clock and a store of its own (scene.ts).
 *
 * What the script gives to `say` comes back; it imports modules of web/src as `@/…` and its helpers from `scene`.
 */
final class Scene
{
    private const RUN = <<<'JS'
        const [root, script] = process.argv.slice(1)
        const { rolldown } = require(root + '/web/node_modules/rolldown')
        rolldown({
          input: script,
          platform: 'node',
          logLevel: 'silent',
          transform: { define: { 'process.env.NODE_ENV': '"production"' } },
          resolve: { alias: { '@': root + '/web/src', scene: root + '/tests/web/scene.ts' }, modules: ['node_modules', root + '/web/node_modules'] },
        })
          .then((bundle) => bundle.write({
            format: 'es',
            codeSplitting: false,
            file: script + '.mjs',
            banner: 'Object.assign(globalThis, { window: globalThis, addEventListener() {}, removeEventListener() {} })',
          }))
          .then(() => import(script + '.mjs'))
          .catch((e) => { console.error(e); process.exit(1) })
        JS;

    public static function play(string $script): mixed
    {
        return self::run("import { mounted, page, pass, say, server, storage } from 'scene'\nvoid [mounted, page, pass, say, server, storage]\n$script");
    }

    /**
     * What a function of `scenes/FILE.ts` answers.
     *
     * @param mixed $given written into a file of JSON, whose path the function finds in SCENE_GIVEN
     */
    public static function of(string $file, string $function, mixed $given = null): mixed
    {
        $scenes = json_encode(__DIR__ . "/scenes/$file", JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);

        $said = "writeFileSync(process.env.SCENE_GIVEN + '.said', JSON.stringify(await $function()))";

        return self::run("import { writeFileSync } from 'node:fs'\nimport { $function } from $scenes\n$said\nprocess.exit(0)", $given);
    }

    private static function run(string $script, mixed $given = null): mixed
    {
        $file = sys_get_temp_dir() . '/scene-' . bin2hex(random_bytes(6)) . '.ts';
        file_put_contents($file, $script);
        file_put_contents("$file.json", json_encode($given, JSON_PRESERVE_ZERO_FRACTION));
        $most = getenv('UPPER_PANE_LONG') === '1' ? 3600 : 120;
        $command = "SCENE_GIVEN=$file.json TZ=UTC timeout $most node --expose-gc -e " . implode(' ', array_map(escapeshellarg(...), [self::RUN, dirname(__DIR__, 2), $file]));
        exec("$command 2>&1", $lines, $code);
        $last = is_file("$file.json.said") ? 'said ' . file_get_contents("$file.json.said") : end($lines);
        array_map(unlink(...), glob("$file*") ?: []);
        $said = $code === 0 && is_string($last) && str_starts_with($last, 'said ') ? json_decode(substr($last, 5), true) : null;

        return $said ?? throw new \RuntimeException("The scene ended with $code:\n" . implode("\n", $lines));
    }
}
