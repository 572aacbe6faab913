import type { Kit, Preferences, Setup } from '../api/client';

/** A setup to begin with: with what is owned, and the schools this person remembers. */
export function newSetup(template: Setup, kit: Kit, remembered: NonNullable<Preferences['defaults']>): Setup {
  const lens = kit.lenses.find((one) => one.id === template.lens_id) ?? kit.lenses[0];
  const camera = kit.cameras.find((one) => one.id === template.camera_id) ?? kit.cameras[0];
  const flashes = kit.flashes.filter((one) => !('continuous' in one.output));
  const lights = template.lights.flatMap((light) => {
    const flash = flashes.find((one) => one.id === light.flash_id) ?? flashes[Math.floor(flashes.length / 2)];
    if (!flash) return [];
    const modifier = kit.modifiers.find((one) => one.id === light.modifier_id) ?? kit.modifiers[0];
    const control = remembered.control ?? light.control ?? 'manual';
    return [{ ...light, flash_id: flash.id, modifier_id: modifier?.id ?? null, control }];
  });
  const { shortest_mm: shortest = 0, longest_mm: longest = Infinity } = lens ?? {};
  return {
    ...template,
    camera_id: camera?.id ?? template.camera_id,
    lens_id: lens?.id ?? template.lens_id,
    focal_length_mm: Math.min(longest, Math.max(shortest, template.focal_length_mm)),
    lights,
    ...(remembered.blend ? { blend: remembered.blend } : {}),
    ...(remembered.depth ? { depth: remembered.depth } : {}),
    ...(remembered.exposure ? { exposure: remembered.exposure } : {}),
    ...(remembered.white_balance ? { white_balance: remembered.white_balance } : {}),
    ...(remembered.automatic_exposure ? { automatic_exposure: remembered.automatic_exposure } : {}),
    ...(remembered.preferences ? { preferences: remembered.preferences } : {}),
    ...(remembered.school && template.speed ? { speed: { ...template.speed, school: remembered.school } } : {}),
  };
}
