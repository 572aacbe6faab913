import { css } from 'styled-components';
import { figures, type } from '../../ui/tokens';

/** A setting on the dial card. */
export const cellLook = css`
  padding: 9px 12px 7px;
  display: flex;
  flex-direction: column;
  min-width: 0;
`;

/** Its value: read at arm's length. */
export const cellValueLook = css`
  ${figures} font-size: ${type.figure}px;
  line-height: 1.15;
  font-weight: 620;
  white-space: nowrap;
`;
