import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { openDevice } from './remote/device'
import { router } from './router'
import './theme/style.css'

// What is kept on the device is read before anything asks for it.
await openDevice()
createApp(App).use(createPinia()).use(router).mount('#app')
