import { stationReadings } from '../../src/demo/station-readings';
import { connect } from '../../src/server/database';
import { createSheet } from '../../src/server/sheets/create-sheet';

// Puts a sheet of 100,000 records into the database that DATABASE_URL names, and prints its id.
const sql = connect(process.env.DATABASE_URL!);
const contents = stationReadings({ today: 46_000, records: 100_000 });
console.log(await createSheet(sql, { ...contents, id: 'large', name: 'Large' }));
await sql.end();
