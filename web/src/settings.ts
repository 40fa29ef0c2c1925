// What a person set for this browser: light or dark, millimetres or inches.
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { LengthUnit } from './api/client';

interface Settings {
  dark: boolean;
  /** The unit to print; null is the piece's own. */
  show: LengthUnit | null;
  /** Who sits here: what is accepted is signed with it. */
  name: string;
  /** Where a panel that is opened stands: below the work or beside it. */
  dock: 'below' | 'beside';
  setDock: (dock: 'below' | 'beside') => void;
  setDark: (dark: boolean) => void;
  setShow: (show: LengthUnit | null) => void;
  setName: (name: string) => void;
}

export const useSettings = create<Settings>()(
  persist(
    (set) => ({
      // The first visit follows the system's.
      dark: typeof matchMedia === 'function' && matchMedia('(prefers-color-scheme: dark)').matches,
      show: null,
      name: '',
      dock: 'below',
      setDock: (dock) => set({ dock }),
      setDark: (dark) => set({ dark }),
      setShow: (show) => set({ show }),
      setName: (name) => set({ name }),
    }),
    { name: 'steelk-settings' },
  ),
);
