import styled, { css } from 'styled-components';

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
