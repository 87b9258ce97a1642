/**
 * Runs one of Spur's processes: opens it, tells the starter when it is ready, and closes it on SIGTERM, on SIGINT, and
 * when the starter is gone. A process that cannot open says why in one sentence and ends with code 1.
 */
export async function runProcess(
  name: string,
  open: (ready: (message: Record<string, unknown>) => void) => Promise<() => Promise<void>>,
): Promise<void> {
  let close: (() => Promise<void>) | null = null;
  let isEnding = false;
  const end = async (): Promise<void> => {
    if (isEnding) return;
    isEnding = true;
    // What hangs must not keep the process: a second is enough for what is under way.
    setTimeout(() => process.exit(0), 3000).unref();
    await close?.();
    process.exit(0);
  };
  process.on('SIGTERM', () => void end());
  process.on('SIGINT', () => void end());
  process.on('disconnect', () => void end());
  try {
    close = await open((message) => process.send?.({ ready: name, ...message }));
  } catch (fault) {
    const { code, message } = fault as { code?: string; message: string };
    const said =
      code === 'EADDRINUSE'
        ? `${message}: another program has that port. Stop it, or choose another by SPUR_PORT, SPUR_LIVE_PORT, SPUR_OLD_SITE_PORT or SPUR_DIRECTORY_PORT.`
        : message;
    // The starter says it; without one, this process does.
    if (process.send) process.send({ failed: name, message: said }, () => process.exit(1));
    else {
      console.error(said);
      process.exit(1);
    }
  }
}
