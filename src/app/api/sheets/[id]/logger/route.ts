import { spawn } from 'node:child_process';
import { join } from 'node:path';
import Joi from 'joi';
import { LOGGER_WAYS, type LoggerWay } from '../../../../../demo/logger/device-readings';
import { database } from '../../../../../server/database';
import { giveToken } from '../../../../../server/programs/give-token';
import { endLoggers, hasLogger } from '../../../../../server/sql/program';
import { Refusal } from '../../../../../server/refusal';
import { settings } from '../../../../../server/settings';
import { log } from '../../../../../server/log';
import { sheetPersonRoute, sheetRoute } from '../../../route-declarations';
import { refusalText } from '../../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ way: LoggerWay }>({ way: Joi.valid(...Object.keys(LOGGER_WAYS)).required() });

/** Whether the logger is on. */
export const GET = sheetRoute({ permit: 'own' }, async ({ id }) => {
  return Response.json({ isOn: await hasLogger(database(), id) });
});

/** Starts the logger as a process with a token of its own; replaces one that is on. */
export const POST = sheetPersonRoute({ permit: 'own', body: schema }, async ({ id, person, body: { way } }) => {
  if (!settings().logger) throw new Refusal('not-allowed', refusalText('loggerOffServerDemo'));
  // One for the server: it stands in for the field devices of one programme.
  await endLoggers(database());
  const { token } = await giveToken(database(), id, {
    // oxlint-disable-next-line texts/in-catalogue -- a name that is kept as data
    name: 'Logger',
    scopes: ['write'],
    person: person.id,
    days: 1,
    isLogger: true,
  });
  // Over this computer's own address: whatever the app is called from outside.
  const address = `http://127.0.0.1:${settings().port}`;
  const logger = spawn(
    process.execPath,
    // One word each: an id may begin with a dash.
    [join(process.cwd(), 'bin', 'auxesis'), 'logger', `--url=${address}`, `--sheet=${id}`, `--way=${way}`],
    {
      // Nothing of the server's: no address of the database, no secret.
      env: { PATH: process.env.PATH, TZ: process.env.TZ, NODE_ENV: process.env.NODE_ENV, AUXESIS_TOKEN: token },
      // It ends with the process that started it: nobody holds its standard input any more then.
      stdio: ['pipe', 'ignore', 'inherit'],
    },
  );
  logger.on('error', (error) => log().error({ err: error }, 'the logger could not be started'));
  logger.unref();
  return Response.json({ isOn: true }, { status: 201 });
});

/** Stops it by revoking its token. */
export const DELETE = sheetRoute({ permit: 'own' }, async ({ id }) => {
  await endLoggers(database(), id);
  return Response.json({ isOn: false });
});
