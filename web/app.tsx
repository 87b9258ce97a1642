import { Suspense, lazy } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useLocation } from 'react-router';
import { useSession } from './api/session.ts';

const WorkbenchPage = lazy(() =>
  import('./workbench/workbench-page.tsx').then((file) => ({ default: file.WorkbenchPage })),
);

const FirstAccountPage = lazy(() =>
  import('./pages/first-account-page.tsx').then((file) => ({ default: file.FirstAccountPage })),
);
const JoinPage = lazy(() => import('./pages/join-page.tsx').then((file) => ({ default: file.JoinPage })));
const NewPasswordPage = lazy(() =>
  import('./pages/new-password-page.tsx').then((file) => ({ default: file.NewPasswordPage })),
);
const OutboxPage = lazy(() => import('./pages/outbox-page.tsx').then((file) => ({ default: file.OutboxPage })));
const SignInPage = lazy(() => import('./pages/sign-in-page.tsx').then((file) => ({ default: file.SignInPage })));
const SitesPage = lazy(() => import('./pages/sites-page.tsx').then((file) => ({ default: file.SitesPage })));
const WalkPage = lazy(() => import('./walk/walk-page.tsx').then((file) => ({ default: file.WalkPage })));
const LooksPage = lazy(() => import('./looks/looks-page.tsx').then((file) => ({ default: file.LooksPage })));
const AccountPage = lazy(() => import('./account/account-page.tsx').then((file) => ({ default: file.AccountPage })));
const SharedPage = lazy(() => import('./shared/shared-page.tsx').then((file) => ({ default: file.SharedPage })));

export function App() {
  return (
    <BrowserRouter>
      <Screens />
    </BrowserRouter>
  );
}

/** What somebody may open who has no account; it comes before the question who is signed in. */
function Screens() {
  return (
    <Suspense fallback={<p className="p-6 text-quiet">Loading …</p>}>
      <Routes>
        <Route path="/shared/:token" element={<SharedPage />} />
        <Route path="/join" element={<JoinPage />} />
        <Route path="*" element={<WithAccount />} />
      </Routes>
    </Suspense>
  );
}

function WithAccount() {
  const session = useSession();
  const location = useLocation();
  if (!session) return <p className="p-6 text-quiet">Loading …</p>;
  if (!session.account) {
    return (
      <Routes>
        <Route path="/welcome" element={<FirstAccountPage />} />
        <Route path="/sign-in" element={<SignInPage />} />
        <Route path="/password" element={<NewPasswordPage />} />
        <Route
          path="*"
          element={<Navigate to="/sign-in" state={{ from: location.pathname + location.search }} replace />}
        />
      </Routes>
    );
  }
  const from = (location.state as { from?: string } | null)?.from;
  return (
    <Routes>
      <Route path="/sites" element={<SitesPage />} />
      <Route path="/sites/:site" element={<WorkbenchPage />} />
      <Route path="/sites/:site/walk" element={<WalkPage />} />
      <Route path="/sites/:site/looks" element={<LooksPage />} />
      {session.account.looksAfterAll && <Route path="/outbox" element={<OutboxPage />} />}
      <Route path="/account" element={<AccountPage />} />
      <Route path="*" element={<Navigate to={from && from !== '/sign-in' ? from : '/sites'} replace />} />
    </Routes>
  );
}
