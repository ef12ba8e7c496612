import vue from '@vitejs/plugin-vue'
import { fileURLToPath, URL } from 'node:url'
import { defineConfig } from 'vite'
import vuetify from 'vite-plugin-vuetify'

// While developing, calls go to a program that runs beside (make dev).
const program = process.env.TAMIZ_DEV_SERVER ?? 'http://127.0.0.1:8200'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  server: {
    host: '127.0.0.1',
    proxy: {
      '/api': { target: program, changeOrigin: true, headers: { Origin: program } },
      '/health': program,
    },
  },
})
