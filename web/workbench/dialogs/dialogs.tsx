import { later } from '../../ui/later.tsx';
import { useWorkbench } from '../workbench-context.tsx';

const CommandsDialog = later(() => import('./commands-dialog.tsx').then((file) => file.CommandsDialog));
const MoveDialog = later(() => import('./move-dialog.tsx').then((file) => file.MoveDialog));
const RemoveDialog = later(() => import('./remove-dialog.tsx').then((file) => file.RemoveDialog));
const KeysDialog = later(() => import('./keys-dialog.tsx').then((file) => file.KeysDialog));
const PasteListDialog = later(() =>
  import('../../clipboard/paste-list-dialog.tsx').then((file) => file.PasteListDialog),
);
const PastePagesDialog = later(() =>
  import('../../clipboard/paste-pages-dialog.tsx').then((file) => file.PastePagesDialog),
);
const ImportDialog = later(() => import('./import-dialog.tsx').then((file) => file.ImportDialog));
const StartersDialog = later(() => import('./starters-dialog.tsx').then((file) => file.StartersDialog));
const RenameSiteDialog = later(() =>
  import('../../pages/rename-site-dialog.tsx').then((file) => file.RenameSiteDialog),
);

/** The one dialog that is open, if any. */
export function Dialogs() {
  const { dialog, setDialog, site, pasted, focusTree } = useWorkbench();
  const close = () => {
    setDialog(null);
    window.setTimeout(focusTree, 0);
  };
  switch (dialog) {
    case 'move':
      return <MoveDialog onClose={close} />;
    case 'remove':
      return <RemoveDialog onClose={close} />;
    case 'keys':
      return <KeysDialog onClose={close} />;
    case 'commands':
      return <CommandsDialog onClose={close} />;
    case 'paste':
      if (pasted === null) return null;
      return pasted.kind === 'pages' ? (
        <PastePagesDialog clip={pasted.clip} onClose={close} />
      ) : (
        <PasteListDialog text={pasted.text} onClose={close} />
      );
    case 'import':
      return <ImportDialog onClose={close} />;
    case 'starters':
      return <StartersDialog onClose={close} />;
    case 'renameSite':
      return <RenameSiteDialog site={{ key: site.key, name: site.settings.name }} onClose={close} />;
    case null:
      return null;
  }
}
