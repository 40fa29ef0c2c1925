// How the shop joins frames, and its own sections: drawn and weighed as they are typed.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Act, ActFile } from '../kit/Act';
import { Choice } from '../kit/Choice';
import { FileInput } from '../kit/FileInput';
import { Glyph } from '../kit/Glyph';
import { Input } from '../kit/Input';
import { List } from '../kit/List';
import { OutlineFile } from '../parts/OutlineFile';
import { SHOP_FRAMES, useShopFrames } from './useShopFrames';
import { Before, takeUp } from './Before';
import { ReadFile } from './ReadFile';
import { useUnsaved } from './unsaved';

type Settings = Schemas['ShopFrames'];
type Section = Schemas['OwnSection'];

/** Outlines that are typed by their sizes, what those are called, and what is begun with. */
const TYPED: { words: string; key: string; sizes: [field: string, words: string][]; first: object }[] = [
  {
    words: 'rectangle',
    key: 'rectangle',
    sizes: [
      ['width', 'wide'],
      ['depth', 'high'],
    ],
    first: { width: '40 mm', depth: '20 mm' },
  },
  { words: 'circle', key: 'circle', sizes: [['diameter', 'across']], first: { diameter: '30 mm' } },
  {
    words: 'flat with round edges',
    key: 'obround',
    sizes: [
      ['length', 'over all'],
      ['width', 'thick'],
    ],
    first: { length: '40 mm', width: '10 mm' },
  },
];

