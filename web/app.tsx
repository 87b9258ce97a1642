import { Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useLocation } from 'react-router';
import { askAhead } from './api/ahead.ts';
import { useSession } from './api/session.ts';
import { screen } from './ui/later.tsx';
import { Contained } from './ui/contained.tsx';

const fetchWorkbench = () => import('./workbench/workbench-page.tsx');
const WorkbenchPage = screen(() => fetchWorkbench().then((file) => file.WorkbenchPage));
const FirstAccountPage = screen(() => import('./pages/first-account-page.tsx').then((file) => file.FirstAccountPage));
const JoinPage = screen(() => import('./pages/join-page.tsx').then((file) => file.JoinPage));
const NewPasswordPage = screen(() => import('./pages/new-password-page.tsx').then((file) => file.NewPasswordPage));
const OutboxPage = screen(() => import('./pages/outbox-page.tsx').then((file) => file.OutboxPage));
const SignInPage = screen(() => import('./pages/sign-in-page.tsx').then((file) => file.SignInPage));
const SitesPage = screen(() => import('./pages/sites-page.tsx').then((file) => file.SitesPage));
const WalkPage = screen(() => import('./walk/walk-page.tsx').then((file) => file.WalkPage));
const LooksPage = screen(() => import('./looks/looks-page.tsx').then((file) => file.LooksPage));
const AccountPage = screen(() => import('./account/account-page.tsx').then((file) => file.AccountPage));
const SharedPage = screen(() => import('./shared/shared-page.tsx').then((file) => file.SharedPage));

// Whoever opens a site by its address needs the workbench and the tree: both come while it is asked who they are.
const [, opened] = /^\/sites\/([a-z0-9-]+)$/.exec(window.location.pathname) ?? [];
if (opened !== undefined) {
  askAhead(opened);
  void fetchWorkbench().catch(() => undefined);
}

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
    <Contained>
      <Suspense fallback={<p className="p-6 text-quiet">Loading …</p>}>
        <Routes>
          <Route path="/shared/:token" element={<SharedPage />} />
          <Route path="/join" element={<JoinPage />} />
          <Route path="*" element={<WithAccount />} />
        </Routes>
      </Suspense>
    </Contained>
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
