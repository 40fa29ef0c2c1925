// What the shop's rules go by: each figure with what Steelk ships beside it, and the rules that ask for it.
import {
  Button,
  IconButton,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Tooltip,
} from '@mui/material';
import { useEffect, useState } from 'react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Before, takeUp } from './Before';
import { MadeUp, ours } from './MadeUp';
import { ReadFile } from './ReadFile';
import { useUnsaved } from './unsaved';
import { FIGURES, figureAt, readFigure, withFigure, type Figure } from './figures';

type Settings = Schemas['ShopRules'];
type Fault = { path: string; text: string };

export function RuleSettings() {
  const queries = useQueryClient();
  const kept = useQuery({ queryKey: ['shop-rules'], queryFn: () => must(client.GET('/api/shop/rules')) });
  const told = useQuery({
    queryKey: ['rules'],
    staleTime: Infinity,
    queryFn: () => must(client.GET('/api/rules', {})),
  });
  // Every state since the last save; the newest is last.
  const [states, setStates] = useState<Settings[]>([]);
  const [fault, setFault] = useState<Fault | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  // A link from a rule leads here, and the page is there only now.
  useUnsaved('what rules go by', states.length > 0);
  const there = kept.data !== undefined;
  useEffect(() => {
    const [own, page] = [document.getElementById('rules'), document.querySelector('main')];
    if (!there || window.location.hash !== '#rules' || !own || !page) return;
    // The page scrolls under its bar, and not with it.
    page.scrollTop += own.getBoundingClientRect().top - page.getBoundingClientRect().top;
  }, [there]);
  if (!kept.data) return null;
  const { shipped, version } = kept.data;
  const settings = states[states.length - 1] ?? kept.data.settings;
  const changed = states.length > 0;
  const next = (now: Settings) => {
    setStates([...states, now]);
    setFault(null);
    setSaid(null);
  };
  const save = async () => {
    try {
      const table = await must(client.PUT('/api/shop/rules', { body: { version, settings } }));
      queries.setQueryData(['shop-rules'], table);
      setStates([]);
      setFault(null);
      setSaid('Saved. Every piece is held against these from now on.');
    } catch (refused) {
      const problem = refused instanceof Refusal ? refused.problem : undefined;
      const stale = problem?.status === 409;
      setFault({
        path: problem?.field ?? '',
        text:
          `${words(refused)}.${stale ? " Reload the page to see the other's, then make your change again." : ''} ` +
          'Nothing was saved.',
      });
    }
  };
  const take = (text: string, from: string) =>
    takeUp(must(client.POST('/api/shop/rules/read', { body: { text } })), (found) => {
      next(found);
      setSaid(`What rules go by is ${from}. Save to keep it.`);
    });
  const rulesOf = (path: string) =>
    (told.data ?? [])
      .filter((rule) => rule.settings.some((own) => path === own || path.startsWith(`${own}.`)))
      .map((rule) => rule.title);
  const sheets = settings.sheet;
  const setSheet = (at: number, part: Partial<Settings['sheet'][number]>) =>
    next({ ...settings, sheet: sheets.map((one, index) => (index === at ? { ...one, ...part } : one)) });
  const sheetFault = (at: number, field: string) => fault?.path === `sheet[${at}].${field}`;
  return (
    <section aria-label="Rules" id="rules" style={{ marginTop: 32, marginBottom: 32 }}>
      <h1>What the shop's rules go by</h1>
      <p className="soft">
        T is the thickness, V the die's opening. What Steelk ships is common practice, and machines that are made up:
        put your own in before you trust a rule.
      </p>
      <div className="tools">
        <Button variant="outlined" disabled={!changed} onClick={() => setStates(states.slice(0, -1))}>
          Take back
        </Button>
        <Button variant="contained" disabled={!changed} onClick={() => void save()}>
          Save the rules
        </Button>
        <Button variant="outlined" href="/api/shop/rules.toml" download>
          As a file, TOML
        </Button>
        <ReadFile
          label="What rules go by as TOML"
          accept=".toml,application/toml,text/plain"
          read={(text, name) =>
            void take(text, `as ${name} has it`).then((bad) => bad && setFault({ path: '', text: bad }))
          }
          refused={(why) => setFault({ path: '', text: why })}
        >
          Read it from TOML
        </ReadFile>
        <Before table="rules" called="figures that rules go by" take={take} />
        <span className="soft">{changed ? 'not saved' : 'as saved'}</span>
      </div>
      {fault && (
        <div className="note bad-note" role="alert">
          {fault.path ? `${fault.path}: ` : ''}
          {fault.text}
        </div>
      )}
      {said && (
        <div className="note" role="status">
          {said}
        </div>
      )}
      <div className="rows" role="group" aria-label="Figures" tabIndex={0}>
        <Table size="small" aria-label="Figures that rules go by">
          <TableHead>
            <TableRow>
              <TableCell>what</TableCell>
              <TableCell align="right">the shop's</TableCell>
              <TableCell align="right">as shipped</TableCell>
              <TableCell>rules that go by it</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {FIGURES.map((one) => (
              <TableRow key={one.path}>
                <TableCell>{one.label}</TableCell>
                <TableCell align="right">
                  <FigureField
                    one={one}
                    value={figureAt(settings, one.path)}
                    bad={fault?.path === one.path}
                    set={(value) => next(withFigure(settings, one.path, value))}
                  />
                </TableCell>
                <TableCell align="right" className="num">
                  {figureAt(shipped, one.path) === figureAt(settings, one.path) ? (
                    <span className="soft">
                      {figureAt(shipped, one.path)} {one.unit}
                    </span>
                  ) : (
                    <Button
                      onClick={() => next(withFigure(settings, one.path, figureAt(shipped, one.path)))}
                      aria-label={`${one.label}: back to ${figureAt(shipped, one.path)} ${one.unit}`}
                    >
                      {figureAt(shipped, one.path)} {one.unit}
                    </Button>
                  )}
                </TableCell>
                <TableCell className="soft">{rulesOf(one.path).join(', ')}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </div>
      <div className="tools" style={{ marginTop: 16 }}>
        {(['brake', 'saw'] as const).map((which) => {
          const machine = settings[which];
          const set = (part: { name?: string; source?: string; made_up?: boolean }) =>
            next({ ...settings, [which]: { ...machine, ...part } } as Settings);
          return (
            <span key={which} className="machine">
              <Words
                label={`The ${which}`}
                value={machine.name}
                bad={fault?.path === `${which}.name`}
                set={(name) => set({ name })}
              />
              <Words
                label={`Where the ${which}'s figures come from`}
                value={machine.source ?? ''}
                bad={fault?.path === `${which}.source`}
                set={(source) => set({ source })}
              />
              <MadeUp made={machine.made_up} of={`The ${which}`} ours={() => set({ made_up: false, source: ours() })} />
            </span>
          );
        })}
      </div>
      <h2>Sheets that are kept or bought</h2>
      {sheets.map((sheet, at) => (
        <div className="tools" key={at}>
          <Words
            label={`Sheet ${at + 1}`}
            value={sheet.name}
            bad={sheetFault(at, 'name')}
            set={(name) => setSheet(at, { name })}
          />
          {(['length_mm', 'width_mm'] as const).map((field) => (
            <FigureField
              key={field}
              one={{
                path: `sheet[${at}].${field}`,
                label: field === 'length_mm' ? 'long' : 'wide',
                unit: 'mm',
              }}
              said={field === 'length_mm' ? 'long, along the grain' : 'wide'}
              value={sheet[field]}
              bad={sheetFault(at, field)}
              set={(value) => setSheet(at, { [field]: value })}
            />
          ))}
          <Words
            label="Where it comes from"
            value={sheet.source ?? ''}
            bad={sheetFault(at, 'source')}
            set={(source) => setSheet(at, { source })}
          />
          <Tooltip title="Take this sheet out">
            <span>
              <IconButton
                size="small"
                aria-label={`Take ${sheet.name} out`}
                disabled={sheets.length < 2}
                onClick={() => next({ ...settings, sheet: sheets.filter((_, index) => index !== at) })}
              >
                ×
              </IconButton>
            </span>
          </Tooltip>
        </div>
      ))}
      <Button
        onClick={() =>
          next({
            ...settings,
            sheet: [...sheets, { name: '2000 x 1000', length_mm: 2000, width_mm: 1000, source: ours() }],
          })
        }
      >
        Add a sheet
      </Button>
    </section>
  );
}

function FigureField({
  one,
  value,
  bad,
  set,
  said,
}: {
  one: Figure;
  value: number;
  bad: boolean;
  set: (value: number) => void;
  said?: string;
}) {
  const [draft, setDraft] = useState(String(value));
  const [wrong, setWrong] = useState(false);
  useEffect(() => {
    setDraft(String(value));
    setWrong(false);
  }, [value]);
  const done = () => {
    const read = readFigure(draft, one.unit);
    if (read === null) setWrong(true);
    else if (read !== value) set(read);
    else setDraft(String(value));
  };
  return (
    <TextField
      variant="outlined"
      label={said}
      value={draft}
      error={bad || wrong}
      helperText={wrong ? `"${draft}" is no number of ${one.unit}; it stays ${value}` : undefined}
      sx={{ width: '9.5em', '& .MuiInputBase-input': { py: '4px' } }}
      slotProps={{
        htmlInput: { 'aria-label': said ? undefined : one.label, inputMode: 'decimal', style: { textAlign: 'right' } },
        input: { endAdornment: <span className="soft">&nbsp;{one.unit}</span> },
      }}
      onChange={(event) => {
        setDraft(event.target.value);
        setWrong(false);
      }}
      onBlur={done}
      onKeyDown={(event) => event.key === 'Enter' && done()}
    />
  );
}

function Words({
  label,
  value,
  bad,
  set,
}: {
  label: string;
  value: string;
  bad: boolean;
  set: (value: string) => void;
}) {
  const [draft, setDraft] = useState(value);
  useEffect(() => setDraft(value), [value]);
  return (
    <TextField
      label={label}
      value={draft}
      error={bad}
      sx={{ width: '22em', '& .MuiInputBase-input': { py: '4px' } }}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => draft !== value && set(draft)}
      onKeyDown={(event) => event.key === 'Enter' && draft !== value && set(draft)}
    />
  );
}
