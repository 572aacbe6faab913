import styled from 'styled-components';
import type { Plan } from '../../api/client';

import { Lead } from '../../ui/Panel';
import { Facts } from '../../ui/Facts';
import { Sheet } from '../../ui/Sheet';
import { Table } from '../../ui/Table';
import { figures } from '../../ui/tokens';

const Sums = styled(Table)`
  font-size: 14px;
  td.sum {
    ${figures} color: var(--quiet);
  }
  td.gives {
    ${figures} text-align: right;
    font-weight: 620;
    white-space: nowrap;
    padding-right: 0;
  }
  th:last-child {
    text-align: right;
    padding-right: 0;
  }
  @media (max-width: 560px) {
    thead {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: 1fr auto;
      border-top: 1px solid var(--line);
      padding: 6px 0;
    }
    td {
      border: none;
      padding: 0;
    }
    td.about {
      grid-column: 1 / -1;
      font-size: 13px;
      color: var(--quiet);
    }
    td.says {
      grid-column: 1 / -1;
    }
  }
`;

const Part = styled.h3`
  font-size: 15px;
  margin: 16px 0 6px;
`;

/** The arithmetic behind a plan, line by line. */
export default function Workings({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  return (
    <Sheet title="Workings" open onClose={onClose} width={860}>
      <Lead>Numbers without a unit are stops.</Lead>
      <Sums>
        <thead>
          <tr>
            <th>About</th>
            <th>In words</th>
            <th>Sum</th>
            <th>Gives</th>
          </tr>
        </thead>
        <tbody>
          {plan.workings.map((line, index) => (
            <tr key={index}>
              <td className="about">{index > 0 && plan.workings[index - 1]?.about === line.about ? '' : line.about}</td>
              <td className="says">{line.says}</td>
              <td className="sum">{line.sum}</td>
              <td className="gives">{line.gives}</td>
            </tr>
          ))}
        </tbody>
      </Sums>
      <Part>How sure it is</Part>
      <Facts name="How sure it is" facts={plan.certainty} />
      <Part>What automatics would do</Part>
      <Facts name="What automatics would do" facts={plan.automatic} />
    </Sheet>
  );
}
