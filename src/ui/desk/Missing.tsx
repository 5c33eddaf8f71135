'use client';

import { Anchor, Text, Title } from '@mantine/core';
import classes from './Desk.module.css';

/** The page for an address that does not exist, or is not accessible. */
export function Missing({
  because = 'The sheet may have been removed, or the address is not quite right.',
}: {
  readonly because?: string;
}) {
  return (
    <main className={classes.missing}>
      <Title order={1} size="h2">
        There is nothing here
      </Title>
      <Text my="sm">{because}</Text>
      <Anchor href="/">All sheets</Anchor>
    </main>
  );
}
