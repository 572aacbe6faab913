import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { Minus, Plus } from 'lucide-react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { answered, api, ApiProblem, type Meant, type Understood } from '../api/client';
import { usePreferences } from '../app/preferences';
import { figures } from '../app/theme';
import { readTyped, writeTyped } from '../jobs/drafts';
import { boxLook, fieldLook, FieldName, Hint, Wrong } from './field';

const Whole = styled.div`
  ${fieldLook}
`;
const NameLine = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
`;
const Action = styled(AriaButton)`
  border: none;
  background: none;
  padding: 0;
  font-size: 13px;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  border-radius: 3px;
  white-space: nowrap;
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;
const Line = styled.div`
  display: flex;
  align-items: stretch;
  gap: 4px;
`;
const Box = styled.input`
  ${boxLook} ${figures} font-size: 16px;
  min-width: 0;
  flex: 1;
  &[aria-invalid='true'] {
    border-width: 2px;
    border-color: var(--ink);
  }
`;
const StepButton = styled(AriaButton)`
  width: 36px;
  border: 1px solid var(--control-line);
  border-radius: 7px;
  background: var(--panel);
  padding: 0;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  cursor: pointer;
  &[data-hovered] {
    background: var(--chosen);
  }
  @media (pointer: coarse) {
    width: 44px;
  }
`;

/** The label the core gives a number. */
export function useLabel(as: Meant, value: number | null | undefined): string {
  const { show } = usePreferences();
  const length = show.length ?? 'metres';
  const { data } = useQuery({
    queryKey: ['say', as, value, length],
    queryFn: () => answered(api.POST('/api/v1/say', { body: { as, value: value ?? 0, length } })),
    enabled: value !== null && value !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  return value === null || value === undefined ? '' : (data?.label ?? '');
}

type Props = {
  name: string;
  /** What it is: the core reads and writes it. */
  as: Meant;
  /** The number that stands; its label comes from the core. */
  value: number | null | undefined;
  /** Shown instead of the core's label, where there is no single number (a reading as it was given). */
  shown?: string;
  /** May answer, or promise, a text of what is wrong with it in its place: it then stays in the field. */
  onValue: (understood: Understood) => unknown;
  /** Where a text that was not understood is kept, so that a closed tab loses nothing. */
  keptAs: string;
  /** One step of the arrow keys; Shift takes three. */
  step?: number;
  hint?: string | undefined;
  placeholder?: string;
  least?: number;
  most?: number;
  /** The range in words, for a number outside it. */
  allowed?: string;
  /** Said only when the field is left or Enter is pressed, not at every letter. */
  whenFinished?: boolean;
  /** Something to do with the field as a whole, beside its name. */
  action?: { name: string; run: () => void } | undefined;
};

/** A number as photographers write it: typed in any notation, understood by the core, stepped by the arrow keys. */
export function TypedField(props: Props) {
  const { name, as, value, onValue, keptAs, hint, placeholder, least, most, allowed } = props;
  // Where there is no number yet, there is nothing to step from.
  const step = value === null || value === undefined ? undefined : props.step;
  const { show } = usePreferences();
  const length = show.length ?? 'metres';
  const said = useLabel(as, props.shown === undefined ? value : undefined);
  const label = props.shown ?? said;
  const [typed, setTyped] = useState<string | undefined>(() => readTyped(keptAs));
  const [wrong, setWrong] = useState<string>();
  const asked = useRef(0);
  const own = useId();

  /** The field shows what stands again. */
  const forget = () => {
    setTyped(undefined);
    setWrong(undefined);
    writeTyped(keptAs, undefined);
  };

  const understand = async (text: string, finished: boolean) => {
    const turn = ++asked.current;
    try {
      const understood = await answered(api.POST('/api/v1/read', { body: { as, text, length } }));
      if (turn !== asked.current) return;
      const outside =
        (least !== undefined && understood.value < least) || (most !== undefined && understood.value > most);
      if (outside) {
        setWrong(`“${text}” is not allowed here: it must be ${allowed ?? `from ${least} to ${most}`}.`);
        return;
      }
      const problem: unknown = await onValue(understood);
      if (turn !== asked.current) return;
      if (typeof problem === 'string') {
        if (finished) setWrong(problem);
        return;
      }
      setWrong(undefined);
      writeTyped(keptAs, undefined);
      if (finished) setTyped(undefined);
    } catch (failure) {
      if (turn !== asked.current) return;
      // While someone is still typing, half a number is no mistake.
      if (finished && failure instanceof ApiProblem) setWrong(failure.message);
    }
  };

  // A text that was not understood is still there after a reload, with what is wrong with it.
  const left = useRef(typed);
  useEffect(() => {
    if (left.current !== undefined) void understand(left.current, true);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, for what was left behind
  }, []);

  const change = (text: string) => {
    setTyped(text);
    if (text.trim() === '') return;
    // Kept at once: the answer may come when the tab is gone.
    writeTyped(keptAs, text);
    if (!props.whenFinished) void understand(text, false);
  };
  const finish = () => {
    if (typed === undefined) return;
    if (typed.trim() === '' || typed === label) {
      forget();
    } else void understand(typed, true);
  };
  const nudge = (by: number) => {
    if (step === undefined || value === null || value === undefined) return;
    const to = Math.round((value + by * step) / step) * step;
    const held = Math.min(most ?? to, Math.max(least ?? to, to));
    forget();
    onValue({ value: held, label: '' });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') finish();
    if (event.key === 'Escape') {
      forget();
    }
    const by = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (by !== 0 && step !== undefined) {
      event.preventDefault();
      nudge(event.shiftKey ? by * 3 : by);
    }
  };

  return (
    <Whole>
      <NameLine>
        <label htmlFor={own}>
          <FieldName>{name}</FieldName>
        </label>
        {props.action && (
          <Action onPress={props.action.run} aria-label={`${name}: ${props.action.name}`}>
            {props.action.name}
          </Action>
        )}
      </NameLine>
      <Line>
        {step !== undefined && (
          <StepButton aria-label={`${name}: less`} onPress={() => nudge(-1)} excludeFromTabOrder>
            <Minus size={16} aria-hidden />
          </StepButton>
        )}
        <Box
          id={own}
          value={typed ?? label}
          placeholder={placeholder}
          aria-invalid={wrong !== undefined}
          aria-describedby={`${own}-more`}
          onChange={(event) => change(event.target.value)}
          onBlur={finish}
          onFocus={(event) => event.target.select()}
          onKeyDown={onKeyDown}
          autoComplete="off"
          spellCheck={false}
        />
        {step !== undefined && (
          <StepButton aria-label={`${name}: more`} onPress={() => nudge(1)} excludeFromTabOrder>
            <Plus size={16} aria-hidden />
          </StepButton>
        )}
      </Line>
      <span id={`${own}-more`}>{wrong ? <Wrong role="alert">{wrong}</Wrong> : hint ? <Hint>{hint}</Hint> : null}</span>
    </Whole>
  );
}
