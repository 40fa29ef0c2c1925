import { CssBaseline, StyledEngineProvider, ThemeProvider } from '@mui/material';
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useMemo } from 'react';
import { BrowserRouter, Link, Route, Routes } from 'react-router';
import { client, must } from './api/client';
import { JobPage } from './job/JobPage';
import { themeOf } from './kit/theme';
import { useSettings } from './settings';
import { Rack } from './rack/Rack';

const Bench = lazy(() => import('./bench/Bench'));
const Cutting = lazy(() => import('./cutting/Cutting'));
const Shop = lazy(() => import('./shop/Shop'));
const Glossary = lazy(() => import('./parts/Glossary'));
const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true } } });

/** On every page while others than this machine can reach the server. */
function OpenToNetwork() {
  const health = useQuery({
    queryKey: ['health'],
    queryFn: () => must(client.GET('/api/health')),
    staleTime: Infinity,
  });
  if (!health.data?.open_to_network) return null;
  return (
    <p className="open" role="note">
      Open to the network without accounts: whoever reaches this address can read, change and delete every job.
    </p>
  );
}

export function App() {
  const dark = useSettings((s) => s.dark);
  const theme = useMemo(() => themeOf(dark), [dark]);
  // On the page itself, so that dialogs, which stand beside the application, follow too.
  useEffect(() => {
    document.documentElement.classList.toggle('dark', dark);
  }, [dark]);
  return (
    // MUI's styles come first, so that the stylesheet has the last word.
    <StyledEngineProvider injectFirst>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <QueryClientProvider client={queries}>
          <BrowserRouter>
            <div className="app">
              <OpenToNetwork />
              <Suspense
                fallback={
                  <p className="page" role="status">
                    Opening…
                  </p>
                }
              >
                <Routes>
                  <Route path="/" element={<Rack />} />
                  <Route path="/jobs/:id" element={<JobPage />} />
                  <Route path="/pieces/:id" element={<Bench />} />
                  <Route path="/pieces/:id/cutting" element={<Cutting />} />
                  <Route path="/shop" element={<Shop />} />
                  <Route path="/words" element={<Glossary />} />
                  <Route
                    path="*"
                    element={
                      <main className="page">
                        <h1>Nothing here</h1>
                        <p>
                          This address has no page. <Link to="/">Go to the rack</Link>.
                        </p>
                      </main>
                    }
                  />
                </Routes>
              </Suspense>
            </div>
          </BrowserRouter>
        </QueryClientProvider>
      </ThemeProvider>
    </StyledEngineProvider>
  );
}
