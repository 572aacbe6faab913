import { Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import type { FloorPart, GlassReport, MapAsked, OnSet } from '../../api/client';
import { useJobState, useLivePlan, useMapAsked } from '../../session/job';
import { Button } from '../../ui/Button';
import { Segments } from '../../ui/Segments';
import { narrow, radius, space, type } from '../../ui/tokens';
import { Told } from '../Told';
import { useWidth } from '../useWidth';
import { FromAbove } from './FromAbove';
import { FromTheSide } from './FromTheSide';
import { grown, nearer } from './floor';
import { ThroughTheLens } from './ThroughTheLens';
import type { ViewProps } from './view';

const Frame = styled.section`
  display: grid;
  gap: ${space.gap}px;
`;
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.near}px ${space.part}px;
  align-items: flex-end;
  justify-content: space-between;
`;
const Zoom = styled.div`
  display: flex;
  gap: ${space.hair}px;
`;
const Ground = styled.div`
  position: relative;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: ${radius.control}px;
  overflow: hidden;
  ${narrow} {
    margin: 0 -6px;
  }
`;
const Coming = styled.div<{ $height: number }>`
  height: ${({ $height }) => $height}px;
`;
const Says = styled.p`
  font-size: ${type.note}px;
  color: var(--quiet);
`;

type View = 'above' | 'side' | 'lens';
type Props = {
  chosen: string | undefined;
  choose: (thing: OnSet) => void;
  lights: readonly string[];
  /** How it is seen at first. */
  first?: View;
  /** What stands in glass, to be drawn through the lens, and what clears it, to be looked for. */
  glass?: GlassReport | undefined;
  remedies?: boolean;
  /** The finding that is pointed at. */
  finding?: string | undefined;
};

/** So many times nearer or farther a press of a button goes. */
const zoom = 1.35;

/** The set to scale, with the flash drawn as contours in stops: from above, from the side, and through the lens. */
export function MapOfLight({ chosen, choose, lights, first: seen = 'above', glass, remedies = false, finding }: Props) {
  const set = useLivePlan((plan) => plan.set) ?? undefined;
  // While something is held the map is drawn from fewer places, and nobody looks for what clears: they follow the hand.
  const held = useJobState((state) => state.held !== undefined);
  const [view, setView] = useState<View>(seen);
  const [whose, setWhose] = useState<string>();
  const [part, setPart] = useState<FloorPart>();
  const { width, ref } = useWidth(720);
  const height = Math.round(Math.min(Math.max(width * 0.55, 320), 520));
  const options = [
    ...lights.map((id) => ({ id, label: id })),
    ...(lights.length > 0 ? [{ id: 'flashes', label: 'All flash' }] : []),
    { id: 'together', label: lights.length > 0 ? 'Together' : 'What is there' },
  ];
  const shown = options.find((one) => one.id === whose)?.id ?? (lights.length > 0 ? 'flashes' : 'together');
  const asked = useMemo<MapAsked>(
    () => ({
      whose: shown === 'flashes' || shown === 'together' ? shown : { light: shown },
      ...(part ? { part } : {}),
      ...(held ? { coarse: true } : remedies ? { remedies } : {}),
    }),
    [shown, part, remedies, held],
  );
  useMapAsked(asked);
  // What is drawn at first stays where it is while something is dragged.
  const first = set?.whole;
  if (!part && first) setPart(grown(first, width, height));
  return (
    <Frame aria-label="Map of light">
      <Tools>
        <Segments
          name="Seen"
          value={view}
          options={[
            { id: 'above', label: 'From above' },
            { id: 'side', label: 'From the side' },
            { id: 'lens', label: 'Through the lens' },
          ]}
          onChange={setView}
        />
        {view === 'above' && <Segments name="Contours of" value={shown} options={options} onChange={setWhose} />}
        {view !== 'lens' && (
          <Zoom role="group" aria-label="How near">
            <Button kind="plain" aria-label="Nearer" onPress={() => part && setPart(nearer(part, zoom))}>
              <ZoomIn size={18} aria-hidden />
            </Button>
            <Button kind="plain" aria-label="Farther" onPress={() => part && setPart(nearer(part, 1 / zoom))}>
              <ZoomOut size={18} aria-hidden />
            </Button>
            <Button kind="plain" aria-label="Show everything" onPress={() => setPart(undefined)}>
              <Maximize size={18} aria-hidden />
            </Button>
          </Zoom>
        )}
      </Tools>
      <Ground ref={ref}>
        {set ? (
          <Drawn
            {...{ set, view, width, height, chosen, choose, setPart, glass, finding }}
            part={part ?? set.map.part}
          />
        ) : (
          <Coming role="status" aria-busy="true" aria-label="Drawing the set" $height={height} />
        )}
      </Ground>
      {/* What is dragged from above is looked for in the glass. */}
      {set && glass && view !== 'lens' && (
        <Ground>
          <ThroughTheLens {...{ set, width, glass, finding }} height={Math.round(height * 0.7)} />
        </Ground>
      )}
      <Says>{set && (view === 'above' ? set.map.says : view === 'side' ? sideSays : lensSays)}</Says>
      <Told about="set/" />
    </Frame>
  );
}

const sideSays = 'The camera is on the left. Drag a light, a card or the camera up and down, or use the arrow keys.';
const lensSays = 'What stands in the frame, in the lens’s own perspective. What lies outside it is drawn pale.';

type DrawnProps = ViewProps & {
  view: View;
  setPart: (part: FloorPart) => void;
  glass: GlassReport | undefined;
  finding: string | undefined;
};

function Drawn({ view, ...props }: DrawnProps) {
  switch (view) {
    case 'above':
      return <FromAbove {...props} />;
    case 'side':
      return <FromTheSide {...props} />;
    case 'lens':
      return <ThroughTheLens {...props} />;
  }
}
