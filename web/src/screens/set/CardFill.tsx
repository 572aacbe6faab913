import { Drawing } from '../../instruments/Drawing';
import { usePinned } from '../../instruments/stop-rail/pinned';
import { useWidth } from '../../instruments/useWidth';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { linear } from '../../ui/linear';
import { Panel, Part, Row } from '../../ui/Panel';

const height = 170;

/** What a card adds or takes against how far it stands, with its own place on the curve. */
export function CardFill() {
  const card = useLivePlan((plan) => plan.set?.card);
  const rail = useLivePlan((plan) => plan.rail);
  const { setup, ask } = useSetup();
  const pin = usePinned((store) => store.pin);
  const { width, ref } = useWidth(640);
  if (!card) return null;
  const all = [
    ...card.points.map((point) => point[1] ?? 0),
    card.now[1] ?? 0,
    ...card.levels.map((level) => level.stops),
  ];
  const [low, high] = [Math.min(...all) - 0.1, Math.max(...all) + 0.1];
  const first = card.points[0]?.[0] ?? 0;
  const last = card.points.at(-1)?.[0] ?? 1;
  const x = linear([first, last], [54, Math.max(160, width - 16)]);
  const y = linear([low, high], [height - 26, 12]);
  const [at = 0, by = 0] = card.now;
  const line = card.points.map(([a = 0, b = 0]) => `${x(a).toFixed(1)},${y(b).toFixed(1)}`).join(' ');
  return (
    <Panel>
      <Part>{card.name}: fill against distance</Part>
      <p>{card.says} A reading is taken before the card is put up.</p>
      <div ref={ref}>
        <Drawing height={height} role="img" aria-label={card.says}>
          {card.levels.map(({ stops, label }) => (
            <g key={stops}>
              <line x1={x(first)} x2={x(last)} y1={y(stops)} y2={y(stops)} stroke="var(--hair)" />
              <text className="figure quiet" x={x(first) - 6} y={y(stops) + 4} textAnchor="end">
                {label}
              </text>
            </g>
          ))}
          <text className="quiet" x={4} y={height - 6}>
            stops
          </text>
          {card.marks.map((mark) => (
            <text key={mark.at_m} className="figure quiet" x={x(mark.at_m)} y={height - 6} textAnchor="middle">
              {mark.label}
            </text>
          ))}
          <polyline points={line} fill="none" stroke="var(--ambient)" strokeWidth={2.2} />
          {at >= first && at <= last && (
            <circle cx={x(at)} cy={y(by)} r={6} fill="var(--panel)" stroke="var(--ambient)" strokeWidth={3} />
          )}
        </Drawing>
      </div>
      <Row $below>
        <Button
          onPress={() => {
            if (rail) pin(setup.id, rail);
            ask(`${card.name} taken away`, { set: { remove: { card: card.card_id } } }, 'set/card');
          }}
        >
          Pin the rail, and see it without the card
        </Button>
      </Row>
    </Panel>
  );
}
