// The one place that talks to the server. Types are generated from its OpenAPI description.
import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Piece = Schemas['Piece'];
export type Operation = Schemas['Operation'];
export type CallOut = Schemas['CallOut'];
export type BuildAnswer = Schemas['BuildAnswer'];
export type MeshView = Schemas['MeshView'];
export type PieceView = Schemas['PieceView'];
export type Finding = Schemas['Finding'];
export type Why = Schemas['Why'];
export type LengthUnit = Schemas['LengthUnit'];
export type Problem = Schemas['Problem'];

export const client = createClient<paths>({ baseUrl: window.location.origin });

/** A refusal with the server's own words; status 0 when the server could not be reached. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

const unreachable: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  detail: 'The server does not answer. Your work is kept here; try again when it is back.',
};

/** The data of an answer, or a Refusal. */
export async function must<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new Refusal(unreachable);
  }
  if (result.error !== undefined || !result.response.ok) {
    const problem = result.error as Partial<Problem> | undefined;
    throw new Refusal({
      ...unreachable,
      title: 'Refused',
      status: result.response.status,
      detail: `The server answered ${result.response.status}.`,
      ...(typeof problem === 'object' ? problem : {}),
    });
  }
  return result.data as T;
}

/** Sends a file as it is; for drawings and job files. */
export async function sendFile(method: string, url: string, file: Blob): Promise<unknown> {
  return must(
    fetch(url, { method, body: file, headers: { 'Content-Type': 'application/octet-stream' } }).then(
      async (response) => {
        const text = await response.text();
        const body: unknown = text ? JSON.parse(text) : undefined;
        return response.ok ? { data: body ?? null, response } : { error: body, response };
      },
    ),
  );
}

export const words = (fault: unknown): string => (fault instanceof Error ? fault.message : String(fault));
