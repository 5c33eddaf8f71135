'use client';

import { Anchor, Text, Title } from '@mantine/core';
import classes from './Desk.module.css';

/** What stands in the place of a page that does not exist. */
export function Missing() {
  return (
    <main className={classes.missing}>
      <Title order={1} size="h2">
        There is nothing here
      </Title>
      <Text my="sm">The sheet may have been removed, or the address is not quite right.</Text>
      <Anchor href="/">All sheets</Anchor>
    </main>
  );
}
