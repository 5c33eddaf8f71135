import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { settings } from '../settings';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

const CIPHER = 'aes-256-gcm';
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** The key of the setting AUXESIS_SEAL_KEY. Throws a Refusal where there is none: then nothing can be linked. */
function sealKey(): Buffer {
  const { sealKey: key } = settings();
  if (key === undefined) throw new Refusal('not-allowed', refusalText('linkedTablesAreOff'));
  return Buffer.from(key, 'base64');
}

/** A secret as it rests in the database: AES-256-GCM (NIST SP 800-38D), with its nonce and tag. */
export function seal(secret: string): Buffer {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv(CIPHER, sealKey(), nonce);
  const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]);
}

/** The secret again. Throws a Refusal where it was sealed with another key. */
export function unseal(sealed: Uint8Array): string {
  const bytes = Buffer.from(sealed);
  const decipher = createDecipheriv(CIPHER, sealKey(), bytes.subarray(0, NONCE_BYTES));
  decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
  try {
    return decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES), undefined, 'utf8') + decipher.final('utf8');
  } catch {
    throw new Refusal('not-allowed', refusalText('sealedWithAnotherKey'));
  }
}
