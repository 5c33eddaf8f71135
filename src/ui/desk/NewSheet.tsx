import { Button, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import classes from './Desk.module.css';

/** Names and makes an empty sheet, and opens it. */
export function NewSheet() {
  const router = useRouter();
  const [name, setName] = useState('');
  const [error, setError] = useState<string | null>(null);

  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setError('Give the sheet a name');
    try {
      const response = await fetch('/api/sheets', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name: name.trim() }),
      });
      const answer = (await response.json()) as { id?: string; refused?: string };
      if (answer.id !== undefined) router.push(`/sheets/${encodeURIComponent(answer.id)}`);
      else setError(answer.refused ?? 'The sheet could not be made');
    } catch {
      setError('The server cannot be reached. Try again in a moment.');
    }
  };

  return (
    <form className={classes.new} onSubmit={(event) => void make(event)} noValidate>
      <TextInput
        label="New sheet"
        placeholder="Its name"
        w={280}
        maxLength={120}
        value={name}
        error={error}
        onChange={(event) => {
          setName(event.currentTarget.value);
          setError(null);
        }}
      />
      <Button type="submit" mb={error ? 21 : 0}>
        Make it
      </Button>
    </form>
  );
}
