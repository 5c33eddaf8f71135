import { useState } from 'react';
import { messageOf } from '../../core/values/error-message';
import { useSession } from '../sheet/use-session';
import { ChooseFile } from './ChooseFile';
import classes from './Files.module.css';

/** Brings the rules of a rule file in, after those that are there. */
export function RulesPanel() {
  const session = useSession();
  const [told, setTold] = useState<{ readonly names: readonly string[]; readonly unknown: readonly string[] } | null>(
    null,
  );
  const [error, setError] = useState<string | null>(null);

  const bring = async (file: File | null) => {
    if (!file) return;
    setError(null);
    setTold(null);
    try {
      setTold(await session.ask({ kind: 'bring-rules', text: await file.text() }));
    } catch (failed) {
      setError(messageOf(failed));
    }
  };

  return (
    <div className={classes.panel}>
      <p className={classes.note}>
        Choose a rule file, as “Rules alone” gives it. Its rules come after those that are there, their fields met by
        label; one undo takes them back.
      </p>
      <ChooseFile label="Rule file" accept=".json,application/json" take={(file) => void bring(file)} />
      {error && <p role="alert">{error}</p>}
      {told && (
        <section className={classes.report} aria-label="What came">
          <h3>Brought in: {told.names.join(', ')}</h3>
          {told.unknown.length > 0 && (
            <p>No field here is called {told.unknown.join(', ')}: the rules that name it wait until there is one.</p>
          )}
        </section>
      )}
    </div>
  );
}
