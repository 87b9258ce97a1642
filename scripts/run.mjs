import { spawn, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { NODE_FLAGS } from './node-flags.mjs';

/** The folder of the project. */
export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '');

/** A fault that is told in one sentence, without a stack. */
export class StatedError extends Error {}

/**
 * Runs a command to its end and gives what it printed. @throws StatedError where it fails, with the end of what it printed.
 * @param {string} command @param {string[]} args @param {{ env?: NodeJS.ProcessEnv, cwd?: string }} [options]
 */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, {
    cwd: options.cwd ?? ROOT,
    env: options.env ?? process.env,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
    maxBuffer: 64 * 1024 * 1024,
  });
  if (done.error) throw new StatedError(`'${command}' cannot be run: ${done.error.message}.`);
  if (done.status !== 0) {
    const said = `${done.stdout ?? ''}${done.stderr ?? ''}`.trim().split('\n').slice(-12).join('\n');
    throw new StatedError(`'${command} ${args.join(' ')}' failed.${said ? `\n${said}` : ''}`);
  }
  return done.stdout ?? '';
}

/**
 * The same beside others: what it prints is given when it has ended. @throws StatedError
 * @param {string} command @param {string[]} args @returns {Promise<string>}
 */
export function runBeside(command, args) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    child.stdout.on('data', (part) => (said += part));
    child.stderr.on('data', (part) => (said += part));
    child.on('error', (fault) => reject(new StatedError(`'${command}' cannot be run: ${fault.message}.`)));
    child.on('close', (code) =>
      code === 0 ? resolve(said) : reject(new StatedError(`${said.trim()}\n'${command} ${args.join(' ')}' failed.`)),
    );
  });
}

/**
 * The same with what it prints shown. Ctrl+C and a request to end reach the command, and whoever called still cleans up
 * after it. @throws StatedError
 * @param {string} command @param {string[]} args @param {NodeJS.ProcessEnv} env @returns {Promise<void>}
 */
export function runShown(command, args, env) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: ROOT, env, stdio: 'inherit' });
    /** @type {NodeJS.Signals[]} */
    const signals = ['SIGINT', 'SIGTERM', 'SIGHUP'];
    const pass = (/** @type {NodeJS.Signals} */ signal) => void child.kill(signal);
    for (const signal of signals) process.on(signal, pass);
    const done = (/** @type {StatedError | null} */ fault) => {
      for (const signal of signals) process.off(signal, pass);
      if (fault) reject(fault);
      else resolve();
    };
    child.on('error', (fault) => done(new StatedError(`'${command}' cannot be run: ${fault.message}.`)));
    child.on('close', (code, signal) =>
      done(
        code === 0
          ? null
          : new StatedError(`'${command} ${args.join(' ')}' ${signal ? `was ended by ${signal}` : 'failed'}.`),
      ),
    );
  });
}

/** Whether a command can be run and ends well. @param {string} command @param {string[]} args */
export const works = (command, args) => spawnSync(command, args, { stdio: 'ignore' }).status === 0;

export const isRoot = () => process.getuid?.() === 0;

/**
 * Installs packages of Debian, as root or through sudo where it asks for no password.
 * @param {string[]} names @param {string} purpose
 */
export function installDebianPackages(names, purpose) {
  const command = `apt-get install -y --no-install-recommends ${names.join(' ')}`;
  const prefix = isRoot() ? [] : works('sudo', ['-n', 'true']) ? ['sudo', '-n'] : null;
  if (!prefix || !works('sh', ['-c', 'command -v apt-get']))
    throw new StatedError(`${purpose} is missing and cannot be installed by this account. Run as root: ${command}`);
  console.log(`Installing ${purpose} from Debian's packages …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (/** @type {string[]} */ ...args) => {
    const [first = 'apt-get', ...rest] = [...prefix, 'apt-get', '-o', 'DPkg::Lock::Timeout=300', ...args];
    return run(first, rest, { env });
  };
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...names);
}

/**
 * Starts a process with a channel for messages. Signals of the terminal reach only the starter, which ends it in order.
 * @param {string} file @param {string[]} args @param {NodeJS.ProcessEnv} env
 */
export const startProcess = (file, args, env) =>
  spawn(process.execPath, [...NODE_FLAGS, file, ...args], {
    cwd: ROOT,
    env,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  });
