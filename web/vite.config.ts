import { createHash } from 'node:crypto'
import vue from '@vitejs/plugin-vue'
import { constants } from 'node:zlib'
import { defineConfig, type HtmlTagDescriptor, type Plugin } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
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

/** The two best qualities take ten times as long for the last twentieth. */
const BROTLI_QUALITY = 9

/** What every page needs, in few files. */
const EVERY_PAGE = [
  { name: 'library', test: /node_modules[\\/](vue|@vue|pinia|vue-router|@vueuse|nanoid)[\\/]/ },
  {
    name: 'frame',
    test: new RegExp(
      [
        'web/src/remote/(?!loopStore|openLoop|kitStore|photoStore|reckonWorker)',
        'web/src/wood/field/',
        'web/src/(frame|move)/[^/?]+[.]ts$',
        'web/src/frame/[^/]+[.]vue',
        'web/src/parts/(ToothSign|VerdictMark|ShedAway|typing|whenIdle|chosenStore)',
        'web/src/(App|router|start|theme/style)',
        'web/src/shed/scan/(useWedge|keyBurst)',
        'core/src/(tag|words/places)',
      ].join('|'),
    ),
  },
]

/** Fonts are fetched beside the scripts, so that the first page is laid out once. */
function fontsAhead(): Plugin {
  return {
    name: 'fonts-ahead',
    transformIndexHtml: {
      order: 'post',
      handler: (_html, { bundle = {} }) =>
        Object.keys(bundle)
          .filter((name) => name.endsWith('.woff2'))
          .map((name): HtmlTagDescriptor => {
            const attrs = { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: true, href: `/${name}` }
            return { tag: 'link', attrs, injectTo: 'head' }
          }),
    },
  }
}

/** The scripts and styles of this version, for who fetches them ahead: `frame/fetchAhead.ts` reads it. */
function listOfFiles(): Plugin {
  return {
    name: 'list-of-files',
    generateBundle: {
      order: 'post',
      handler(_options, bundle) {
        // What a worker runs is no screen: one is fetched with the page that has it, or is of no use without a server.
        const files = Object.entries(bundle)
          .filter(([name, { type }]) => (type === 'chunk' && name.endsWith('.js')) || name.endsWith('.css'))
          .map(([name]) => `/${name}`)
        // Names change with what is in the files.
        const version = createHash('sha256').update(files.join()).digest('hex').slice(0, 12)
        this.emitFile({ type: 'asset', fileName: 'screens.json', source: JSON.stringify({ version, files }) })
      },
    },
  }
}

/**
 * Nearly all of what every page needs runs at once: the browser is told, at the head of the file, to compile all of it
 * while it is fetched, not function by function as they are called. https://v8.dev/blog/explicit-compile-hints
 */
function compiledAhead(): Plugin {
  return {
    name: 'compiled-ahead',
    generateBundle: {
      order: 'post',
      handler: (_options, bundle) => {
        for (const part of Object.values(bundle))
          if (part.type === 'chunk' && EVERY_PAGE.some(({ name }) => name === part.name))
            part.code = `//# allFunctionsCalledOnLoad\n${part.code}`
      },
    },
  }
}

/** Every file as it travels, beside itself: by Brotli at a secure address, where browsers take that, else gzip. */
const asTheyTravel = compression({
  include: /\.(js|css|svg|json|webmanifest)$/,
  threshold: 1000,
  logLevel: 'silent',
  skipIfLargerOrEqual: true,
  algorithms: [
    defineAlgorithm('gzip', { level: 9 }),
    defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } }),
  ],
})

export default defineConfig({
  plugins: [vue(), nonceForStyles(), fontsAhead(), compiledAhead(), listOfFiles(), offline, asTheyTravel],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    manifest: true,
    // A cold start on a phone pays for every file: what every page needs is in few.
    rolldownOptions: { output: { codeSplitting: { groups: EVERY_PAGE } } },
  },
})
