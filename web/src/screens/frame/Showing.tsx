import { usePreferences } from '../../api/preferences';
import { Wrong } from '../../ui/field';
import { Stack } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { TickBox } from '../../ui/Ticks';

/** How this person likes things shown. */
export default function Showing({ onClose }: { onClose: () => void }) {
  const { preferences, show, set, failed } = usePreferences();
  return (
    <Sheet title="How things are shown" open onClose={onClose} width={440}>
      <Stack>
        <Segments
          name="Distances"
          value={show.length ?? 'metres'}
          options={[
            { id: 'metres', label: 'Metres' },
            { id: 'feet_and_inches', label: 'Feet and inches' },
          ]}
          onChange={(length) => set({ show: { ...show, length } })}
        />
        <Segments
          name="Flash power"
          value={show.power ?? 'fraction'}
          options={[
            { id: 'fraction', label: '1/4 +⅓' },
            { id: 'stops', label: '−1⅔ stops' },
          ]}
          onChange={(power) => set({ show: { ...show, power } })}
        />
        <Segments
          name="Theme"
          value={preferences.theme ?? 'device'}
          options={[
            { id: 'device', label: 'As the device' },
            { id: 'daylight', label: 'Daylight' },
            { id: 'dusk', label: 'Dusk' },
          ]}
          onChange={(theme) => set({ theme })}
        />
        <TickBox
          name="Single letters and digits are keys"
          value={preferences.letter_keys !== false}
          onChange={(letter_keys) => set({ letter_keys })}
        />
        {failed && <Wrong role="alert">This was not kept. {failed.message}</Wrong>}
      </Stack>
    </Sheet>
  );
}
