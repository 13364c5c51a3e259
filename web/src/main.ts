import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css'
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import './ui/theme.scss'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { Problem } from './ui/api'
import { rights } from './ui/rights'

createApp(App)
  .use(createPinia())
  .use(router)
  .use(rights)
  .use(VueQueryPlugin, {
    queryClient: new QueryClient({
      defaultOptions: {
        queries: {
          staleTime: 5000,
          // Answers are replaced whole, never changed: thousands of displays need no watching one by one.
          shallow: true,
          retry: (count, e) => count < 3 && (!(e instanceof Problem) || e.mayPass),
          retryDelay: 2000,
        },
      },
    }),
  })
  .mount('#app')
