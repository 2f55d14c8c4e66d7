/// <reference types="vite/client" />
/// <reference types="vite-plugin-pwa/client" />

// For tools that read TypeScript alone; the type check proper reads the components themselves.
declare module '*.vue' {
  import type { DefineComponent } from 'vue'
  const component: DefineComponent
  export default component
}