export function Frames() {
  const queries = useQueryClient();
  const kept = useShopFrames();
  const [draft, setDraft] = useState<Settings | null>(null);
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const [picked, setPicked] = useState<File | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const settings = draft ?? kept.data?.settings;
  useUnsaved('the sections', draft !== null && JSON.stringify(draft) !== JSON.stringify(kept.data?.settings));
  if (!settings || !kept.data) return null;
  const { sections } = settings;
  const changed = JSON.stringify(settings) !== JSON.stringify(kept.data.settings);
  const change = (next: Partial<Settings>) => {
    setDraft({ ...settings, ...next });
    setSaid(null);
  };
  const changeAt = (at: number, next: Partial<Section>) =>
    change({ sections: sections.map((one, index) => (index === at ? { ...one, ...next } : one)) });
  const freshName = (stem: string) => {
    const taken = new Set(sections.map((one) => one.name.toLowerCase()));
    let count = 1;
    while (taken.has(`${stem} ${count}`.toLowerCase())) count += 1;
    return `${stem} ${count}`;
  };
  const add = (stem: string, outline: Section['outline']) =>
    change({ sections: [...sections, { name: freshName(stem), outline }] });
  const save = async () => {
    const wrong = sections.find(hasNoMass);
    if (wrong) {
      setSaid({ text: `${noMass(wrong)} Nothing was saved.`, bad: true });
      return;
    }
    try {
      const table = await must(client.PUT('/api/shop/frames', { body: { version: kept.data.version, settings } }));
      queries.setQueryData(SHOP_FRAMES, table);
      setDraft(null);
      setSaid({ text: 'Saved. Pieces that have one of these sections keep it as they took it.', bad: false });
    } catch (fault) {
      const stale = fault instanceof Refusal && fault.problem.status === 409;
      const again = stale ? " Reload the page to see the other's, then make your change again." : '';
      setSaid({ text: `${words(fault)}${again} Nothing was saved.`, bad: true });
    }
  };
  const take = (text: string, from: string) =>
    takeUp(must(client.POST('/api/shop/frames/read', { body: { text } })), (found) => {
      setDraft(found);
      setSaid({ text: `The sections are ${from}. Save the frames to keep them.`, bad: false });
    });
  return (
    <section aria-label="Frames" style={{ marginTop: 32 }}>
      <h1>The shop's frames</h1>
      <div className="tools">
        <span>
          In a new frame{' '}
          <Choice
            label="usual joints of a new frame"
            value={settings.usual_joints ?? ''}
            options={[
              ['mitre', 'corners are mitred'],
              ['butt', 'corners are butted'],
              ['', 'joints stay open'],
            ]}
            change={(key) => change({ usual_joints: (key || null) as Settings['usual_joints'] })}
          />{' '}
          where no step says otherwise.
        </span>
      </div>
      <h2>Own sections</h2>
      {sections.length === 0 ? (
        <p className="soft">
          None yet. A section that no standard has (a rail, a drawn profile) is kept here with its outline, what a metre
          weighs and the bars that it comes in; a frame that uses it keeps a copy.
        </p>
      ) : (
        <div className="rows" role="group" aria-label="Rows" tabIndex={0}>
          <List aria-label="Own sections">
            <thead>
              <tr>
                <th>outline</th>
                <th>name</th>
                <th>sizes</th>
                <th className="r">kg/m stated</th>
                <th className="r">by its outline, steel</th>
                <th>bars</th>
                <th>sides</th>
                <th>
                  <span className="visually">acts</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sections.map((one, at) => (
                <Row
                  key={at}
                  section={one}
                  change={(next) => changeAt(at, next)}
                  remove={() => change({ sections: sections.filter((_, index) => index !== at) })}
                />
              ))}
            </tbody>
          </List>
        </div>
      )}
      <div className="tools">
        <FileInput
          ref={file}
          accept=".dxf,.svg"
          label="Outline of a section"
          pick={(found) => setPicked(found ?? null)}
        />
        <Act kind="line" onClick={() => file.current?.click()}>
          Add one from a DXF or SVG
        </Act>
        {TYPED.map((one) => (
          <Act
            key={one.key}
            kind="line"
            onClick={() => add(one.words, { [one.key]: one.first } as unknown as Section['outline'])}
          >
            Add a {one.words}
          </Act>
        ))}
        <ReadFile
          label="Sections as JSON"
          accept=".json,application/json"
          read={(text, name) =>
            void take(text, `as ${name} has them`).then((bad) => bad && setSaid({ text: bad, bad: true }))
          }
          refused={(why) => setSaid({ text: why, bad: true })}
        >
          Read them from JSON
        </ReadFile>
        <ActFile kind="line" href="/api/shop/frames.json">
          As a file, JSON
        </ActFile>
        <Before table="frames" called="the frames and sections" take={take} />
        <Act kind="line" disabled={!changed} onClick={() => setDraft(null)}>
          As it was
        </Act>
        <Act kind="main" disabled={!changed} onClick={() => void save()}>
          Save the frames
        </Act>
      </div>
      {said && (
        <div className={`note${said.bad ? ' bad-note' : ''}`} role={said.bad ? 'alert' : 'status'}>
          {said.text}
        </div>
      )}
      {picked && (
        <OutlineFile
          file={picked}
          acts={[
            {
              words: 'Keep it as a section',
              run: (shape) => {
                add(picked.name.replace(/\.(dxf|svg)$/i, '').slice(0, 30) || 'section', shape);
                return Promise.resolve(null);
              },
            },
          ]}
          leave={() => setPicked(null)}
        />
      )}
    </section>
  );
}

/** A mass that was typed and is no number: it is said, and not dropped. */
const hasNoMass = ({ mass_per_metre }: Section) => typeof mass_per_metre === 'number' && !(mass_per_metre > 0);
const noMass = ({ name }: Section) =>
  `The stated mass of ${name} is no number above 0: type what a metre weighs in kg, such as 2.45, or leave it empty.`;

/** The section as it comes out, a moment after it was typed. */
function useShown(section: Section) {
  const [settled, setSettled] = useState(section);
  useEffect(() => {
    const later = setTimeout(() => setSettled(section), 200);
    return () => clearTimeout(later);
  }, [section]);
  // What it weighs by its outline alone.
  const body: Section = { ...settled, mass_per_metre: undefined };
  return useQuery({
    queryKey: ['try-section', body],
    retry: false,
    staleTime: Infinity,
    placeholderData: (before: Schemas['SectionRow'] | undefined) => before,
    queryFn: () => must(client.POST('/api/shop/frames/try', { body })),
  });
}

