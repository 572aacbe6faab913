import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { answered, api, ApiProblem, type Kit, type Setup, type Show } from '../../api/client';
import { Bar } from '../../ui/Bar';
import { Button, ButtonLink } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Lead, Panel, Part, Row } from '../../ui/Panel';
import type { Pinned } from './Compare';
import { makeSheet } from './sheet';
import { newAsker, type Shown } from './useProof';

/** The longer side of a large picture, in pixels. */
const large = 1920;
/** How often is asked how far it has come, in milliseconds. */
const between = 300;

type Props = {
  shown: Shown | undefined;
  setup: Setup;
  kit: Kit;
  show: Show;
  behind: string | null;
  pinned: Pinned[];
};

/** The proof as a file: as it is on screen, large, or a sheet of what is pinned. */
export function TakeOut({ shown, setup, kit, show, behind, pinned }: Props) {
  const [percent, setPercent] = useState<number>();
  const [ready, setReady] = useState<{ id: string; of: Setup }>();
  const [wrong, setWrong] = useState<string>();
  const [asker] = useState(newAsker);
  const params = { query: { asker } };
  const working = percent !== undefined;
  useEffect(() => {
    if (!working) return undefined;
    const timer = window.setInterval(() => {
      void answered(api.GET('/api/v1/proof/progress', { params: { query: { asker } } }))
        .then((come) => setPercent((now) => (now === undefined ? now : (come.percent ?? now))))
        .catch(() => undefined);
    }, between);
    return () => window.clearInterval(timer);
  }, [working, asker]);
  const render = async () => {
    setPercent(0);
    setReady(undefined);
    setWrong(undefined);
    try {
      const body = { setup, kit, show, longest: large, fine: true, behind, asker };
      const done = await answered(api.POST('/api/v1/proof', { body }));
      setReady({ id: done.id, of: setup });
    } catch (failure) {
      const givenUp = failure instanceof ApiProblem && failure.status === 409;
      if (!givenUp) setWrong(failure instanceof Error ? failure.message : 'The picture did not come.');
    }
    setPercent(undefined);
  };
  const sheet = async () => {
    setWrong(undefined);
    try {
      await makeSheet(setup.name, pinned);
    } catch {
      setWrong('The sheet could not be drawn.');
    }
  };
  const largeOne = ready?.of === setup ? ready : undefined;
  return (
    <Panel>
      <Part>Take it out</Part>
      <Lead $tight>JPEG keeps its settings in EXIF and says that it is an estimate.</Lead>
      <Row $below>
        {shown?.fine && <Files id={shown.id} what={`${shown.width} × ${shown.height}`} />}
        {!working && !largeOne && <Button onPress={() => void render()}>Make a large one, {large} pixels</Button>}
        {largeOne && <Files id={largeOne.id} what={`Large, ${large}`} />}
        {pinned.length > 1 && <Button onPress={() => void sheet()}>A sheet of the {pinned.length} pinned</Button>}
      </Row>
      {working && (
        <Row>
          <Bar name="Large picture" percent={percent} />
          <Button onPress={() => void api.DELETE('/api/v1/proof', { params })}>Stop</Button>
        </Row>
      )}
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
    </Panel>
  );
}

function Files({ id, what }: { id: string; what: string }) {
  return (
    <>
      {(['jpeg', 'png'] as const).map((kind) => (
        <ButtonLink
          key={kind}
          href={`/api/v1/proof/${id}/file/${kind}`}
          download
          routerOptions={undefined}
          target="_self"
        >
          <Download size={17} aria-hidden /> {kind.toUpperCase()}, {what}
        </ButtonLink>
      ))}
    </>
  );
}
