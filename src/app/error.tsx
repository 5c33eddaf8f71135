'use client';

import { Broken } from '../ui/page/Broken';

/** In place of a page that threw. */
export default function PageError({ reset }: { readonly reset: () => void }) {
  return <Broken onRetry={reset} />;
}
