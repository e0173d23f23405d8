import '@fontsource-variable/newsreader/index.css'
import '@fontsource-variable/newsreader/standard-italic.css'
import '@fontsource-variable/source-sans-3/index.css'
import '@mantine/core/styles.css'
import '@mantine/notifications/styles.css'
import './styles.css'

import { MantineProvider } from '@mantine/core'
import { Notifications } from '@mantine/notifications'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'

import { Problem } from './api/client'
import { App } from './App'
import { resolver, theme } from './theme'

const client = new QueryClient({
  defaultOptions: {
    queries: {
      refetchOnWindowFocus: false,
      // A refusal will be refused again; only a lost connection is worth another try.
      retry: (count, error) => count < 2 && error instanceof Problem && error.status === 0,
    },
  },
})

const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')
createRoot(root).render(
  <StrictMode>
    <MantineProvider theme={theme} cssVariablesResolver={resolver} defaultColorScheme="auto">
      <Notifications position="bottom-center" autoClose={6000} />
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
)
