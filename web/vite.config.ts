import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import { defineConfig } from 'vite'

const SERVER = 'http://127.0.0.1:8614'

export default defineConfig({
  plugins: [tailwindcss(), svelte()],
  build: {
    outDir: '../src/jumpstop/web',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  // The server takes changes from its own pages only: what this one passes on is told as such.
  server: { proxy: { '/api': { target: SERVER, changeOrigin: true, headers: { origin: SERVER } } } },
})
