import { memo } from 'react';
import styled from 'styled-components';
import { Compass } from '../../instruments/compass/Compass';
import { DayStrip } from '../../instruments/day-strip/DayStrip';
import { useDay } from '../../instruments/day-strip/useDay';
import { Told } from '../../instruments/Told';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { useLivePlan, useSetup, useShownSetup } from '../../session/job';
import { Grid, Lead, Panel, Stack } from '../../ui/Panel';
import { narrow, type } from '../../ui/tokens';
import { StepTitle } from '../workbench/StepTitle';
import { Horizon } from './Horizon';
import { PlaceFinder } from './PlaceFinder';
import { Times } from './Times';
import { SurroundingsForm } from './SurroundingsForm';
import { WeatherForm } from './WeatherForm';
import { WhenFields } from './WhenFields';

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 236px;
  gap: 18px;
  margin-bottom: 6px;
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
  > * {
    margin: 0;
  }
`;
const Facts = styled.dl`
  display: grid;
  grid-template-columns: 66px 1fr;
  gap: 2px 8px;
  font-size: 14px;
  line-height: 1.3;
  dt {
    color: var(--quiet);
  }
`;
const Quiet = styled.span`
  color: var(--quiet);
`;
const Credit = styled.p`
  font-size: ${type.small}px;
  color: var(--quiet);
  margin-top: 12px;
`;

/** Where, when, which way the subject faces; how the light goes over the day. */
export default function PlaceStep() {
  return useSetup().setup.scene ? <Placed /> : <NoPlace />;
}

function NoPlace() {
  return (
    <Panel>
      <StepTitle>Place and hour</StepTitle>
      <Lead>
        Say where, and Tolva works out the sun and the sky there at any hour, offline: how bright both sides of the face
        and what lies behind are before anything is read, how a reading goes on from when it was taken, and when to
        change what as the light falls. Nobody needs it: readings alone will do.
      </Lead>
      <PlaceFinder label="A name, coordinates, or a file with a point in it" />
      <Told about="place" />
      <Credits />
    </Panel>
  );
}

function Placed() {
  const { setup, kit } = useSetup();
  const day = useDay(setup, kit);
  return (
    <Stack>
      <Panel>
        <Columns>
          <Stack>
            <Named />
            <WhenFields />
            <Sun />
          </Stack>
          <Compass day={day} />
        </Columns>
        {day && <DayStrip day={day} />}
      </Panel>
      <Panel>
        <Grid $min={300}>
          <WeatherForm />
          <SurroundingsForm />
        </Grid>
      </Panel>
      <Panel>
        <Horizon />
      </Panel>
      {day && (
        <Panel>
          <Times day={day} />
        </Panel>
      )}
      <Panel>
        <SiteForm />
      </Panel>
    </Stack>
  );
}

/** What the place is called, and the zone its clocks keep. */
function Named() {
  const name = useShownSetup().scene?.site.name;
  const zone = useLivePlan((plan) => plan.sun_report?.zone);
  return (
    <Head>
      <StepTitle>Place and hour</StepTitle>
      <p>
        <strong>{name || 'Unnamed place'}</strong>
        {zone && `, ${zone}`}
      </p>
    </Head>
  );
}

/** Where the sun stands and what its light does, at the hour under the pointer. */
function Sun() {
  const here = useLivePlan((plan) => plan.sun_report);
  if (!here) return null;
  return (
    <Facts>
      <dt>Sun</dt>
      <dd>
        {here.sun}
        {here.refraction && <Quiet>, {here.refraction}</Quiet>}
      </dd>
      <dt>Now</dt>
      <dd>{here.phase}</dd>
      <dt>Lights</dt>
      <dd>{here.side}</dd>
      {here.shadow && (
        <>
          <dt>Shadow</dt>
          <dd>of a person of 1.8 m: {here.shadow}</dd>
        </>
      )}
      <dt>Light</dt>
      <dd>{here.spread}</dd>
      {here.changes.length > 0 && (
        <>
          <dt>Changes</dt>
          <dd>
            {here.changes.map((one) => (
              <div key={one}>{one}</div>
            ))}
          </dd>
        </>
      )}
    </Facts>
  );
}

/** The place in numbers, and another one. */
const SiteForm = memo(function SiteForm() {
  const at = ['scene', 'site'];
  return (
    <Stack>
      <h3>The place</h3>
      <PlaceFinder label="Another place: a name or coordinates" />
      <Told about="place" />
      <Grid $min={150}>
        <Words name="Called" at={[...at, 'name']} says="Name of the place" />
        <Field of="Site.latitude_deg" at={[...at, 'latitude_deg']} />
        <Field of="Site.longitude_deg" at={[...at, 'longitude_deg']} />
        <Field of="Site.elevation_m" at={[...at, 'elevation_m']} />
        <Field of="Scene.facing_deg" at={['scene', 'facing_deg']} />
      </Grid>
      <Credits />
    </Stack>
  );
});

function Credits() {
  return (
    <Credit>
      Towns: GeoNames, CC BY 4.0. Outlines of time zones: OpenStreetMap contributors, ODbL. Both ship with Tolva.
      Bearings are from true north: a magnetic compass may be some degrees off.
    </Credit>
  );
}
