import { memo } from 'react';
import styled from 'styled-components';
import type { SunReport, Plan, Scene } from '../../api/client';
import { narrow } from '../../app/theme';
import { DayStrip } from '../../instruments/day-strip/DayStrip';
import { useDay } from '../../instruments/day-strip/useDay';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Grid, Lead, Panel, Title, Stack } from '../../ui/Panel';
import { TextField } from '../../ui/TextField';
import { TypedField } from '../../ui/TypedField';
import { Compass } from './Compass';
import { Horizon } from './Horizon';
import { PlaceFinder } from './PlaceFinder';
import { Times } from './Times';
import { SurroundingsForm } from './SurroundingsForm';
import { useScene } from './useScene';
import { WeatherForm } from './WeatherForm';
import { WhenFields } from './WhenFields';
import { defaultOf, rangeOf } from '../../api/ranges';

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
  font-size: 12.5px;
  color: var(--quiet);
  margin-top: 12px;
`;

/** Where, when, which way the subject faces; how the light goes over the day. */
export function PlaceStep({ plan }: { plan: Plan }) {
  const { scene } = useSetup().setup;
  if (!scene || !plan.sun_report) return <NoPlace />;
  return <Placed plan={plan} scene={scene} here={plan.sun_report} />;
}

function NoPlace() {
  return (
    <Panel>
      <Title>Place and hour</Title>
      <Lead>
        Say where, and Tolva works out the sun and the sky there at any hour, offline: how bright both sides of the face
        and what lies behind are before anything is read, how a reading goes on from when it was taken, and when to
        change what as the light falls. Nobody needs it: readings alone will do.
      </Lead>
      <PlaceFinder label="A name, coordinates, or a file with a point in it" />
      <Credits />
    </Panel>
  );
}

function Placed({ plan, scene, here }: { plan: Plan; scene: Scene; here: SunReport }) {
  const { setup, kit } = useSetup();
  const day = useDay(setup, kit);
  return (
    <Stack>
      <Panel>
        <Columns>
          <Stack>
            <Head>
              <Title>Place and hour</Title>
              <p>
                <strong>{scene.site.name || 'Unnamed place'}</strong>, {here.zone}
              </p>
            </Head>
            <WhenFields scene={scene} here={here} />
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
          </Stack>
          <Compass scene={scene} here={here} day={day} />
        </Columns>
        {day && <DayStrip day={day} here={here} clock={scene.at.time} rail={plan.rail} />}
      </Panel>
      <Panel>
        <Grid $min={300}>
          <WeatherForm />
          <SurroundingsForm sky={here.sky} />
        </Grid>
      </Panel>
      <Panel>
        <Horizon />
      </Panel>
      {day && (
        <Panel>
          <Times day={day} minute={here.minute} />
        </Panel>
      )}
      <Panel>
        <SiteForm />
      </Panel>
    </Stack>
  );
}

/** The place in numbers, and another one. */
const SiteForm = memo(function SiteForm() {
  const { id } = useJob();
  const { scene, put, goTo } = useScene();
  if (!scene) return null;
  const { site } = scene;
  return (
    <Stack>
      <h3>The place</h3>
      <PlaceFinder label="Another place: a name or coordinates" />
      <Grid $min={150}>
        <TextField
          name="Called"
          value={site.name ?? ''}
          onChange={(name) => put('Name of the place', { site: { ...site, name } })}
        />
        <TypedField
          name="Latitude, degrees"
          as="coordinate"
          value={site.latitude_deg}
          keptAs={`${id}/latitude`}
          {...rangeOf('Site.latitude_deg')}
          onValue={({ value }) => goTo({ ...site, latitude_deg: value })}
        />
        <TypedField
          name="Longitude, degrees"
          as="coordinate"
          value={site.longitude_deg}
          keptAs={`${id}/longitude`}
          {...rangeOf('Site.longitude_deg')}
          onValue={({ value }) => goTo({ ...site, longitude_deg: value })}
        />
        <TypedField
          name="Above the sea, m"
          as="number"
          value={site.elevation_m ?? defaultOf('Site.elevation_m')}
          keptAs={`${id}/elevation`}
          {...rangeOf('Site.elevation_m')}
          onValue={({ value }) => put('Altitude', { site: { ...site, elevation_m: value } })}
        />
        <TypedField
          name="Subject faces, degrees"
          as="number"
          value={scene.facing_deg}
          keptAs={`${id}/facing`}
          {...rangeOf('Scene.facing_deg')}
          onValue={({ value }) => put('Subject turned', { facing_deg: value })}
        />
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
