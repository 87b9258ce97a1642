export function ExportMapDialog({ onClose: _ }: { readonly onClose: () => void }) {
  return null;
}
