// How the stage is asked to look: at a face, from a standpoint, at the whole.

/** Filled in by the stage that is shown. */
export const looking: { at: (name: string) => void } = { at: () => {} };

/** Looks square at the face that is called so. */
export const lookAt = (name: string): void => looking.at(name);
