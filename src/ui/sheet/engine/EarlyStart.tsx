'use client';

import { useServerInsertedHTML } from 'next/navigation';
import { useRef } from 'react';
import type { RequestOf } from '../../../protocol/engine-messages';
import { earlyScript } from './early-engine';

interface Props {
  readonly open: Omit<RequestOf<'open'>, 'theme'>;
  /** By which the browser knows that the script is the server's own. */
  readonly nonce: string;
}

/** Has the engine start while the page is still being read. Only what the server renders has it. */
export function EarlyStart({ open, nonce }: Props) {
  const isInserted = useRef(false);
  useServerInsertedHTML(() => {
    if (isInserted.current) return null;
    isInserted.current = true;
    return <script nonce={nonce} dangerouslySetInnerHTML={{ __html: earlyScript(open) }} />;
  });
  return null;
}
