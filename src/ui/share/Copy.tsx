import { Button, CopyButton } from '@mantine/core';

/** Copies a text, and says so. */
export function Copy({
  text,
  label,
  children,
}: {
  readonly text: string;
  readonly label: string;
  readonly children: string;
}) {
  return (
    <CopyButton value={text}>
      {({ copied, copy }) => (
        <Button size="compact-sm" variant="default" aria-label={copied ? 'Copied' : label} onClick={copy}>
          {copied ? 'Copied' : children}
        </Button>
      )}
    </CopyButton>
  );
}
