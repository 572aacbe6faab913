import styled from 'styled-components';
import type { DrillProgress } from '../../api/client';
import { Button } from '../../ui/Button';
import { Panel, Part, Quiet, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { figures, narrow, space } from '../../ui/tokens';
import { useState } from 'react';
import { Weeks } from './Weeks';

const List = styled.ul`
  margin-top: ${space.gap}px;
  li {
    border-top: 1px solid var(--line);
    padding: ${space.gap}px 0;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 150px auto;
    gap: ${space.gap}px;
    align-items: center;
    ${narrow} {
      grid-template-columns: minmax(0, 1fr) auto;
    }
  }
  b {
    ${figures}
  }
`;
/** On a phone the picture of the weeks stands under the words. */
const Picture = styled.div`
  ${narrow} {
    grid-row: 2;
    grid-column: 1 / -1;
  }
`;

type Props = { progress: DrillProgress; begin: (skill?: string, level?: number) => void };

/** Each skill: how it goes, when it comes back, and ten of it now. */
export function Skills({ progress, begin }: Props) {
  const [level, setLevel] = useState('next');
  return (
    <Panel aria-labelledby="skills">
      <Row $apart>
        <Part as="h2" id="skills">
          Skill by skill
        </Part>
        <Segments
          name="Level"
          value={level}
          options={[
            { id: 'next', label: 'Where I am' },
            ...progress.levels.map(({ number, name }) => ({ id: String(number), label: `${number} ${name}` })),
          ]}
          onChange={setLevel}
        />
      </Row>
      <List aria-label="Skills">
        {progress.skills.map((one) => (
          <li key={one.skill.code}>
            <span>
              <strong>{one.skill.name}</strong>
              <Quiet>
                Level {one.level}. {one.says}
              </Quiet>
            </span>
            <Picture>
              <Weeks weeks={one.weeks} name={one.skill.name} />
            </Picture>
            <Button
              kind={one.due ? 'strong' : undefined}
              aria-label={`Practise: ${one.skill.name}`}
              onPress={() => begin(one.skill.code, level === 'next' ? undefined : Number(level))}
            >
              Practise
            </Button>
          </li>
        ))}
      </List>
      <Quiet>
        Each bar is a week: as high as the part that was right, and the line over it the mean error in stops where there
        is one, two stops at the top.
      </Quiet>
    </Panel>
  );
}
