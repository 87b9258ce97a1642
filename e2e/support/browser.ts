import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, type WebDriver } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

export interface Browser {
  readonly driver: WebDriver & chrome.Driver;
  /** Sets the page's own size, in CSS pixels. */
  readonly resize: (width: number, height: number) => Promise<void>;
  /** Sets what the person prefers: a light or a dark screen, or a few colours of the system's own in place of all others. */
  readonly prefer: (scheme: 'light' | 'dark' | 'forced') => Promise<void>;
  /** Keeps what is downloaded in a folder. */
  readonly keepFilesIn: (folder: string) => Promise<void>;
  /** Puts an authenticator into the device, which makes and uses passkeys and takes every person for its owner. */
  readonly addAuthenticator: () => Promise<void>;
  /** Lets pages run their scripts, or not. */
  readonly runScripts: (areRun: boolean) => Promise<void>;
  /** Cuts the browser off from the net, or connects it again. */
  readonly connect: (isConnected: boolean) => Promise<void>;
  /** Keeps the browser from fetching what stands at some addresses, `*` for anything; nothing where none is named. */
  readonly block: (...addresses: string[]) => Promise<void>;
  readonly close: () => Promise<void>;
}

/** Headless Chromium with a profile of its own, which is removed when it closes. */
export async function openBrowser(width = 1280, height = 800): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), 'spur-browser-'));
  const options = new chrome.Options();
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-dev-shm-usage',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    // Nothing glides in: what shows is there.
    '--force-prefers-reduced-motion',
    // In tests the memory of young objects is large from the start: to clear it again and again takes a fifth of the time to load a page.
    ...(process.env.VITEST ? ['--js-flags=--min-semi-space-size=64'] : []),
    '--lang=en-GB',
    `--user-data-dir=${profile}`,
  );
  const driver = (await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new chrome.ServiceBuilder('/usr/bin/chromedriver'))
    .build()) as WebDriver & chrome.Driver;
  const resize = (w: number, h: number) =>
    driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      width: w,
      height: h,
      deviceScaleFactor: 1,
      mobile: false,
    });
  await resize(width, height);
  return {
    driver,
    resize,
    addAuthenticator: async () => {
      await driver.sendDevToolsCommand('WebAuthn.enable', {});
      await driver.sendDevToolsCommand('WebAuthn.addVirtualAuthenticator', {
        options: {
          protocol: 'ctap2',
          transport: 'internal',
          hasResidentKey: true,
          hasUserVerification: true,
          isUserVerified: true,
          automaticPresenceSimulation: true,
        },
      });
    },
    keepFilesIn: (folder) =>
      driver.sendDevToolsCommand('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder }),
    prefer: (scheme) =>
      driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
        features: [
          { name: 'prefers-color-scheme', value: scheme === 'light' ? 'light' : 'dark' },
          { name: 'forced-colors', value: scheme === 'forced' ? 'active' : 'none' },
        ],
      }),
    runScripts: (areRun) => driver.sendDevToolsCommand('Emulation.setScriptExecutionDisabled', { value: !areRun }),
    block: async (...urls) => {
      await driver.sendDevToolsCommand('Network.enable', {});
      await driver.sendDevToolsCommand('Network.setBlockedURLs', { urls });
    },
    connect: async (isConnected) => {
      await driver.sendDevToolsCommand('Network.enable', {});
      const conditions = { offline: !isConnected, latency: 0, downloadThroughput: -1, uploadThroughput: -1 };
      await driver.sendDevToolsCommand('Network.emulateNetworkConditions', conditions);
    },
    close: async () => {
      await driver.quit();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}
