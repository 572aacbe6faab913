import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Blend, Plan } from '../../api/client';
import { useStart } from '../../app/start';
import { useJob, useSetup } from '../../jobs/JobContext';
import { FieldName } from '../../ui/field';
import { Grid, Lead, Panel, Title } from '../../ui/Panel';
import { TypedField } from '../../ui/TypedField';
import { blendKind, blendNumbers, withNumber } from './blend';
import { rangeOf, type Ranged } from '../../api/ranges';

const Choices = styled(RadioGroup)`
  display: grid;
  gap: 8px;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 220px), 1fr));
  margin-bottom: 16px;
  > :first-child {
    grid-column: 1 / -1;
  }
`;
const One = styled(Radio)`
  border: 1px solid var(--control-line);
  border-radius: 9px;
  padding: 9px 12px;
  cursor: pointer;
  background: var(--panel);
  strong {
    display: block;
    font-weight: 650;
  }
  span {
    color: var(--quiet);
    font-size: 13.5px;
  }
  &[data-hovered] {
    background: var(--chosen);
  }
  &[data-selected] {
    outline: 2.5px solid var(--ink);
    outline-offset: -1px;
    background: var(--chosen);
  }
  &[data-focus-visible] {
    box-shadow:
      0 0 0 2px var(--panel),
      0 0 0 5px var(--focus);
  }
`;

const hints: Record<string, string> = {
  fill_stops: '0 for contrasty light, −2 for flat light.',
  background_stops: 'Where what lies behind is to be.',
  subject_stops: 'Where the lit side is to be.',
  ambient_stops: 'Where the ambient alone puts the lit side.',
};

/** How flash and the light that is there go together. */
export function BlendStep({ plan }: { plan: Plan }) {
  const { id } = useJob();
  const { setup, change } = useSetup();
  const start = useStart();
  const kind = blendKind(setup.blend);
  const offer = start?.blends.find((one) => one.kind === kind);
  const numbers = blendNumbers(setup.blend);
  return (
    <Panel>
      <Title>Blend</Title>
      <Lead>Choose how the flash and the light that is there go together, or drag the marks on the stop rail.</Lead>
      <Choices
        value={kind}
        onChange={(chosen) => {
          const to = start?.blends.find((one) => one.kind === chosen);
          if (to && chosen !== kind) change(`Blend: ${to.name}`, (one) => ({ ...one, blend: to.blend as Blend }));
        }}
      >
        <Label>
          <FieldName>Blend</FieldName>
        </Label>
        {start?.blends.map((one) => (
          <One key={one.kind} value={one.kind}>
            <strong>{one.name}</strong>
            <span>{one.meaning}</span>
          </One>
        ))}
      </Choices>
      <Grid>
        {offer?.fields.map((field) => (
          <TypedField
            key={`${kind}/${field.field}`}
            name={`${field.name}, stops`}
            as="stops"
            value={numbers[field.field]}
            {...rangeOf(`Blend.${kind}.${field.field}` as Ranged)}
            keptAs={`${id}/${setup.id}/blend/${kind}/${field.field}`}
            hint={hints[field.field]}
            onValue={(understood) =>
              change(`${offer.name}: ${field.name.toLowerCase()}`, (one) => ({
                ...one,
                blend: withNumber(one.blend, field.field, understood.value),
              }))
            }
          />
        ))}
      </Grid>
      {plan.ratio && (
        <p style={{ marginTop: 12, color: 'var(--quiet)' }}>
          Lit side over shadow side, in stops: {plan.ratio.before.label} by the ambient alone, {plan.ratio.after.label}{' '}
          as planned.
        </p>
      )}
    </Panel>
  );
}
