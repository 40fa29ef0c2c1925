// How the shop's files are named, how contours leave in them, and in which unit drawings and programs are.
import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { client, must, Refusal, words } from '../api/client';
import type { components } from '../api/schema';

import { useUnsaved } from './unsaved';

type Settings = components['schemas']['FileSettings'];
type Contours = components['schemas']['Contours'];
type FileUnit = components['schemas']['FileUnit'];

const CONTOURS: Record<Contours, string> = {
  polylines: 'one closed polyline each',
  lines_and_arcs: 'separate lines and arcs',
};

const UNITS: Record<FileUnit, string> = {
  millimetres: 'millimetres',
  inches: 'inches',
  piece: 'as each piece is drawn',
};

/** One of a list of words. */
function Pick<T extends string>(props: {
  label: string;
  all: Record<T, string>;
  value: T;
  hint: string;
  change: (to: T) => void;
}) {
  return (
    <TextField
      select
      label={props.label}
      size="small"
      value={props.value}
      helperText={props.hint}
      sx={{ width: '17em' }}
      onChange={(event) => props.change(event.target.value as T)}
    >
      {(Object.keys(props.all) as T[]).map((key) => (
        <MenuItem key={key} value={key}>
          {props.all[key]}
        </MenuItem>
      ))}
    </TextField>
  );
}

export function FileNames() {
  const queries = useQueryClient();
  const kept = useQuery({ queryKey: ['shop-files'], queryFn: () => must(client.GET('/api/shop/files')) });
  const [draft, setDraft] = useState<Settings | null>(null);
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const settings = draft ?? kept.data?.settings;
  const names = settings?.names ?? '';
  const tried = useTried(names);
  useUnsaved('how files are named', draft !== null && JSON.stringify(draft) !== JSON.stringify(kept.data?.settings));
  if (!settings || !kept.data) return null;
  const kind = (one: Settings) =>
    [one.names, one.contours ?? 'polylines', one.dxf ?? 'millimetres', one.programs ?? 'millimetres'].join('\n');
  const changed = kind(settings) !== kind(kept.data.settings);
  const save = async () => {
    try {
      const table = await must(client.PUT('/api/shop/files', { body: { version: kept.data.version, settings } }));
      queries.setQueryData(['shop-files'], table);
      setDraft(null);
      setSaid({ text: 'Saved. Files are named so from now on.', bad: false });
    } catch (fault) {
      const stale = fault instanceof Refusal && fault.problem.status === 409;
      setSaid({
        text:
          `${words(fault)}.${stale ? " Reload the page to see the other's, then make your change again." : ''} ` +
          `Nothing was saved.`,
        bad: true,
      });
    }
  };
  return (
    <section aria-label="Files" style={{ marginTop: 32 }}>
      <h1>The shop's files</h1>
      <p className="soft">
        Names are made of {'{mark}, {revision}, {material}, {thickness}, {quantity}'} and {'{file}'} (what the file is).
        What stands in [ ] is left out where it is not known.
      </p>
      <div className="tools" style={{ alignItems: 'flex-start', gap: 16, flexWrap: 'wrap' }}>
        <TextField
          label="Pattern of file names"
          size="small"
          value={names}
          error={Boolean(tried.fault)}
          helperText={tried.fault ?? tried.example ?? ' '}
          sx={{ width: '38em', maxWidth: '100%' }}
          slotProps={{ htmlInput: { spellCheck: false, className: 'mono' } }}
          onChange={(event) => setDraft({ ...settings, names: event.target.value })}
        />
        <Pick
          label="Contours in DXF"
          all={CONTOURS}
          value={settings.contours ?? 'polylines'}
          hint="Circles are whole either way."
          change={(contours) => setDraft({ ...settings, contours })}
        />
        <Pick
          label="DXF in"
          all={UNITS}
          value={settings.dxf ?? 'millimetres'}
          hint="The file says its unit."
          change={(dxf) => setDraft({ ...settings, dxf })}
        />
        <Pick
          label="Programs in"
          all={UNITS}
          value={settings.programs ?? 'millimetres'}
          hint="G21 is millimetres, G20 inches."
          change={(programs) => setDraft({ ...settings, programs })}
        />
        <Button variant="outlined" disabled={!changed} onClick={() => setDraft(null)}>
          As it was
        </Button>
        <Button variant="contained" disabled={!changed || Boolean(tried.fault)} onClick={() => void save()}>
          Save
        </Button>
      </div>
      {said && (
        <div className={`note${said.bad ? ' bad-note' : ''}`} role={said.bad ? 'alert' : 'status'}>
          {said.text}
        </div>
      )}
    </section>
  );
}

/** The names that a pattern gives, or why it is refused. */
function useTried(names: string): { example?: string; fault?: string } {
  const [settled, setSettled] = useState(names);
  useEffect(() => {
    const later = setTimeout(() => setSettled(names), 150);
    return () => clearTimeout(later);
  }, [names]);
  const tried = useQuery({
    queryKey: ['try-names', settled],
    enabled: settled !== '',
    retry: false,
    staleTime: Infinity,
    queryFn: () => must(client.POST('/api/shop/files/try', { body: { names: settled } })),
  });
  if (tried.error) return { fault: words(tried.error) };
  return tried.data ? { example: `${tried.data.full}, or ${tried.data.bare}` } : {};
}
