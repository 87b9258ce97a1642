import { PasteListDialog } from '../../clipboard/paste-list-dialog.tsx';
import { PastePagesDialog } from '../../clipboard/paste-pages-dialog.tsx';
import { RenameSiteDialog } from '../../pages/rename-site-dialog.tsx';
import { useWorkbench } from '../workbench-context.tsx';
import { CommandsDialog } from './commands-dialog.tsx';
import { ImportDialog } from './import-dialog.tsx';
import { KeysDialog } from './keys-dialog.tsx';
import { MoveDialog } from './move-dialog.tsx';
import { RemoveDialog } from './remove-dialog.tsx';
import { StartersDialog } from './starters-dialog.tsx';

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
