import type { Light } from '../../api/client';
import { useSetup } from '../../jobs/JobContext';
import { Grid } from '../../ui/Panel';
import { TypedField } from '../../ui/TypedField';
import { rangeOf } from '../../api/ranges';

type Props = { light: Light; kept: string; edit: (what: string, to: (light: Light) => Light) => void };

/** What a light gives the regions it is not aimed at. */
export function Reaches({ light, kept, edit }: Props) {
  const { setup } = useSetup();
  const aimed = light.aimed_at ?? setup.regions.find((region) => region.role === 'lit_side')?.id;
  return (
    <Grid $min={220} style={{ marginBottom: 14 }}>
      {setup.regions
        .filter((region) => region.id !== aimed)
        .map((region) => {
          const reach = light.spill?.find((one) => one.region_id === region.id);
          const put = (stops: number | undefined) =>
            edit(`On ${region.name}`, (one) => ({
              ...one,
              spill: [
                ...(one.spill ?? []).filter((each) => each.region_id !== region.id),
                ...(stops === undefined ? [] : [{ region_id: region.id, stops }]),
              ],
            }));
          return (
            <TypedField
              key={region.id}
              name={`On ${region.name.toLowerCase()}, stops`}
              as="stops"
              value={reach?.stops}
              placeholder="not at all"
              keptAs={`${kept}/reach/${region.id}`}
              {...rangeOf('Spill.stops')}
              hint="Against its own region: an estimate until measured."
              onValue={(understood) => put(understood.value)}
              action={reach && { name: 'not at all', run: () => put(undefined) }}
            />
          );
        })}
    </Grid>
  );
}
