import styled, { css } from 'styled-components';
import { forFingers, radius } from './tokens';

/** What every field shares. */
export const fieldLook = css`
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
`;

export const FieldName = styled.span`
  font-size: 13px;
  color: var(--quiet);
`;

export const boxLook = css`
  width: 100%;
  min-height: 36px;
  padding: 5px 10px;
  border: 1px solid var(--control-line);
  border-radius: 7px;
  background: var(--raised);
  color: var(--ink);
  @media (pointer: coarse) {
    min-height: 44px;
    font-size: 16px;
  }
`;

/** What is chosen, with the arrow that opens the rest. */
export const choiceLook = css`
  ${boxLook}
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  text-align: left;
  cursor: pointer;
  svg {
    flex: none;
  }
`;

/** One of a row of which one is shown: a light's letter, a thing of the set. */
export const chipLook = css`
  min-height: 36px;
  padding: 4px 12px;
  border: 1px solid var(--control-line);
  border-radius: ${radius.control}px;
  cursor: pointer;
  display: inline-flex;
  align-items: center;
  &[data-selected] {
    background: var(--ink);
    color: var(--panel);
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: 2px;
  }
  ${forFingers}
`;

export const wrongLook = css`
  font-size: 13px;
  border-left: 3px solid var(--ink);
  padding-left: 7px;
  margin-top: 2px;
`;

export const Wrong = styled.span`
  ${wrongLook}
`;

export const Hint = styled.span`
  font-size: 13px;
  color: var(--quiet);
`;

/** A hint on a line of its own. */
export const HintLine = styled(Hint)`
  display: block;
`;
