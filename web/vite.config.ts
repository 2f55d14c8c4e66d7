import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'

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

export default defineConfig({
  plugins: [vue(), nonceForStyles()],
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 800, manifest: true },
})
