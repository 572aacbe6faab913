import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { FieldName } from '../../api/fields';
import { useStart } from '../../api/start';
import { Field } from '../../session/fields/Field';
import { useLivePlan, useSetup } from '../../session/job';
import { FieldName as Name } from '../../ui/field';
import { Grid, Lead, Panel, Quiet } from '../../ui/Panel';
import { forFingers, radius, space, type } from '../../ui/tokens';
import { StepTitle } from '../workbench/StepTitle';
import { blendKind } from '../workbench/steps';

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
  border-radius: ${radius.card}px;
  padding: 9px 12px;
  cursor: pointer;
  background: var(--panel);
  ${forFingers}
  strong {
    display: block;
    font-weight: 650;
  }
  span {
    color: var(--quiet);
    font-size: ${type.note}px;
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
const Ratio = styled(Quiet)`
  margin-top: ${space.part}px;
`;

/** How flash and the light that is there go together. */
export default function BlendStep() {
  const { setup, set } = useSetup();
  const start = useStart();
  const kind = blendKind(setup.blend);
  const offer = start?.blends.find((one) => one.kind === kind);
  return (
    <Panel>
      <StepTitle>Blend</StepTitle>
      <Lead>Choose how the flash and the light that is there go together, or drag the marks on the stop rail.</Lead>
      <Choices
        value={kind}
        onChange={(chosen) => {
          const to = start?.blends.find((one) => one.kind === chosen);
          if (to && chosen !== kind) set(`Blend: ${to.name}`, ['blend'], to.blend);
        }}
      >
        <Label>
          <Name>Blend</Name>
        </Label>
        {start?.blends.map((one) => (
          <One key={one.kind} value={one.kind}>
            <strong>{one.name}</strong>
            <span>{one.meaning}</span>
          </One>
        ))}
      </Choices>
      <Grid>
        {offer?.fields.map(({ field, name }) => (
          <Field
            key={`${kind}/${field}`}
            of={`Blend.${kind}.${field}` as FieldName}
            at={['blend', kind, field]}
            says={`${offer.name}: ${name.toLowerCase()}`}
          />
        ))}
      </Grid>
      <Contrast />
    </Panel>
  );
}

/** What the blend does to the contrast of the face. */
function Contrast() {
  const ratio = useLivePlan((plan) => plan.ratio);
  if (!ratio) return null;
  return (
    <Ratio>
      Lit side over shadow side, in stops: {ratio.before.label} by the ambient alone, {ratio.after.label} as planned.
    </Ratio>
  );
}