/** A field whose text is kept as something else: while it is typed it shows what is typed, else what is kept. */
function Typed({
  label,
  placeholder,
  kept,
  change,
}: {
  label: string;
  placeholder: string;
  kept: string;
  change: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Input
      className="field num"
      aria-label={label}
      placeholder={placeholder}
      size={10}
      value={typed ?? kept}
      onChange={(event) => {
        setTyped(event.target.value);
        change(event.target.value.trim());
      }}
      // What is no number stays as it was typed, beside what is said of it.
      onBlur={() => kept !== String(NaN) && setTyped(null)}
    />
  );
}

function Row({
  section,
  change,
  remove,
}: {
  section: Section;
  change: (next: Partial<Section>) => void;
  remove: () => void;
}) {
  const shown = useShown(section);
  const row = shown.error ? undefined : shown.data;
  const [key] = Object.keys(section.outline) as [string];
  const typed = TYPED.find((one) => one.key === key);
  const outline = (section.outline as unknown as Record<string, Record<string, string>>)[key];
  const size = row ? 1.1 * Math.max(row.width, row.height) : 1;
  return (
    <>
      <tr>
        <td>
          <svg
            width="56"
            height="56"
            viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}
            className="sectionshape"
            role="img"
            aria-label={row ? `${section.name}, ${row.width} by ${row.height} mm` : `${section.name}, no outline`}
          >
            {row && <path d={row.path} fillRule="evenodd" />}
          </svg>
        </td>
        <td>
          <Input
            className="field"
            aria-label={`Name of ${section.name}`}
            value={section.name}
            onChange={(event) => change({ name: event.target.value })}
          />
        </td>
        <td>
          {typed && outline
            ? typed.sizes.map(([field, called]) => (
                <label key={field} style={{ marginRight: 8 }}>
                  {called}{' '}
                  <Input
                    className="field num"
                    aria-label={`${section.name}, ${called}`}
                    size={8}
                    value={outline[field] ?? ''}
                    onChange={(event) =>
                      change({
                        outline: {
                          [key]: { ...outline, [field]: event.target.value },
                        } as unknown as Section['outline'],
                      })
                    }
                  />
                </label>
              ))
            : row && `${row.width.toFixed(1)} by ${row.height.toFixed(1)} mm, from a file`}
        </td>
        <td className="r">
          <Typed
            label={`Stated mass of ${section.name}, kg/m`}
            placeholder="not stated"
            kept={section.mass_per_metre === undefined ? '' : String(section.mass_per_metre)}
            change={(text) => change({ mass_per_metre: text === '' ? undefined : Number(text.replace(',', '.')) })}
          />
        </td>
        <td className="r num">{row ? `${row.mass_per_metre.toFixed(3)} kg/m` : '—'}</td>
        <td>
          <Typed
            label={`Bars of ${section.name}`}
            placeholder="those of any section"
            kept={(section.bars ?? []).join(', ')}
            change={(text) => {
              const list = text
                .split(/[,;]/)
                .map((one) => one.trim())
                .filter(Boolean);
              change({ bars: list.length > 0 ? list : undefined });
            }}
          />
        </td>
        <td>
          <Choice
            label={`sides of ${section.name}`}
            value={section.symmetry ?? 'of_outline'}
            options={[
              ['of_outline', 'alike as its outline is'],
              ['none', 'told apart'],
            ]}
            change={(symmetry) => change({ symmetry: symmetry as Section['symmetry'] })}
          />
        </td>
        <td>
          <Input
            className="field"
            aria-label={`Where ${section.name} comes from`}
            placeholder="not said"
            size={14}
            value={section.source ?? ''}
            onChange={(event) => change({ source: event.target.value || undefined })}
          />
        </td>
        <td className="r">
          <Glyph icon="out" words={`Take ${section.name} out`} press={remove} />
        </td>
      </tr>
      {hasNoMass(section) && (
        <tr>
          <td colSpan={9}>
            <span className="fault">{noMass(section)}</span>
          </td>
        </tr>
      )}
      {shown.error && (
        <tr>
          <td colSpan={9}>
            <span className="fault">{words(shown.error)}</span>
          </td>
        </tr>
      )}
    </>
  );
}
