import type { Blend, Plan, Setup } from '../../api/client';

/** The steps that exist, in the order of work, each with its key. */
export const steps = [
  { id: 'place', name: 'Place and hour', key: '1' },
  { id: 'light', name: 'Light that is there', key: '2' },
  { id: 'blend', name: 'Blend', key: '3' },
  { id: 'colour', name: 'Colour', key: '4' },
  { id: 'depth', name: 'Depth and speed', key: '5' },
  { id: 'set', name: 'Set', key: '6' },
  { id: 'glass', name: 'Glass and hazards', key: '7' },
  { id: 'proof', name: 'Proof', key: '8' },
  { id: 'frames', name: 'Frames', key: '9' },
  // Last of all, whatever comes between: the light falls when everything stands.
  { id: 'falling', name: 'Falling light', key: '0' },
] as const;

export type StepId = (typeof steps)[number]['id'];

/** The step of an address; those of old bookmarks lead to what took their place. */
export const stepOf = (id: string | undefined): StepId =>
  id === 'lights' ? 'set' : (steps.find((step) => step.id === id)?.id ?? 'place');

/** The present value of each step, so that the order of work is also the summary. */
export const summaries = (setup: Setup, plan: Plan | undefined, blendName: string): string[] =>
  steps.map((step) => summary(step.id, setup, plan, blendName));

function summary(step: StepId, setup: Setup, plan: Plan | undefined, blendName: string): string {
  if (step === 'place') {
    const scene = setup.scene;
    return scene ? [scene.site.name, scene.at.time].filter(Boolean).join(', ') : 'Not said yet';
  }
  if (!plan) return '';
  const card = plan.dial_card;
  switch (step) {
    case 'light':
      return plan.rail.map((region) => region.ev.replace('EV ', '')).join(', ') + ' EV';
    case 'blend':
      return `${blendName}: ${plan.rail
        .slice(0, 2)
        .map((region) => region.together.at.label)
        .join(', ')} stops`;
    case 'colour': {
      const gels = plan.colour.marks.flatMap((mark) => mark.steps.map((step) => step.name.toLowerCase()));
      return [card.white_balance, ...new Set(gels)].join(', ');
    }
    case 'depth':
      return `${card.aperture.label}, ${card.shutter.label}`;
    case 'glass': {
      const panes = setup.set?.panes?.length ?? 0;
      const worn = setup.set?.people?.filter((person) => person.spectacles).length ?? 0;
      const there = [
        ...(panes > 0 ? [panes === 1 ? 'One pane' : `${panes} panes`] : []),
        ...(worn > 0 ? ['spectacles'] : []),
      ];
      return there.length > 0 ? there.join(', ') : 'No glass';
    }
    case 'proof':
      return 'Before it is taken';
    case 'frames':
      return 'What came';
    case 'falling':
      return plan.sun_report ? 'When to change what' : 'Needs place and hour';
    case 'set': {
      const [light, ...more] = card.lights;
      if (!light) return 'No flash';
      if (more.length > 0) return card.lights.map((one) => `${one.light_id} ${one.power ?? 'off'}`).join(', ');
      return light.power ? `${light.light_id} at ${light.power}, ${light.distance}` : `${light.light_id} off`;
    }
  }
}

/** The one key of a blend is its kind. */
export const blendKind = (blend: Blend): string => Object.keys(blend)[0] ?? '';
