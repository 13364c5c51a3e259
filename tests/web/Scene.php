<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

/**
 * A piece of the desk played in Node, with real Vue, Pinia and queries, and with a server, a clock and a store of its own (scene.ts).
 *
 * Scenes stand in scenes/, import modules of web/src as `@/…`, and answer what became of it.
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
          resolve: { alias: { '@': root + '/web/src' }, modules: ['node_modules', root + '/web/node_modules'] },
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

    /**
     * What a function of `scenes/FILE.ts` answers.
     *
     * @param mixed $given written into a file of JSON, whose path the function finds in SCENE_GIVEN
     */
    public static function of(string $file, string $function, mixed $given = null): mixed
    {
        $scenes = json_encode(__DIR__ . "/scenes/$file", JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);
        $said = "writeFileSync(process.env.SCENE_GIVEN + '.said', JSON.stringify(await $function()))";
        $script = sys_get_temp_dir() . '/scene-' . bin2hex(random_bytes(6)) . '.ts';
        file_put_contents($script, "import { writeFileSync } from 'node:fs'\nimport { $function } from $scenes\n$said\nprocess.exit(0)");
        file_put_contents("$script.json", json_encode($given, JSON_PRESERVE_ZERO_FRACTION));
        $most = getenv('UPPER_PANE_LONG') === '1' ? 3600 : 120;
        $command = "SCENE_GIVEN=$script.json TZ=UTC timeout $most node --expose-gc -e " . implode(' ', array_map(escapeshellarg(...), [self::RUN, dirname(__DIR__, 2), $script]));
        exec("$command 2>&1", $lines, $code);
        $answer = $code === 0 && is_file("$script.json.said") ? json_decode((string) file_get_contents("$script.json.said"), true) : null;
        array_map(unlink(...), glob("$script*") ?: []);

        return $answer ?? throw new \RuntimeException("The scene ended with $code:\n" . implode("\n", $lines));
    }
}
