// How a frame begins, and what a job says of one.
import { client, must, type Schemas } from '../../api/client';
import { told } from '../../kit/amounts';
import type { Begin } from '../beginning';

export const BEGIN_FRAME: Begin = {
  first: {
    steelk: 1,
    kind: 'frame',
    title: 'New frame',
    quantity: 1,
    unit: 'mm',
    stock: { material: 'S275' },
    callouts: [],
    operations: [],
  },
  byShop: async () => {
    const { settings } = await must(client.GET('/api/shop/frames'));
    // The rest stands as it does where nothing is said.
    const usual_joints = settings.usual_joints ?? undefined;
    return { frame: { usual_joints } as Schemas['FrameSettings'] };
  },
  words: 'New frame',
  wires: true,
  facts: ({ frame, unit }) => ({
    stock: frame ? `${frame.lines.reduce((sum, line) => sum + line.quantity, 0)} pieces` : '—',
    sizeOf: 'size',
    size: frame?.size ?? '—',
    mass: frame ? told('mass', unit).text(frame.mass_each, 3) : '—',
  }),
};
