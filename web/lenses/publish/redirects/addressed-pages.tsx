import type { PageId } from '#core/model/ids.ts';
import { PageOptions } from '../../../fields/page-options.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** The pages of the tree that have an address, as options of a choice. */
export function AddressedPages({ without = null }: { readonly without?: PageId | null }) {
  const { derived, site } = useWorkbench();
  return (
    <PageOptions
      outline={derived.outline}
      language={site.settings.language}
      isOffered={(row, page) => derived.addresses[row] !== null && page !== without}
    />
  );
}
