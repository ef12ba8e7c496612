import { VueQueryPlugin, QueryClient } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { CallError } from './api/client'
import { i18n } from './i18n'
import { router } from './router'
import './styles/base.css'
import { vuetify } from './vuetify'

// Figures are asked for again when what they rest on changes, which is part of their key; a program
// that cannot be reached is asked again, one that said no is not.
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: Infinity,
      refetchOnWindowFocus: false,
      shallow: true, // answers are replaced whole, never changed: watching each figure in them would only cost time
      retry: (count, error) => error instanceof CallError && error.passing && count < 20,
      retryDelay: 1000,
    },
  },
})

createApp(App)
  .use(createPinia())
  .use(router)
  .use(i18n)
  .use(vuetify)
  .use(VueQueryPlugin, { queryClient: queries })
  .mount('#app')
