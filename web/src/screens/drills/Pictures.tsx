import styled from 'styled-components';
import type { Drills } from '../../api/client';
import { Quiet } from '../../ui/Panel';
import { narrow, space, type } from '../../ui/tokens';

const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: ${space.gap}px;
  ${narrow} {
    grid-template-columns: 1fr 1fr;
  }
  figure {
    margin: 0;
  }
  figure:only-child {
    max-width: 480px;
    grid-column: 1 / -1;
  }
  img {
    display: block;
    width: 100%;
    aspect-ratio: 3 / 2;
    background: var(--raised);
  }
  figcaption {
    font-size: ${type.note}px;
    color: var(--quiet);
  }
`;

/** The pictures that belong to a drill, computed as the proof is. */
export function Pictures({ drill }: { drill: Drills['drills'][number] }) {
  const { skill, level, seed, pictures } = drill;
  if (pictures === 0) return null;
  const names =
    drill.rail.length > 0
      ? ['Picture 1', 'Picture 2', 'Picture 3', 'Picture 4']
      : pictures > 1
        ? ['As it was wished', 'As it came']
        : ['As it came'];
  return (
    <>
      <Row>
        {Array.from({ length: pictures }, (_, of) => (
          <figure key={of}>
            <img
              src={`/api/v1/drills/picture.jpg?skill=${skill.code}&level=${level}&seed=${seed}&of=${of}`}
              alt={names[of]}
            />
            <figcaption>{names[of]}</figcaption>
          </figure>
        ))}
      </Row>
      <Quiet>Computed pictures: estimates.</Quiet>
    </>
  );
}
