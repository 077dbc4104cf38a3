/**
 * Completes package-lock.json after `npm install`: a registry mirror may not carry the binaries for other platforms,
 * and npm then leaves them out of the lock file but misses them in `npm ci`. Each gets the entry that npm would have
 * written, told from its name. `npm run lock`.
 */
import { readFileSync, writeFileSync } from 'node:fs';

interface LockedPackage {
  version: string;
  optional?: boolean;
  os?: string[];
  cpu?: string[];
  libc?: string[];
  optionalDependencies?: Record<string, string>;
}

const SYSTEMS = ['aix', 'android', 'darwin', 'freebsd', 'linux', 'netbsd', 'openbsd', 'openharmony', 'sunos', 'win32'];
const PROCESSORS = ['arm64', 'arm', 'ia32', 'loong64', 'mips64el', 'ppc64', 'riscv64', 's390x', 'x64', 'wasm32'];

const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, LockedPackage> };

/** The folder that an optional dependency of a package belongs in: where one of its siblings lies already. */
function homeOf(place: string, siblings: string[]): string {
  const folders = [place];
  for (let at = place.lastIndexOf('/node_modules/'); at !== -1; at = place.lastIndexOf('/node_modules/', at - 1))
    folders.push(place.slice(0, at));
  folders.push('');
  const present = (folder: string) =>
    siblings.some((name) => `${folder && `${folder}/`}node_modules/${name}` in lock.packages);
  const home = folders.find(present) ?? '';
  return `${home && `${home}/`}node_modules/`;
}

for (const [place, { optionalDependencies = {} }] of Object.entries(lock.packages)) {
  const home = homeOf(place, Object.keys(optionalDependencies));
  for (const [name, range] of Object.entries(optionalDependencies)) {
    const words = name.split(/[-/]/);
    const os = SYSTEMS.filter((system) => words.includes(system));
    const cpu = PROCESSORS.filter((processor) => words.includes(processor));
    const version = range.replace(/^[\^~]/, '');
    if (
      lock.packages[`${home}${name}`]?.version === version ||
      !/^\d/.test(version) ||
      (os.length === 0 && cpu.length === 0)
    )
      continue;
    const libc = words.some((word) => word.startsWith('musl'))
      ? ['musl']
      : words.some((word) => word.startsWith('gnu'))
        ? ['glibc']
        : undefined;
    lock.packages[`${home}${name}`] = {
      version,
      optional: true,
      ...(os.length > 0 ? { os } : {}),
      ...(cpu.length > 0 ? { cpu } : {}),
      ...(libc ? { libc } : {}),
    };
  }
}
const sorted = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)));
writeFileSync('package-lock.json', `${JSON.stringify({ ...lock, packages: sorted }, null, 2)}\n`);
