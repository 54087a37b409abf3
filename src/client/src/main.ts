import '@fontsource/atkinson-hyperlegible/400.css'
import '@fontsource/atkinson-hyperlegible/700.css'
import '@fontsource/andika/400.css'
import '@fontsource/andika/700.css'
import './app/theme.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './app/App.vue'
import { Refused } from './app/api/client'
import { makeRouter } from './app/router'

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // Without a network the service worker answers from what it has kept.
      networkMode: 'always',
      staleTime: 10_000,
      retry: (count, error) => !(error instanceof Refused) && count < 2,
    },
  },
})
const app = createApp(App)
let prime: Promise<void> | undefined
const router = makeRouter(queries, () => (prime ??= import('./app/prime').then((m) => m.installPrime(app))))
app.use(VueQueryPlugin, { queryClient: queries })
app.use(router)
app.mount('#app')
