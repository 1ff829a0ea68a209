import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { Cancelled, Problem } from './api/client';
import { App } from './app/App';
import { applyTheme, storedTheme } from './app/theme';
import './styles.css';

setNonce(document.querySelector<HTMLMetaElement>('meta[name=style-nonce]')?.content ?? '');
applyTheme(storedTheme());

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      refetchOnWindowFocus: false,
      // What the server refuses it refuses again; what it cannot answer now it may answer soon.
      retry: (count, error) =>
        !(error instanceof Problem || error instanceof Cancelled) && count < 20,
      retryDelay: 1500,
    },
  },
});

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <BrowserRouter>
        <App />
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
