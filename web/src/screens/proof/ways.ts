import { answered, api, type Kit, type Setup, type Show } from '../../api/client';

/** Another way that a proof is compared with. */
export type Way = { id: string; name: string; make: () => Promise<{ name: string; setup: Setup }[]> };

/** How many minutes the light is looked at ahead. */
const ahead = 20;

/** What a setup's proof can be compared with at one press: each is the same setup with one thing changed. */
export function waysOf(setup: Setup, kit: Kit, show: Show): Way[] {
  const one = (id: string, name: string, other: Setup): Way => ({
    id,
    name,
    make: () => Promise.resolve([{ name, setup: other }]),
  });
  const all: Way[] = [];
  const { set, blend } = setup;
  if (set && (set.cards?.length ?? 0) > 0)
    all.push(one('cards', 'Without cards', { ...setup, set: { ...set, cards: [] } }));
  if ('fill' in blend) {
    for (const stops of [-2, 0]) {
      const name = stops === 0 ? 'Fill at 0' : `Fill at −${-stops}`;
      all.push(one(`fill ${stops}`, name, { ...setup, blend: { fill: { ...blend.fill, fill_stops: stops } } }));
    }
  }
  if (setup.lights.length > 0) {
    all.push(one('lights', 'Without flash', { ...setup, lights: [] }));
  }
  if (setup.scene) {
    all.push({
      id: 'ahead',
      name: `In ${ahead} minutes`,
      make: async () => {
        const command = { minute: { by: ahead } };
        const { setup: then } = await answered(api.POST('/api/v1/solve', { body: { setup, kit, show, command } }));
        return [{ name: `In ${ahead} minutes`, setup: then }];
      },
    });
  }
  all.push({
    id: 'balance',
    name: 'Other white balances',
    make: async () => {
      const { conventions } = await answered(api.POST('/api/v1/colour', { body: { setup, kit, show } }));
      const labels = new Set(conventions.filter((way) => way.chosen).map((way) => way.label));
      // One of each that looks different.
      const others = conventions.filter((way) => !labels.has(way.label) && labels.add(way.label));
      return others.map((way) => ({ name: `${way.name}, ${way.label}`, setup: way.setup }));
    },
  });
  return all;
}
