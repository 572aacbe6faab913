import styled from 'styled-components';
import type { GlassReport } from '../../api/client';
import { lightOf } from '../../instruments/map-of-light/things';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Offers } from '../../ui/Offers';
import { Panel, Part } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const Outside = styled.p`
  margin-top: ${space.near}px;
  color: var(--quiet);
`;

type All = NonNullable<GlassReport['remedies']>;

/** The least that clears each thing that shows, with what it costs, one press away. */
export function Remedies({ all, stale }: { all: All; stale: boolean }) {
  return all.map((of) => <Of key={of.name} of={of} stale={stale} />);
}

function Of({ of, stale }: { of: All[number]; stale: boolean }) {
  const { take, ask } = useSetup();
  const plate = { lights_off: of.plate_lights_off, people_out: of.plate_people_out };
  return (
    <Panel>
      <Part>{lightOf(of.what) ? `Light ${of.name}` : of.name}: the least that helps</Part>
      <p>{of.says}</p>
      <Offers aria-label={`What clears ${of.name}, the cheapest first`}>
        {of.offers.map((offer, index) => (
          <li key={offer.does}>
            <p>
              <strong>{offer.does}</strong>
              <small>{offer.costs}</small>
            </p>
            <Button
              kind={index === 0 ? 'strong' : 'plain'}
              aria-label={`Do this: ${offer.does}`}
              isDisabled={stale}
              onPress={() => take(offer.does, offer.setup)}
            >
              Do this
            </Button>
          </li>
        ))}
        <li>
          <p>
            <strong>Keep it as a clean plate</strong>
            <small>{of.plate_says}</small>
          </p>
          <Button
            kind={of.offers.length === 0 ? 'strong' : 'plain'}
            aria-label={`Add a clean plate for ${of.name}`}
            onPress={() => ask('Clean plate', { set: { plate } }, 'frames/plate')}
          >
            Add the plate
          </Button>
        </li>
      </Offers>
      {of.outside.map((one) => (
        <Outside key={one}>{one}</Outside>
      ))}
    </Panel>
  );
}
