import type { Change, Path } from './change';

/** A document as the server keeps it. */
export type Body<T> = {
  revision: number;
  saved_at: string;
  undo?: string | null;
  redo?: string | null;
  document: T;
};

/** Something done to the document that the server does not know yet. `key` makes it the same act when it is sent again. */
export type Act<C> =
  | { readonly key: string; readonly kind: 'edit'; readonly says: string; readonly changes: readonly Change[] }
  | ({ readonly key: string; readonly kind: 'ask'; readonly interim: readonly Change[] } & Wish<C>)
  | { readonly key: string; readonly kind: 'undo' | 'redo' };

/** What is asked of the server: it knows the rules, and answers with the document as it is then. */
export type Wish<C> = {
  /** What it is about: a field, a mark. One thing at a time is held by it. */
  readonly target: string;
  /** What is done, in words, for undo. */
  readonly says: string;
  /** The part of the document that is sent and comes back. */
  readonly scope: Path;
  readonly command: C;
  /** What was typed, where it was. */
  readonly text?: string;
};

/** A command that is still open: a mark under the pointer, a field that is typed into. Each new wish takes its place. */
export type Held<C> = Wish<C> & {
  /** Counts the wishes, so that an answer is known to be the last one's. */
  readonly wish: number;
  /** The wish that was answered last, and what it changes. */
  readonly answered: { readonly wish: number; readonly changes: readonly Change[] } | undefined;
  readonly refused: { readonly wish: number; readonly message: string } | undefined;
};

/** A text in a field: being typed, finished and waiting for the server, or wrong. */
export type Text = { readonly text: string; readonly state: 'typing' | 'waiting' | 'wrong'; readonly message?: string };

/** What went wrong with a request. */
export type Failure<T> =
  | { readonly kind: 'lost' | 'full'; readonly message: string }
  | { readonly kind: 'wrong'; readonly message: string; readonly problem: unknown }
  | { readonly kind: 'overtaken'; readonly message: string; readonly theirs: Body<T> | undefined };

/** A plan, and what it is of. */
export type Planned<P> = {
  readonly plan: P;
  readonly scope: Path;
  /** The part of the document as it was planned. */
  readonly of: unknown;
  readonly context: unknown;
  /** When it came, in milliseconds of the runner's clock. */
  readonly at: number;
};

/** What is looked at, and what else its plan depends on. */
export type View = { readonly scope: Path; readonly context: unknown };

export type Session<T, C, P> = {
  /** What the server has; nothing while it is being opened. */
  readonly saved: Body<T> | undefined;
  /** What the server does not have yet, in order. */
  readonly queue: readonly Act<C>[];
  readonly held: Held<C> | undefined;
  readonly texts: { readonly [target: string]: Text };
  /** What could not be done, by what it was about. */
  readonly told: { readonly [target: string]: string };
  readonly view: View | undefined;
  /** The last plan: also of what is held. */
  readonly plan: Planned<P> | undefined;
  /** The last plan of the document without what is held. */
  readonly settled: Planned<P> | undefined;
  /** Why there is no newer plan, and of what. */
  readonly unplanned: { readonly of: unknown; readonly context: unknown; readonly problem: unknown } | undefined;
  /** The request for a plan that is under way. */
  readonly asking: Asking<T> | undefined;
  /** The act that is being saved. */
  readonly saving: { readonly turn: number } | undefined;
  readonly turn: number;
  /** The server does not answer: since when, and whether it is being tried again. */
  readonly lost:
    { readonly since: number; readonly message: string; readonly trying: boolean; readonly times: number } | undefined;
  /** The disk is full: the save is tried again. */
  readonly full: boolean;
  /** Why the first act of the queue is not taken by the server. */
  readonly refused: string | undefined;
  /** What somebody else saved in the meantime, until one of the two is chosen. */
  readonly conflict: Body<T> | undefined;
  /** Why it could not be opened. */
  readonly closed: unknown;
  /** The document with the queue: what is edited. */
  readonly kept: T | undefined;
  /** The same with what is held. */
  readonly shown: T | undefined;
};

export type Asking<T> = {
  readonly turn: number;
  readonly what: 'act' | 'held' | 'plan';
  /** Of what is held: which wish. */
  readonly wish: number;
  /** Of what is held: what by. */
  readonly target: string | undefined;
  /** Of an act: which. */
  readonly act: string | undefined;
  readonly scope: Path;
  readonly of: T;
  readonly context: unknown;
};

/** What is to be done outside. */
export type Effect<T, C> =
  | {
      readonly do: 'save';
      readonly turn: number;
      readonly key: string;
      readonly based_on: number;
      readonly says: string;
      readonly document: T;
    }
  | {
      readonly do: 'step';
      readonly turn: number;
      readonly key: string;
      readonly based_on: number;
      readonly which: 'undo' | 'redo';
    }
  | {
      readonly do: 'ask';
      readonly turn: number;
      readonly document: T;
      readonly scope: Path;
      readonly command: C | undefined;
      readonly context: unknown;
    }
  | { readonly do: 'wait'; readonly milliseconds: number; readonly then: 'retry' }
  | { readonly do: 'wait'; readonly milliseconds: number; readonly then: 'rested'; readonly wish: number };

/** What was not saved when the window was closed. */
export type Draft<T, C> = { readonly based_on: number; readonly base: T; readonly queue: readonly Act<C>[] };

export type Event<T, C, P> =
  | {
      readonly type: 'opened';
      readonly body: Body<T>;
      readonly draft?: Draft<T, C> | undefined;
      readonly texts?: Session<T, C, P>['texts'];
    }
  | { readonly type: 'closed'; readonly problem: unknown }
  /** A change that needs no rule. */
  | { readonly type: 'edit'; readonly says: string; readonly changes: readonly Change[]; readonly target?: string }
  /** A command the server carries out. */
  | ({ readonly type: 'ask' } & Wish<C>)
  /** A command that stays open: `rests` closes it when it has not moved for a while. */
  | ({ readonly type: 'hold'; readonly rests?: number } & Wish<C>)
  /** A text that is kept and not understood yet: an empty field, words. */
  | { readonly type: 'write'; readonly target: string; readonly text: string; readonly message?: string }
  | { readonly type: 'letGo'; readonly target?: string }
  | { readonly type: 'cancel'; readonly target: string }
  | { readonly type: 'undo' | 'redo' }
  | { readonly type: 'saved'; readonly turn: number; readonly body: Body<T> }
  | { readonly type: 'unsaved'; readonly turn: number; readonly failure: Failure<T> }
  | { readonly type: 'answered'; readonly turn: number; readonly document: T; readonly plan: P | undefined }
  | { readonly type: 'unanswered'; readonly turn: number; readonly failure: Failure<T> }
  | { readonly type: 'retry' }
  | { readonly type: 'rested'; readonly wish: number }
  | { readonly type: 'keep'; readonly which: 'mine' | 'theirs' }
  /** The document as it is on the server by another way: a file that was imported, a state of before. */
  | { readonly type: 'took'; readonly body: Body<T> }
  /** The document as it was looked up again: taken where nothing of here is in the way. */
  /** What somebody may have saved: asked for when the revision `since` was the last that was known here. */
  | { readonly type: 'seen'; readonly since: number; readonly body: Body<T> }
  | { readonly type: 'look'; readonly view: View | undefined }
  /** A plan that was kept from another time. */
  | { readonly type: 'remembered'; readonly planned: Planned<P> };

/** An event with the runner's clock, and a key no other event has. */
export type Stamped<T, C, P> = Event<T, C, P> & { readonly at: number; readonly key: string };
