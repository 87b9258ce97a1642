import { existsSync } from 'node:fs';
import { installDebianPackages } from './run.mjs';

/** Installs Debian's Chromium with its driver where either is missing. */
export function ensureChromium() {
  if (existsSync('/usr/bin/chromium') && existsSync('/usr/bin/chromedriver')) return;
  installDebianPackages(['chromium', 'chromium-driver'], 'Chromium with its driver');
}
