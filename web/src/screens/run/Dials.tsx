import styled from 'styled-components';
import type { RunDials, RunSheet } from '../../api/client';
import { figures, narrow, space } from '../../ui/tokens';

const Whole = styled.section`
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  padding: ${space.gap}px ${space.part}px;
  margin: -${space.gap}px -${space.gap}px 0;
  display: grid;
  gap: 2px;
`;
const Camera = styled.p`
  ${figures}
  font-size: 38px;
  line-height: 1.1;
  font-weight: 700;
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
  ${narrow} {
    font-size: 31px;
    gap: 0 16px;
  }
`;
const Lights = styled.ul`
  ${figures}
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
  font-size: 21px;
  font-weight: 650;
  li > span {
    color: var(--flash);
  }
  small {
    font-size: 16px;
    font-weight: 500;
  }
`;

/** What to set now, and only that. */
export function Dials({ dials, sheet }: { dials: RunDials; sheet: RunSheet }) {
  return (
    <Whole aria-label="What to set">
      <Camera>
        <span>{dials.shutter}</span>
        <span>{dials.aperture}</span>
        <span>{dials.iso}</span>
      </Camera>
      <Lights>
        {dials.lights.map((light) => (
          <li key={light.light_id}>
            <span>
              <svg width="13" height="13" viewBox="0 0 10 10" aria-hidden>
                <path d="M5 0l5 5-5 5-5-5z" fill="currentColor" />
              </svg>{' '}
              {light.light_id}
            </span>{' '}
            {light.power} {light.distance && <small>{light.distance}</small>}
          </li>
        ))}
        <li>
          {sheet.white_balance}
          {sheet.filter && `, ${sheet.filter}`}
        </li>
      </Lights>
    </Whole>
  );
}
