import styled from 'styled-components';

const List = styled.dl`
  display: grid;
  grid-template-columns: minmax(72px, auto) 1fr;
  gap: 3px 14px;
  font-size: 14px;
  div {
    display: contents;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    font-weight: 550;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  @media (max-width: 480px) {
    grid-template-columns: 1fr;
    gap: 0;
    dd {
      margin-bottom: 5px;
    }
  }
`;

/** What the core says about something, line by line. */
export function Facts({ facts, name }: { facts: { about: string; says: string }[]; name: string }) {
  return (
    <List aria-label={name}>
      {facts.map((fact) => (
        <div key={fact.about}>
          <dt>{fact.about}</dt>
          <dd>{fact.says}</dd>
        </div>
      ))}
    </List>
  );
}
