import { run, Trouble } from './run.mjs';

const isRoot = process.getuid?.() === 0;

/** Installs one of Debian's packages, as root or with sudo. */
export function installDebianPackage(name, purpose) {
  console.log(`Installing Debian's package ${name} (${purpose})...`);
  const apt = (...args) => {
    const command = ['env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', '-y', '-qq', ...args];
    return isRoot ? run(command[0], command.slice(1)) : run('sudo', ['-n', ...command]);
  };
  try {
    apt('update');
    apt('install', '--no-install-recommends', name);
  } catch (error) {
    throw new Trouble(`${purpose} is missing and could not be installed. As root, run: apt-get update && apt-get install ${name}\n${error.message}`);
  }
}
