import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { BootstrapVueNextResolver } from 'bootstrap-vue-next/resolvers'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vite'

const page = (name: string) => fileURLToPath(new URL(name, import.meta.url))

export default defineConfig({
  // White space between inline elements counts, as in HTML; a line break in the source is a space.
  plugins: [vue({ template: { compilerOptions: { whitespace: 'preserve' } } }), Components({ dts: false, dirs: [], resolvers: [BootstrapVueNextResolver()] })],
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
