import { UserRound } from 'lucide-react';
import { useNavigate } from 'react-router';
import { signOut, useSession } from '../api/session.ts';
import { ActionMenu } from '../ui/action-menu.tsx';

/** Who is signed in, the mails that were sent, and the way out. */
export function AccountMenu() {
  const account = useSession()?.account;
  const navigate = useNavigate();
  if (!account) return null;
  return (
    <ActionMenu
      label="Account"
      actions={[
        { words: 'Account', run: () => void navigate('/account') },
        ...(account.looksAfterAll ? [{ words: 'Outbox', run: () => void navigate('/outbox') }, null] : []),
        { words: `Sign out ${account.email}`, run: () => void signOut() },
      ]}
      trigger={
        <button type="button" className="inline-flex h-8 items-center gap-1.5 rounded-md px-2 hover:bg-sunken">
          <UserRound size={16} aria-hidden />
          <span className="max-w-40 truncate max-xl:sr-only">{account.name}</span>
        </button>
      }
    />
  );
}
