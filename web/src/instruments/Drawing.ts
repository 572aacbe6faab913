import styled from 'styled-components';
import { figures, type } from '../ui/tokens';

/**
 * What an instrument is drawn in, with its lettering. By touch only its handles are taken hold of: everywhere else the
 * page scrolls.
 */
export const Drawing = styled.svg`
  display: block;
  width: 100%;
  touch-action: auto;
  user-select: none;
  overflow: visible;
  text {
    fill: var(--ink);
    font-size: ${type.note}px;
  }
  text.quiet {
    fill: var(--quiet);
    font-size: ${type.small}px;
  }
  && text.letter {
    ${figures} fill: var(--panel);
    font-size: ${type.small}px;
    font-weight: 700;
  }
  text.flash {
    fill: var(--flash);
  }
  text.figure {
    ${figures}
  }
`;
