import { createContext, useContext } from 'react';
import type { Path } from './machine/change';
import type { Runner } from './runner';

/** The document that fields under it belong to, and the part of it they are in. */
type OpenDocument = {
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a field knows its own number and nothing else of it
  session: Runner<any, any, any>;
  scope: Path;
  /** The type of that part, as the catalogue calls it. */
  of: string;
};

export const DocumentContext = createContext<OpenDocument | undefined>(undefined);

export function useDocument(): OpenDocument {
  const document = useContext(DocumentContext);
  if (!document) throw new Error('a field is for parts within an open document');
  return document;
}
