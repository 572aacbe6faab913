import type { Lesson as Told } from '../../api/client';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Offers } from '../../ui/Offers';
import { Lead, Panel, Part } from '../../ui/Panel';

type Props = { lesson: Told; stale: boolean; did: (what: string) => void };

/** What to change after a frame: the least that does it first, one press away. */
export function Lesson({ lesson, stale, did }: Props) {
  const { setup, take } = useSetup();
  const { learnt } = lesson;
  return (
    <Panel>
      <Part>What to change</Part>
      <Lead $tight data-testid="lesson">
        {lesson.says}
      </Lead>
      <Offers aria-label="What to change, the least first">
        {lesson.offers.map((offer, index) => (
          <li key={offer.does + String(offer.free)}>
            <p>
              <strong>{offer.does}</strong>
              <small>
                {offer.free && lesson.offers.length > 1 ? 'Every dial left to Tolva. ' : ''}Comes to: {offer.comes}
              </small>
            </p>
            <Button
              kind={index === 0 ? 'strong' : 'plain'}
              aria-label={`${offer.dials.length > 0 ? 'Do this' : 'Learn from it'}: ${offer.does}`}
              isDisabled={stale}
              onPress={() => {
                take(`After a frame: ${offer.does}`, offer.setup, setup);
                did(offer.does);
              }}
            >
              {offer.dials.length > 0 ? 'Do this' : 'Learn'}
            </Button>
          </li>
        ))}
        {!learnt && lesson.offers.every((offer) => offer.dials.length > 0) && (
          <li>
            <p>
              <strong>Only learn from it</strong>
              <small>The dials that are fixed stay; the plan and its bands know better from now on.</small>
            </p>
            <Button isDisabled={stale} onPress={() => take('Learnt from a frame', lesson.setup, setup)}>
              Learn
            </Button>
          </li>
        )}
      </Offers>
    </Panel>
  );
}
