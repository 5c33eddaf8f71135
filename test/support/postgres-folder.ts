/** Where Debian's PostgreSQL lies. Without it, and without the address of another server, tests that need a database are skipped. */
export const POSTGRES = '/usr/lib/postgresql';
