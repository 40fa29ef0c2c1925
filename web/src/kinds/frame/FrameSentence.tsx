// What a frame says of saw, bars and welds, in its first sentence.
import type { Piece, Schemas } from '../../api/client';
import { Chip } from '../../bench/Chip';
import { put } from '../../bench/edit';
import { commit, useBench } from '../../bench/store';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Press } from '../../kit/Press';
import { Select } from '../../kit/Select';
import { Terms } from '../../parts/Terms';

/** What it is for, and the settings of saw, bars and welds. */
export function FrameStock({ piece, whole }: { piece: Piece; whole: boolean }) {
  return (
    <>
      for a frame
      <FrameSentence piece={piece} whole={whole} />
    </>
  );
}

function FrameSentence({ piece, whole }: { piece: Piece; whole: boolean }) {
  const frame: Partial<Schemas['FrameSettings']> = piece.frame ?? {};
  const bars = frame.bars ?? [];
  const change = (path: (string | number)[], value: unknown, note: string) =>
    void commit((now) => put(now, ['frame', ...path], value), note, { field: 'frame' }).then(
      (fault) => fault && useBench.setState({ message: fault }),
    );
  const chip = (key: 'saw_step' | 'kerf' | 'end_trim' | 'grip' | 'weld_gap', label: string, ghost: string) => (
    <Chip
      text={frame[key] ?? ''}
      ghost={ghost}
      optional
      label={label}
      edit={(now, text) => put(now, ['frame', key], text)}
      own={{ field: 'frame' }}
      note={label}
    />
  );
  return (
    <>
      {(whole || frame.usual_joints) && (
        <>
          ; where no step says otherwise{' '}
          <Choice
            label="usual joints"
            value={frame.usual_joints ?? ''}
            options={[
              ['', 'joints stay open'],
              ['mitre', 'corners are mitred'],
              ['butt', 'corners are butted'],
            ]}
            change={(key) => change(['usual_joints'], key || undefined, 'usual joints')}
          />
        </>
      )}
      {(whole || frame.saw_step) && <>; saw to {chip('saw_step', "saw's step", '0.5 deg')}</>}
      {(whole || frame.kerf) && (
        <>
          , <Terms text="kerf" /> {chip('kerf', 'kerf', '3 mm')}
        </>
      )}
      {(whole || frame.end_trim) && <>, trim {chip('end_trim', 'end trim', '0 mm')} from each end</>}
      {(whole || frame.grip) && (
        <>
          , <Terms text="grip allowance" /> {chip('grip', 'grip allowance', '0 mm')}
        </>
      )}
      {(whole || bars.length > 0) && <Bars bars={bars} change={change} />}
      {(whole || frame.weld_gap) && <>; welds across gaps to {chip('weld_gap', 'widest gap that is welded', '5 mm')}</>}
      {(whole || frame.weld_symbols) && (
        <>
          ; welds drawn by{' '}
          <Select
            className="chip"
            aria-label="weld symbols"
            value={frame.weld_symbols ?? 'iso2553'}
            onChange={({ target: { value } }) => change(['weld_symbols'], value, 'weld symbols')}
          >
            <option value="iso2553">ISO 2553</option>
            <option value="aws_a24">AWS A2.4</option>
          </Select>
        </>
      )}
      {(whole || frame.welded_tolerance) && (
        <>
          ; welded sizes to{' '}
          <Select
            className="chip"
            aria-label="welded tolerance"
            value={frame.welded_tolerance ?? ''}
            onChange={({ target: { value } }) => change(['welded_tolerance'], value || undefined, 'welded tolerance')}
          >
            <option value="">no class</option>
            {['A', 'B', 'C', 'D'].map((one) => (
              <option key={one} value={one}>
                ISO 13920 {one}
              </option>
            ))}
          </Select>
        </>
      )}
    </>
  );
}

type Change = (path: (string | number)[], value: unknown, note: string) => void;

/** The bars that pieces are cut from: lengths from the stockholder, and bar offcuts in hand. */
function Bars({ bars, change }: { bars: NonNullable<Schemas['FrameSettings']['bars']>; change: Change }) {
  return (
    <>
      ; bars of{' '}
      {bars.length === 0 && (
        <Press
          className="chip ghost"
          aria-label="bars: 6000 mm"
          onClick={() => change(['bars'], [{ length: '6000 mm' }], 'bars')}
        >
          6000 mm
        </Press>
      )}
      {bars.map((bar, index) => (
        <span key={index}>
          {index > 0 && ', '}
          <Chip
            text={bar.length}
            label={`bar ${index + 1}`}
            edit={(now, text) => put(now, ['frame', 'bars', index, 'length'], text)}
            own={{ field: 'frame' }}
            note="bar length"
          />{' '}
          of{' '}
          <Chip
            text={bar.section ?? ''}
            ghost="any section"
            optional
            label={`section of bar ${index + 1}`}
            edit={(now, text) => put(now, ['frame', 'bars', index, 'section'], text)}
            own={{ field: 'frame' }}
            note="section of a bar"
          />
          ,{' '}
          <Chip
            text={bar.quantity == null ? '' : String(bar.quantity)}
            ghost="no limit"
            optional
            label={`how many of bar ${index + 1}`}
            edit={(now, text) =>
              put(
                now,
                ['frame', 'bars', index, 'quantity'],
                text === undefined ? undefined : /^\d{1,6}$/.test(text) ? Number(text) : (text as unknown),
              )
            }
            own={{ field: 'frame' }}
            note="bars in hand"
          />{' '}
          <Act
            aria-label={`Take bar ${index + 1} out`}
            onClick={() => change(['bars', index], undefined, 'took a bar length out')}
          >
            ×
          </Act>
        </span>
      ))}{' '}
      <Act onClick={() => change(['bars'], [...bars, { length: '3000 mm', quantity: 1 }], 'added a bar length')}>
        + length or bar offcut
      </Act>
    </>
  );
}
