import '@fontsource/atkinson-hyperlegible/400.css'
import '@fontsource/atkinson-hyperlegible/700.css'
import '@fontsource/andika/400.css'
import '@fontsource/andika/700.css'
import './app/theme.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './app/App.vue'
import { language } from './app/language'
import { Queries } from './app/queries'
import { makeRouter } from './app/router'

const queries = new Queries()
const app = createApp(App)
let prime: Promise<void> | undefined
const router = makeRouter(queries, () => (prime ??= import('./app/prime').then((m) => m.installPrime(app))))
app.use(language)
app.use(VueQueryPlugin, { queryClient: queries })
app.use(router)
app.mount('#app')
