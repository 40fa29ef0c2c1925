// Call-outs by pointing: what is measured between what is pointed at goes into one.
import type { CallOut, Piece, Schemas } from '../api/client';
import { callouts, freshLetter, named, put } from './edit';
import { commit, selectCallout, useBench } from './store';

export type Reading = Schemas['Reading'];

const end = () => useBench.setState({ menu: null, picks: [], measuring: null, reading: null });

/** Adds a call-out that measures this; its value is what it measures now, to be typed over by what the drawing says. */
export async function addMeasured(reading: Reading): Promise<void> {
  let name = '';
  const add = (now: Piece): Piece => {
    name = freshLetter(now);
    const one: CallOut = { name, value: reading.text, measure: reading.measure };
    return { ...now, callouts: [...callouts(now), one] };
  };
  const fault = await commit(add, `called out the ${reading.words}`);
  end();
  if (fault) useBench.setState({ message: fault });
  else selectCallout(name);
}

/** Says what a call-out measures. */
export async function measureBy(name: string, reading: Reading): Promise<void> {
  const fault = await commit(
    (now) => put(now, ['callouts', named(name), 'measure'], reading.measure),
    `${name} measures the ${reading.words}`,
    { callout: name },
  );
  end();
  if (fault) useBench.setState({ message: fault });
  else selectCallout(name);
}
