import { Suspense, useEffect, useState } from 'react';
import { RouterProvider } from 'react-aria-components';
import { Redirect, Route, Switch, useLocation } from 'wouter';
import { useTheme } from '../api/preferences';
import { KitProvider } from '../session/kit';
import { Boundary } from '../ui/Boundary';
import { CameFromHere } from '../ui/came';
import { lazily, loadTheRest } from '../ui/lazily';
import { Broken } from './Broken';
import { KeysProvider } from './Keys';
import { GlobalStyle } from './theme';

const JobsPage = lazily(() => import('../screens/jobs/JobsPage'));
const JobRoute = lazily(() => import('../screens/job/JobRoute'));
const KitPage = lazily(() => import('../screens/kit/KitPage'));
const DrillsPage = lazily(() => import('../screens/drills/DrillsPage'));
const PhonesPage = lazily(() => import('../screens/phones/PhonesPage'));

export function App() {
  useTheme();
  useEffect(loadTheRest, []);
  const [pathname, navigate] = useLocation();
  const [first] = useState(pathname);
  const [moved, setMoved] = useState(false);
  if (!moved && pathname !== first) setMoved(true);
  return (
    <RouterProvider navigate={(to) => navigate(to)}>
      <GlobalStyle />
      {/* Another page is another try. */}
      <Boundary key={pathname.split('/')[1]} otherwise={(again, error) => <Broken again={again} error={error} />}>
        <KitProvider>
          <KeysProvider>
            <CameFromHere value={moved}>
              <Suspense fallback={<main aria-busy="true" aria-label="Opening" />}>
                <Switch>
                  <Route path="/">
                    <JobsPage />
                  </Route>
                  <Route path="/kit">
                    <KitPage />
                  </Route>
                  <Route path="/drills">
                    <DrillsPage />
                  </Route>
                  <Route path="/phones">
                    <PhonesPage />
                  </Route>
                  <Route path="/jobs/:id/*?">{({ id }) => <JobRoute id={id} />}</Route>
                  <Route>
                    <Redirect to="/" replace />
                  </Route>
                </Switch>
              </Suspense>
            </CameFromHere>
          </KeysProvider>
        </KitProvider>
      </Boundary>
    </RouterProvider>
  );
}
