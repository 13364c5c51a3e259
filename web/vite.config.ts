import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import Components from 'unplugin-vue-components/vite'
import { createHash } from 'node:crypto'
import { readFileSync, readdirSync } from 'node:fs'
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

const tellBuild: Plugin = {
  name: 'tell-build',
  generateBundle() {
    this.emitFile({ type: 'asset', fileName: 'build.json', source: JSON.stringify({ build }) })
  },
}

export default defineConfig({
  define: { __BUILD__: JSON.stringify(build) },
  // White space between inline elements counts, as in HTML; a line break in the source is a space.
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve' } } }), Components({ dts: false, dirs: [], resolvers: [BootstrapVueNextResolver()] }), tellBuild],
  resolve: { alias: { '@': page('./src') } },
  css: { preprocessorOptions: { scss: { quietDeps: true } } },
  build: {
    rolldownOptions: {
      input: { desk: page('index.html'), player: page('player.html'), sw: page('src/player/sw.ts') },
      output: {
        // The service worker keeps its address, since browsers know it by that.
        entryFileNames: (chunk) => (chunk.name === 'sw' ? 'play/sw.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
})
