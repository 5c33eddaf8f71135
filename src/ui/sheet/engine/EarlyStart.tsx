import type { RequestOf } from '../../../protocol/engine-messages';
import { earlyScript } from './early-engine';

interface Props {
  readonly open: Omit<RequestOf<'open'>, 'theme'>;
  /** By which the browser knows that the script is the server's own. */
  readonly nonce: string;
}

/** Has the engine start while the page is still being read. Part of what the server renders; later it does nothing. */
export function EarlyStart({ open, nonce }: Props) {
  // The browser hides the nonce from scripts.
  return <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: earlyScript(open) }} />;
}
