import { run, Trouble } from './run.mjs';

const isRoot = process.getuid?.() === 0;

/** Installs Debian's packages, their names separated by spaces, as root or with sudo. */
export function installDebianPackage(names, purpose) {
  console.log(`Installing from Debian: ${names} (${purpose})...`);
  const apt = (...args) => {
    // Packages with a service do not start it on installation: tests only run its program.
    const command = ['env', 'DEBIAN_FRONTEND=noninteractive', 'RUNLEVEL=1', 'apt-get', '-y', '-qq', ...args];
    return isRoot ? run(command[0], command.slice(1)) : run('sudo', ['-n', ...command]);
  };
  try {
    apt('update');
    apt('install', '--no-install-recommends', ...names.split(' '));
  } catch (error) {
    throw new Trouble(
      `${purpose} is missing and could not be installed. As root, run: apt-get update && apt-get install ${names}\n${error.message}`,
    );
  }
}
