import { base64Of } from '../api/imports.ts';
import { TextField } from '../ui/field.tsx';

/** Larger files would not come through: they are sent as text, a third larger. */
const MAX_FILE_BYTES = 25_000_000;

/** Takes a file, and hands over its name and its bytes in base 64. */
export function FileField({
  label,
  accept,
  hint,
  onFile,
  onFault,
}: {
  readonly label: string;
  readonly accept: string;
  readonly hint?: string;
  readonly onFile: (file: { readonly name: string; readonly bytes: string }) => void;
  readonly onFault: (words: string) => void;
}) {
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MAX_FILE_BYTES) {
      onFault(`‘${file.name}’ is larger than ${MAX_FILE_BYTES / 1_000_000} MB. Import it in parts.`);
      return;
    }
    try {
      onFile({ name: file.name, bytes: await base64Of(file) });
    } catch (fault) {
      onFault((fault as Error).message);
    }
  };
  return (
    <TextField
      label={label}
      type="file"
      accept={accept}
      hint={hint}
      onChange={(event) => void take(event.target.files?.[0])}
    />
  );
}
