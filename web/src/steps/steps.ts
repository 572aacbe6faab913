import type { Plan } from '../api/client';

/** The steps that exist, in the order of work. */
export const steps = [
  { id: 'light', name: 'Light that is there' },
  { id: 'blend', name: 'Blend' },
  { id: 'depth', name: 'Depth and speed' },
  { id: 'lights', name: 'Lights' },
] as const;

export type StepId = (typeof steps)[number]['id'];

export const isStep = (id: string | undefined): id is StepId => steps.some((step) => step.id === id);

/** The present value of a step, so that the order of work is also the summary. */
export function summary(step: StepId, plan: Plan | undefined, blendName: string): string {
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
    case 'depth':
      return `${card.aperture.label}, ${card.shutter.label}`;
    case 'lights': {
      const light = card.lights[0];
      if (!light) return 'No flash';
      return light.power ? `${light.light_id} at ${light.power}, ${light.distance}` : `${light.light_id} off`;
    }
  }
}
