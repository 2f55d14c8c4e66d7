import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

/**
 * Naive UI's style elements carry the page's nonce, so that the content security policy can
 * refuse every other inline style.
 */
function nonceForStyles(): Plugin {
  const made = "const el = document.createElement('style');"
  return {
    name: 'nonce-for-styles',
    transform(code, id) {
      if (!/css-render\/(esm|lib)\/utils\.js/.test(id)) return null
      if (!code.includes(made)) throw new Error('css-render makes its style elements in another way now')
      return code.replace(made, `${made} el.nonce = document.querySelector('meta[property="csp-nonce"]')?.nonce ?? '';`)
    },
  }
}

/** Everything that a cold start without a server needs, kept by the browser; a new version waits until it is let in. */
const offline = VitePWA({
  registerType: 'prompt',
  injectRegister: null,
  includeAssets: ['icon.svg'],
  manifest: {
    id: '/',
    name: 'Undercliff',
    short_name: 'Undercliff',
    description: 'Every saw chain of the crew, and what to do with it next.',
    start_url: '/wood',
    display: 'standalone',
    background_color: '#e6e4d9',
    theme_color: '#1b262c',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
    maximumFileSizeToCacheInBytes: 4_000_000,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    cleanupOutdatedCaches: true,
  },
})

/** What every page needs, in few files. */
const EVERY_PAGE = [
  { name: 'library', test: /node_modules[\\/](vue|@vue|pinia|vue-router|@vueuse|nanoid)[\\/]/ },
  {
    name: 'frame',
    test: new RegExp(
      [
        'remote/(?!device|loopStore|openLoop|kitStore|unsentCards)',
        'wood/field/',
        'frame/[^/]+$',
        'parts/(ToothSign|VerdictMark|ShedAway|typing)',
      ]
        .map((one) => `web/src/${one}`)
        .join('|'),
    ),
  },
]

export default defineConfig({
  plugins: [vue(), nonceForStyles(), offline],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    manifest: true,
    // A cold start on a phone pays for every file: what every page needs is in few.
    rolldownOptions: { output: { codeSplitting: { groups: EVERY_PAGE } } },
  },
})
