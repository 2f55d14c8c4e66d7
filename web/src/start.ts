import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { titleOf } from './frame/places'
import { openDevice } from './remote/device'
import type { Reading } from './remote/deviceTexts'
import { router } from './router'
import './theme/style.css'

// The page that the address is of is fetched with the rest.
for (const { components } of router.resolve(location.pathname).matched) {
  const page = components?.default
  if (typeof page === 'function') void (page as () => Promise<unknown>)().catch(() => undefined)
}

router.afterEach((to) => {
  document.title = `${titleOf(to)} · Undercliff`
})
/** Its address is resolved while the device is being read: nothing of that asks what is kept. */
const app = createApp(App).use(createPinia()).use(router)
const firstPage = router.isReady()
firstPage.catch(() => undefined)
// It is told on the page, once there is one.
router.onError(() => undefined)

/** Puts the application on the page, once what is kept on the device is in memory. */
export async function start(reading: Promise<Reading>): Promise<void> {
  await openDevice(reading)
  app.mount('#app')
  // A page that could not be fetched before anybody was told of it is asked for again, and told of then.
  firstPage.catch(() => void router.replace(location.href.slice(location.origin.length)).catch(() => undefined))
}
