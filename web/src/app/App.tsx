import { RouterProvider } from 'react-aria-components';
import { Navigate, Route, Routes, useHref, useNavigate } from 'react-router';
import { JobPage } from '../jobs/JobPage';
import { JobRoute } from '../jobs/JobRoute';
import { JobsPage } from '../jobs/JobsPage';
import { KitProvider } from '../kit/KitContext';
import { KitPage } from '../kit/KitPage';
import { KeysProvider } from './keys';
import { useTheme } from './preferences';
import { GlobalStyle } from './theme';
import { Workbench } from './Workbench';

export function App() {
  useTheme();
  const navigate = useNavigate();
  return (
    <RouterProvider navigate={(to) => void navigate(to)} useHref={useHref}>
      <GlobalStyle />
      <KeysProvider>
        <KitProvider>
          <Routes>
            <Route path="/" element={<JobsPage />} />
            <Route path="/jobs/:id" element={<JobRoute />}>
              <Route index element={<JobPage />} />
              <Route path="setups/:setup/:step?" element={<Workbench />} />
            </Route>
            <Route path="/kit" element={<KitPage />} />
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </KitProvider>
      </KeysProvider>
    </RouterProvider>
  );
}
