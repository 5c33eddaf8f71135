// A table of readings in a database of its own, with a role that may only read: for the demo of linked tables, and tests.
import { randomBytes } from 'node:crypto';

const DATABASE = 'auxesis_linked';
const READER = 'auxesis_reader';

/** The readings: stations in turn, hour by hour, with values that depend on nothing but their number. */
const MAKE = (rows) => `
  create table readings as
  select i as id,
    (array['Wren Spring','Alder Weir','Birch Ford','Cedar Sluice','Dipper Bridge','Elm Pool','Fold Meadow','Grange Outfall',
      'Heron Island','Ivy Lock','Jetty Reach'])[1 + i % 11] as "Station",
    timestamptz '2016-01-01 00:00+00' + (i / 11) * interval '1 hour' as "At",
    round((9 + 3 * sin(i / 5000.0) + 1.5 * sin(i * 12.9898) + (hashint8(i) % 1000) / 700.0)::numeric, 1) as "Dissolved oxygen",
    round((7.4 + 0.8 * sin(i * 78.233) + (hashint8(i + 7) % 1000) / 2500.0)::numeric, 1) as "pH",
    abs(hashint8(i + 3) % 90) + case when i % 997 = 0 then 200 else 0 end as "Turbidity",
    case when i % 5003 = 0 then null else (array['calm','ripples','fast','flood'])[1 + abs(hashint8(i + 11)) % 4] end as "Flow"
  from generate_series(1, ${rows}) i`;

/** Makes the database and its reader again. Gives the address that the reader uses. */
export async function makeLinkedTable(adminUrl, rows) {
  // A fresh clone has no packages yet when this file is read.
  const { default: postgres } = await import('postgres');
  const admin = postgres(adminUrl, { max: 1, onnotice: () => {} });
  const password = randomBytes(18).toString('base64url');
  try {
    await admin.unsafe(`drop database if exists ${DATABASE} with (force)`);
    await admin.unsafe(`create database ${DATABASE}`);
    await admin.unsafe(`drop role if exists ${READER}`);
    await admin.unsafe(`create role ${READER} login nosuperuser password '${password}'`);
  } finally {
    await admin.end();
  }
  const inside = postgres(adminUrl.replace(/\/[^/]*$/, `/${DATABASE}`), { max: 1, onnotice: () => {} });
  try {
    await inside.unsafe(MAKE(rows));
    await inside.unsafe('alter table readings add primary key (id)');
    await inside.unsafe('analyze readings');
    await inside.unsafe(`grant select on readings to ${READER}`);
  } finally {
    await inside.end();
  }
  return adminUrl.replace(/\/\/[^@]*@/, `//${READER}:${password}@`).replace(/\/[^/]*$/, `/${DATABASE}`);
}
