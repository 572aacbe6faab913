import { Minus, Plus } from 'lucide-react';
import { type KeyboardEvent, useId } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { boxLook, fieldLook, FieldName, Hint, Wrong } from './field';
import { coarse, figures, radius, space, touch, type } from './tokens';

const Whole = styled.div`
  ${fieldLook}
`;
const NameLine = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: ${space.near}px;
`;
const Action = styled(AriaButton)`
  border: none;
  background: none;
  padding: 0;
  font-size: ${type.note}px;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  border-radius: ${radius.small}px;
  white-space: nowrap;
  ${coarse} {
    min-height: ${touch}px;
    min-width: ${touch}px;
  }
`;
const Line = styled.div`
  display: flex;
  align-items: stretch;
  gap: ${space.hair}px;
`;
const Box = styled.input`
  ${boxLook} ${figures} font-size: ${type.lead}px;
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
  border-radius: ${radius.control}px;
  background: var(--panel);
  padding: 0;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  cursor: pointer;
  &[data-hovered] {
    background: var(--chosen);
  }
  ${coarse} {
    width: ${touch}px;
  }
`;

/** What a spin button says of itself to those who hear it. */
export type Spin = { now?: number | undefined; says?: string; least?: number; most?: number };

type Props = {
  name: string;
  /** What stands in it. */
  text: string;
  placeholder?: string | undefined;
  hint?: string | undefined;
  wrong?: string | undefined;
  /** Something about the text that is no mistake: that it waits. */
  note?: string | undefined;
  spin?: Spin;
  /** Which keyboard a phone shows. */
  keyboard?: 'decimal' | 'numeric' | 'text';
  onText: (text: string) => void;
  /** Enter was pressed or the field was left. */
  onFinish: () => void;
  onEscape: () => void;
  /** By so many steps; left out where it is not stepped. */
  onStep?: ((by: number) => void) | undefined;
  /** Something to do with the field as a whole, beside its name. */
  action?: { name: string; run: () => void } | undefined;
};

/** A number as photographers write it, with a step to either side. What it means is for whoever uses it to say. */
export function TypedBox(props: Props) {
  const { name, text, placeholder, hint, wrong, note, spin, keyboard = 'text', onStep, action } = props;
  const own = useId();
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') props.onFinish();
    if (event.key === 'Escape') props.onEscape();
    const by = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (by !== 0 && onStep) {
      event.preventDefault();
      onStep(event.shiftKey ? by * 3 : by);
    }
  };
  const told = wrong ?? note ?? hint;
  return (
    <Whole>
      <NameLine>
        <label htmlFor={own}>
          <FieldName>{name}</FieldName>
        </label>
        {action && (
          <Action onPress={action.run} aria-label={`${name}: ${action.name}`}>
            {action.name}
          </Action>
        )}
      </NameLine>
      <Line>
        {onStep && (
          <StepButton aria-label={`${name}: less`} onPress={() => onStep(-1)} excludeFromTabOrder>
            <Minus size={16} aria-hidden />
          </StepButton>
        )}
        <Box
          id={own}
          value={text}
          placeholder={placeholder}
          inputMode={keyboard}
          enterKeyHint="done"
          aria-invalid={wrong !== undefined}
          {...(wrong === undefined ? {} : { 'aria-errormessage': `${own}-more` })}
          {...(told === undefined ? {} : { 'aria-describedby': `${own}-more` })}
          {...(spin ? spinning(spin) : {})}
          onChange={(event) => props.onText(event.target.value)}
          onBlur={props.onFinish}
          onFocus={(event) => event.target.select()}
          onKeyDown={onKeyDown}
          autoComplete="off"
          spellCheck={false}
        />
        {onStep && (
          <StepButton aria-label={`${name}: more`} onPress={() => onStep(1)} excludeFromTabOrder>
            <Plus size={16} aria-hidden />
          </StepButton>
        )}
      </Line>
      {told !== undefined && (
        <span id={`${own}-more`}>
          {wrong !== undefined ? (
            <Wrong role="alert">{wrong}</Wrong>
          ) : note ? (
            <Wrong role="status">{note}</Wrong>
          ) : (
            <Hint>{hint}</Hint>
          )}
        </span>
      )}
    </Whole>
  );
}

function spinning({ now, says, least, most }: Spin) {
  return {
    role: 'spinbutton',
    ...(now === undefined ? {} : { 'aria-valuenow': now }),
    ...(says === undefined || says === '' ? {} : { 'aria-valuetext': says }),
    ...(least === undefined ? {} : { 'aria-valuemin': least }),
    ...(most === undefined ? {} : { 'aria-valuemax': most }),
  };
}
