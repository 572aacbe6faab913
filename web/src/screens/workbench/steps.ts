import type { Plan, Setup } from '../../api/client';

/** The steps that exist, in the order of work. */
export const steps = [
  { id: 'place', name: 'Place and hour' },
  { id: 'light', name: 'Light that is there' },
  { id: 'blend', name: 'Blend' },
  { id: 'colour', name: 'Colour' },
  { id: 'depth', name: 'Depth and speed' },
  { id: 'lights', name: 'Lights' },
  { id: 'falling', name: 'Falling light' },
] as const;

export type StepId = (typeof steps)[number]['id'];

export const isStep = (id: string | undefined): id is StepId => steps.some((step) => step.id === id);

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
    case 'falling':
      return plan.sun_report ? 'When to change what' : 'Needs place and hour';
    case 'lights': {
      const [light, ...more] = card.lights;
      if (!light) return 'No flash';
      if (more.length > 0) return card.lights.map((one) => `${one.light_id} ${one.power ?? 'off'}`).join(', ');
      return light.power ? `${light.light_id} at ${light.power}, ${light.distance}` : `${light.light_id} off`;
    }
  }
}
