import type { Act, Session } from './machine/state';

/** What was done and is not known to be saved, as this browser keeps it. Tolva of before kept the whole document. */
type Kept<T, C> = {
  based_on: number;
  says: string;
  base?: T;
  queue?: readonly Act<C>[];
  document?: T;
};

const draftPlace = (id: string) => `tolva.draft.${id}`;
const asidePlace = (id: string) => `tolva.aside.${id}`;
const textsPlace = (id: string) => `tolva.texts.${id}`;

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

export function readDraft<T, C>(id: string): Kept<T, C> | undefined {
  const draft = read<Kept<T, C> & { job?: T; change?: string }>(draftPlace(id));
  if (!draft) return undefined;
  const document = draft.document ?? draft.job;
  return { ...draft, says: draft.change ?? 'A change of before', ...(document === undefined ? {} : { document }) };
}

export const writeDraft = <T, C>(id: string, draft: Omit<Kept<T, C>, 'says'>) => write(draftPlace(id), draft);
export const clearDraft = (id: string) => write(draftPlace(id), undefined);

/** A draft that cannot be read stays in this browser under another name. */
export function setAside(id: string) {
  write(asidePlace(id), read(draftPlace(id)));
  clearDraft(id);
}
export const readAside = (id: string): string | undefined => {
  const aside = read(asidePlace(id));
  return aside === undefined ? undefined : JSON.stringify(aside);
};
export const clearAside = (id: string) => write(asidePlace(id), undefined);

/** Texts in fields that are not set yet. */
type Texts = Session<unknown, unknown, unknown>['texts'];
export const readTexts = (id: string): Texts => read<Texts>(textsPlace(id)) ?? {};
export const writeTexts = (id: string, texts: Texts) =>
  write(textsPlace(id), Object.keys(texts).length === 0 ? undefined : texts);

/** Text of a field that belongs to no document. */
export const readTyped = (field: string) => read<string>(`tolva.typed.${field}`);
export const writeTyped = (field: string, text: string | undefined) => write(`tolva.typed.${field}`, text);
