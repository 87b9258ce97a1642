import { fileContentSchema } from '#core/files/file.ts';

/** Below a walk: the page that shows all that can stand on pages, in each scheme of the look. */
export const SAMPLE_ADDRESS = '/~sample';

/** The picture of the samples, as if it were in a library. */
export const SAMPLE_CONTENT = fileContentSchema.parse('5a'.repeat(16));
export const SAMPLE_DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 960 600" width="960" height="600"><rect width="960" height="600" fill="#b9cdd4"/><rect y="380" width="960" height="220" fill="#5f8793"/><path d="M250 390h460l-60 90H310z" fill="#233d47"/><path d="M470 130v250H300z" fill="#f4efe4"/><path d="M490 180v200h150z" fill="#dcd3bf"/><circle cx="760" cy="140" r="52" fill="#f2dfa7"/></svg>`;
