import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'

// The page that the address is of is fetched with the rest.
for (const { components } of router.resolve(location.pathname).matched) {
  const page = components?.default
  if (typeof page === 'function') void (page as () => Promise<unknown>)().catch(() => undefined)
}

/** Puts the application on the page. */
export const start = (): void => {
  createApp(App).use(createPinia()).use(router).mount('#app')
}
