import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import Components from 'unplugin-vue-components/vite'
import { createHash } from 'node:crypto'
import { readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { type Plugin, defineConfig } from 'vite'

const page = (name: string) => fileURLToPath(new URL(name, import.meta.url))

// The build is known by what it is made of, so that a page can tell whether it is the one that is handed out now.
const sources = readdirSync(page('./src'), { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile())
  .map((entry) => `${entry.parentPath}/${entry.name}`)
  .sort()
const hash = createHash('sha256')
for (const file of [...sources, page('./package-lock.json')]) hash.update(readFileSync(file))
const build = hash.digest('hex').slice(0, 16)

// No clock that is right says an earlier day.
const built = Math.floor(Date.now() / 86_400_000) * 86_400_000

const tellBuild: Plugin = {
  name: 'tell-build',
  generateBundle() {
    this.emitFile({ type: 'asset', fileName: 'build.json', source: JSON.stringify({ build }) })
  },
}

/** Tells the service worker what the player page is made of: each file by its address, the page itself by its hash. */
const tellPage: Plugin = {
  name: 'tell-page',
  writeBundle({ dir }, bundle) {
    const files = new Set<string>()
    const take = (file: string): void => {
      const one = bundle[file]
      if (!one || files.has(file)) return
      files.add(file)
      if (one.type === 'chunk') {
        ;[...one.imports, ...one.dynamicImports, ...(one.viteMetadata?.importedCss ?? []), ...(one.viteMetadata?.importedAssets ?? [])].forEach(take)
      } else if (file.endsWith('.css')) {
        for (const [, asset] of String(one.source).matchAll(/url\("?\/(assets\/[^)"]+)/g)) take(asset)
      }
    }
    for (const [file, one] of Object.entries(bundle)) {
      if ((one.type === 'chunk' && one.isEntry && one.name === 'player') || /^assets\/keeper-/.test(file)) take(file)
    }
    const page = readFileSync(`${dir}/player.html`)
    const parts = [
      { url: '/player', revision: createHash('sha256').update(page).digest('hex').slice(0, 16) },
      ...[...files].sort().map((file) => ({ url: `/${file}`, revision: null })),
      { url: '/mark.svg', revision: build },
    ]
    const worker = `${dir}/play/sw.js`
    writeFileSync(worker, readFileSync(worker, 'utf8').replaceAll('__PAGE__', JSON.stringify(parts)))
  },
}

export default defineConfig({
  define: { __BUILD__: JSON.stringify(build), __BUILT__: JSON.stringify(built) },
  // White space between inline elements counts, as in HTML; a line break in the source is a space.
  plugins: [
    vue({ template: { compilerOptions: { whitespace: 'preserve' } } }),
    Components({ dts: false, dirs: [], resolvers: [BootstrapVueNextResolver()] }),
    tellBuild,
    tellPage,
  ],
  resolve: { alias: { '@': page('./src') } },
  css: { preprocessorOptions: { scss: { quietDeps: true } } },
  build: {
    rolldownOptions: {
      input: { desk: page('index.html'), player: page('player.html'), hurry: page('hurry.html'), panel: page('panel.html'), sw: page('src/player/sw.ts') },
      output: {
        // The service worker keeps its address, since browsers know it by that.
        entryFileNames: (chunk) => (chunk.name === 'sw' ? 'play/sw.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
})
