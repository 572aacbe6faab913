import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { answered, api, type FrameLine } from '../../api/client';
import { LooseField } from '../../session/fields/LooseField';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Lead, Row } from '../../ui/Panel';
import { Table } from '../../ui/Table';

const keptAs = 'frames/stand-in/seed';

type Props = { job: string; arrived: (frame: FrameLine) => void };

/** The stand-in camera: frames of the proof with faults that nobody knows, to practise on without a camera. */
export function Practice({ job, arrived }: Props) {
  const { setup, kit } = useSetup();
  const [seed, setSeed] = useState(1);
  const take = useMutation({
    mutationFn: (flash: boolean) =>
      answered(
        api.POST('/api/v1/jobs/{id}/setups/{setup}/frames/stand-in', {
          params: { path: { id: job, setup: setup.id } },
          body: { setup, kit, seed, flash },
        }),
      ),
    onSuccess: arrived,
  });
  const reveal = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/stand-in/reveal', { body: { setup, kit, seed } })),
  });
  const wrong = take.error ?? reveal.error;
  return (
    <>
      <Lead $tight>
        It takes the proof of this setup with faults of its own: units and modifiers that give more or less, light that
        is another than was guessed, a camera with an offset, a curve and noise. Take one without flash, learn from it;
        take one with it, learn; the third should come as planned.
      </Lead>
      <Row $below>
        <LooseField
          name="Its number"
          as="number"
          value={seed}
          least={0}
          most={1_000_000}
          whole
          hint="Another number hides other faults."
          onValue={(to) => {
            setSeed(to);
            reveal.reset();
          }}
          keptAs={keptAs}
        />
        <Button isDisabled={take.isPending} onPress={() => take.mutate(false)}>
          Take one without flash
        </Button>
        <Button isDisabled={take.isPending} onPress={() => take.mutate(true)}>
          Take one with flash
        </Button>
        <Button onPress={() => reveal.mutate()}>Show what it hides</Button>
      </Row>
      {take.isPending && <p role="status">The frame is taken…</p>}
      {wrong && <Wrong role="alert">{wrong.message}</Wrong>}
      {reveal.data && (
        <Table aria-label="What the stand-in camera hides">
          <thead>
            <tr>
              <th scope="col">Of</th>
              <th scope="col">Really, stops</th>
              <th scope="col">Learnt, stops</th>
              <th scope="col">How near</th>
            </tr>
          </thead>
          <tbody>
            {reveal.data.hidden.map((one) => (
              <tr key={one.name}>
                <td>{one.name}</td>
                <td>{one.really.exact}</td>
                <td>{one.learnt?.exact ?? '–'}</td>
                <td>{one.says}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </>
  );
}
