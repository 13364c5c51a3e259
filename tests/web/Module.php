<?php

declare(strict_types=1);

namespace UpperPane\Tests\Web;

/** A module of web/src that needs no browser, called in Node with JSON in and out; of what it imports only modules beside it are there, as far as they need no more. */
final readonly class Module
{
    private const SCRIPT = <<<'JS'
        const fs = require('fs')
        const [root, file, calls] = process.argv.slice(1)
        const ts = require(root + '/web/node_modules/typescript')
        const path = require('path')
        const load = (file) => {
          const out = { exports: {} }
          const code = ts.transpileModule(fs.readFileSync(file, 'utf8'), { compilerOptions: { module: 'commonjs', target: 'es2022' } }).outputText
          const beside = (name) => {
            const there = path.join(path.dirname(file), name + '.ts')
            try {
              return name.startsWith('.') && fs.existsSync(there) ? load(there) : {}
            } catch {
              // It needs what is not here.
              return {}
            }
          }
          new Function('exports', 'require', code)(out.exports, beside)
          return out.exports
        }
        const exported = load(root + '/web/src/' + file)
        const results = JSON.parse(fs.readFileSync(calls, 'utf8')).map(([name, args]) => exported[name](...args) ?? null)
        process.stdout.write(JSON.stringify(results))
        JS;

    public function __construct(private string $file)
    {
    }

    public function call(string $function, mixed ...$arguments): mixed
    {
        return $this->calls([[$function, array_values($arguments)]])[0];
    }

    /**
     * @param list<array{string, list<mixed>}> $calls
     * @return list<mixed>
     */
    public function calls(array $calls): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'calls');
        file_put_contents($file, json_encode($calls, JSON_PRESERVE_ZERO_FRACTION));
        $root = dirname(__DIR__, 2);
        $found = shell_exec('TZ=UTC node -e ' . implode(' ', array_map(escapeshellarg(...), [self::SCRIPT, $root, $this->file, $file])));
        unlink($file);
        $results = json_decode((string) $found, true);

        return is_array($results) ? array_values($results) : throw new \RuntimeException("$this->file answered: $found");
    }
}
