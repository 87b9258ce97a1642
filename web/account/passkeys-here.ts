/** Whether passkeys can be used here: a browser makes them for hosts with a name, never for a bare number. */
export const hasPasskeys = (): boolean =>
  'PublicKeyCredential' in window && !/^[\d.]+$|^\[/.test(window.location.hostname);

/** What went wrong with an authenticator, in words; null where it was only left. */
export function passkeyWords(fault: unknown): string | null {
  const name = fault instanceof Error ? fault.name : '';
  if (name === 'NotAllowedError' || name === 'AbortError') return null;
  if (name === 'InvalidStateError') return 'This authenticator has a passkey of your account already.';
  return null;
}
