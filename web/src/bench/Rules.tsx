// How the shop's rules stand: by what they are about, each place with what to do, and what is accepted with its reason.
import { Button } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Fragment, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { client, must, type BuildAnswer, type Schemas } from '../api/client';
import { AcceptDialog } from './AcceptDialog';
import { AuditFaults, useAudit } from './AsRead';
import { askingAgain, grouped, stands, summed, withoutAcceptance, type Breach } from './breaches';
import { commit, say, selectBreach, useBench } from './store';
import { WhyBox } from './WhyBox';
import { Act } from '../kit/Act';
import type { Column } from '../kit/columns';
import { Grid } from '../kit/Grid';

type RuleTold = Schemas['RuleTold'];
type Finding = BuildAnswer['findings'][number];

const BY: Record<RuleTold['by'][number], string> = {
  laser: 'laser',
  plasma: 'plasma',
  waterjet: 'waterjet',
  oxy_fuel: 'oxy-fuel',
  punch: 'punch',
  drill: 'drill',
  saw: 'saw',
};

type Line = BuildAnswer['rules'][number] & { group: string; by: RuleTold['by']; set: boolean };

const stand = (one: Line) => stands(one) || 'holds';

const COLUMNS: Column<Line>[] = [
  { key: 'about', head: 'about', value: (one) => one.group, width: 130 },
  { key: 'rule', head: 'rule', value: (one) => one.title, grow: 2, width: 180 },
  {
    key: 'stands',
    head: 'stands',
    value: stand,
    show: (one) => (
      <span className={one.broken > 0 ? 'bad' : one.doubtful + one.accepted > 0 ? 'todo' : stands(one) ? 'soft' : 'ok'}>
        {stand(one)}
      </span>
    ),
    width: 120,
  },
  { key: 'by', head: 'by', value: (one) => one.by.map((by) => BY[by]).join(', '), grow: 1, width: 110 },
  {
    key: 'source',
    head: 'source',
    value: (one) => one.source,
    show: (one) => (
      <span className="soft">
        {one.source}
        {one.set && (
          <>
            {' · '}
            <Link to="/shop#rules">the shop's setting</Link>
          </>
        )}
      </span>
    ),
    grow: 3,
    width: 200,
  },
];

export function Rules() {
  const answer = useBench((s) => s.answer);
  const { audit } = useAudit();
  const told = useQuery({
    queryKey: ['rules'],
    staleTime: Infinity,
    queryFn: () => must(client.GET('/api/rules', {})),
  });
  const [accepting, setAccepting] = useState<Breach[] | null>(null);
  const lines = useMemo(
    () =>
      grouped(answer?.rules ?? []).flatMap((group) =>
        group.rules.map((one): Line => {
          const own = told.data?.find((other) => other.rule === one.rule);
          return { ...one, group: group.words, by: own?.by ?? [], set: (own?.settings.length ?? 0) > 0 };
        }),
      ),
    [answer?.rules, told.data],
  );
  if (!answer) return null;
  const tellOf = (rule: string) => told.data?.find((one) => one.rule === rule);
  return (
    <>
      <AuditFaults audit={audit} />
      {answer.findings.length > 0 && (
        <ul>
          {answer.findings.map((one) => (
            <FindingLine key={one.message + one.field} one={one} />
          ))}
        </ul>
      )}
      {grouped(answer.rules).map((group) => {
        const keys = group.rules.map((one) => one.rule);
        const own = answer.breaches.filter((one) => keys.includes(one.rule));
        const sum = stands(summed(group.rules));
        return (
          <section key={group.words} className="rulegroup" aria-label={group.words}>
            <h4>
              {group.words}{' '}
              <span className="soft">
                {group.rules.length} {group.rules.length === 1 ? 'rule' : 'rules'}
                {sum ? `: ${sum}` : ', all hold'}
              </span>
            </h4>
            {keys.map((rule) => {
              const places = own.filter((one) => one.rule === rule);
              const open = places.filter((one) => one.level !== 'hint' && !one.accepted);
              return (
                <Fragment key={rule}>
                  {places.map((one, at) => (
                    <Place
                      key={`${at} ${one.message}`}
                      one={one}
                      accept={tellOf(rule)?.withholds === false ? () => setAccepting([one]) : undefined}
                    />
                  ))}
                  {open.length > 1 && tellOf(rule)?.withholds === false && (
                    <Button onClick={() => setAccepting(open)}>Accept all {open.length} of this rule…</Button>
                  )}
                </Fragment>
              );
            })}
          </section>
        );
      })}
      <Grid label="Shop rules" rows={lines} columns={COLUMNS} idOf={(one) => one.rule} say={say} />
      {accepting && <AcceptDialog breaches={accepting} leave={() => setAccepting(null)} />}
    </>
  );
}

function FindingLine({ one }: { one: Finding }) {
  const idle = /^accepted\[(\d+)\]$/.exec(one.field ?? '');
  return (
    <li className={one.severity === 'error' ? 'bad' : ''}>
      {one.severity}: {one.operation ? `${one.operation}: ` : ''}
      {one.message}. {one.way_out}{' '}
      {idle && (
        <Button
          onClick={() => void commit((now) => withoutAcceptance(now, Number(idle[1])), 'an acceptance taken out')}
        >
          Take it out
        </Button>
      )}
    </li>
  );
}

/** A place where a rule does not hold. Choosing it lights and marks everything that it is about. */
function Place({ one, accept }: { one: Breach; accept?: () => void }) {
  const word = one.accepted ? 'accepted' : one.level;
  const tint = one.accepted ? 'todo' : { broken: 'bad', doubtful: 'todo', hint: 'soft' }[one.level];
  const selected = useBench((s) => s.selection.breach === one.message);
  return (
    <div className={`place${selected ? ' on' : ''}${one.level === 'hint' ? ' soft' : ''}`}>
      <span className={tint}>{word}:</span>{' '}
      <Act aria-pressed={selected} onClick={() => selectBreach(one)}>
        {one.message}.
      </Act>{' '}
      {one.accepted ? (
        <>
          {one.accepted.reason} <span className="soft">({`${one.accepted.by}, ${one.accepted.on}`})</span>{' '}
          <Button onClick={() => void commit((now) => askingAgain(now, one), `asked again: ${one.message}`)}>
            Ask again
          </Button>
        </>
      ) : (
        <>
          {one.way_out} {one.level !== 'hint' && accept && <Button onClick={accept}>Accept…</Button>}
        </>
      )}
      <WhyBox why={one.why} />
    </div>
  );
}
