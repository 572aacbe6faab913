import styled from 'styled-components';
import { figures } from '../app/theme';

/** What an instrument is drawn in, with its lettering. */
export const Drawing = styled.svg`
  display: block;
  width: 100%;
  touch-action: pan-y;
  user-select: none;
  overflow: visible;
  text {
    fill: var(--ink);
    font-size: 13px;
  }
  text.quiet {
    fill: var(--quiet);
    font-size: 12.5px;
  }
  && text.letter {
    ${figures} fill: var(--panel);
    font-size: 12.5px;
    font-weight: 700;
  }
  text.figure {
    ${figures}
  }
`;
