/** What was edited and is not yet known to be saved, kept in this browser so that a closed tab loses nothing. */
export type Draft<T> = { based_on: number; change: string; document: T };

const place = (id: string) => `tolva.draft.${id}`;
const typedPlace = (field: string) => `tolva.typed.${field}`;

function read<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(key);
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch {
    return undefined;
  }
}

function write(key: string, value: unknown) {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // A browser that keeps nothing still has the edit on its screen, and the server is asked to save it at once.
  }
}

export function readDraft<T>(id: string): Draft<T> | undefined {
  // Tolva of before kept jobs only, and called the document `job`.
  const draft = read<Draft<T> & { job?: T }>(place(id));
  return draft && { ...draft, document: draft.document ?? (draft.job as T) };
}
export const writeDraft = (id: string, draft: Draft<unknown> | undefined) => write(place(id), draft);

/** Text that was typed into a field and not understood. */
export const readTyped = (field: string) => read<string>(typedPlace(field));
export const writeTyped = (field: string, text: string | undefined) => write(typedPlace(field), text);
