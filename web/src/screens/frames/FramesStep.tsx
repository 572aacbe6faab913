import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Trash2 } from 'lucide-react';
import { useCallback, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type FrameLine } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useJob, useJobState, useSetup } from '../../session/job';
import { Button, ButtonLink } from '../../ui/Button';
import { Notice, Panel, Quiet, Row, Stack } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { PictureLines } from '../../ui/PictureLines';
import { SmallPicture } from '../../ui/SmallPicture';
import { space } from '../../ui/tokens';
import { StepTitle } from '../workbench/StepTitle';
import { Apart } from './Apart';
import { Arriving } from './Arriving';
import { Learnt } from './Learnt';
import { Lesson } from './Lesson';
import { More } from './More';
import { editOf, OneFrame, saveFrame } from './OneFrame';
import { Practice } from './Practice';
import { Strip } from './Strip';
import { useFrames } from './useFrames';
import { Watched } from './Watched';

const Head = styled(Row)`
  margin-bottom: ${space.gap}px;
`;
const From = styled.div`
  margin-bottom: ${space.gap}px;
`;
/** Frames that came: measured against the plan, with what to change, and what they teach. */
export default function FramesStep() {
  const { id: job } = useJob();
  const { setup, kit } = useSetup();
  const { show } = usePreferences();
  const client = useQueryClient();
  const { frames, unreadable, earlier, error, wrong, forget, again } = useFrames(job, setup.id);
  const [picked, setPicked] = useState<string>();
  const [from, setFrom] = useState<'files' | 'folder' | 'practice'>('files');
  const [gone, setGone] = useState<FrameLine>();
  const chosen = frames?.find((frame) => frame.id === picked) ?? frames?.at(-1);
  const arrived = useCallback(
    (frame: FrameLine) => {
      setPicked(frame.id);
      void again();
    },
    [again],
  );
  const changed = useCallback(() => {
    void again();
    void client.invalidateQueries({ queryKey: ['frame'] });
    void client.invalidateQueries({ queryKey: ['apart'] });
  }, [again, client]);
  return (
    <Stack>
      <Panel>
        <Head $apart>
          <StepTitle>Frames</StepTitle>
          {chosen && <Quiet>{chosen.settings}</Quiet>}
        </Head>
        <From>
          <Segments
            name="Frames come"
            value={from}
            options={[
              { id: 'files', label: 'From here' },
              { id: 'folder', label: 'From a watched folder' },
              { id: 'practice', label: 'From the stand-in camera' },
            ]}
            onChange={setFrom}
          />
        </From>
        {from === 'files' && <Arriving url={`/api/v1/jobs/${job}/setups/${setup.id}/frames`} arrived={arrived} />}
        {from === 'folder' && <Watched job={job} setup={setup.id} />}
        {from === 'practice' && <Practice job={job} arrived={arrived} />}
        {error && (
          <Notice role="alert">
            <strong>The frames cannot be read. </strong>
            {error.message}
          </Notice>
        )}
        {unreadable.map((frame) => (
          <Notice role="alert" key={frame.id}>
            <strong>One frame cannot be read. </strong>
            {frame.says} The others are as they were.
            <Row $below>
              <Button
                onPress={() =>
                  void answered(api.DELETE('/api/v1/frames/{id}', { params: { path: { id: frame.id } } })).then(again)
                }
              >
                Put it into the bin
              </Button>
            </Row>
          </Notice>
        ))}
        {wrong.length > 0 && (
          <Notice role="alert">
            <strong>Not taken in: </strong>
            {wrong.join('; ')}
            <Row $below>
              <Button onPress={forget}>I have seen it</Button>
            </Row>
          </Notice>
        )}
        {frames && frames.length > 0 && (
          <Strip frames={frames} before={earlier.count} chosen={chosen?.id} choose={setPicked} />
        )}
        {earlier.count > 0 && (
          <Row $below>
            <Button isDisabled={earlier.busy} onPress={() => void earlier.show()}>
              Show earlier frames: {earlier.count} more
            </Button>
          </Row>
        )}
        {frames?.length === 0 && (
          <Quiet $below>
            No frame yet. Set what the dial card says, take one without flash, then one with it: each is measured
            against the plan, says what to change, and makes the next plan surer. Without a camera at hand, practise
            with the stand-in camera.
          </Quiet>
        )}
        {gone && (
          <Notice role="status">
            {gone.name} is in the bin.
            <Row $below>
              <Button
                onPress={() => {
                  void answered(api.POST('/api/v1/frames/{id}/restore', { params: { path: { id: gone.id } } })).then(
                    () => {
                      setGone(undefined);
                      arrived(gone);
                    },
                  );
                }}
              >
                Bring it back
              </Button>
            </Row>
          </Notice>
        )}
      </Panel>
      {chosen && frames && (
        <Chosen
          key={chosen.id}
          line={chosen}
          frames={frames}
          changed={changed}
          binned={() => {
            setGone(chosen);
            setPicked(undefined);
            changed();
          }}
          asked={{ setup, kit, show }}
        />
      )}
      <Learnt />
      {frames && frames.length > 0 && <Log job={job} frames={frames} before={earlier.count} choose={setPicked} />}
    </Stack>
  );
}

type Asked = Pick<ReturnType<typeof useSetup>, 'setup' | 'kit'> & {
  show: ReturnType<typeof usePreferences>['show'];
};

type ChosenProps = {
  line: FrameLine;
  frames: FrameLine[];
  changed: () => void;
  binned: () => void;
  asked: Asked;
};

function Chosen({ line, frames, changed, binned, asked }: ChosenProps) {
  const { setup, kit, show } = asked;
  const held = useJobState((state) => state.held !== undefined);
  const params = { path: { id: line.id } };
  const { data: frame } = useQuery({
    queryKey: ['frame', line.id],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/frames/{id}', { params, signal })),
    placeholderData: (before) => before,
  });
  const {
    data: told,
    error,
    isPlaceholderData,
  } = useQuery({
    queryKey: ['frame', line.id, 'lesson', setup, kit, show],
    queryFn: ({ signal }) =>
      answered(api.POST('/api/v1/frames/{id}/lesson', { params, body: { setup, kit, show }, signal })),
    placeholderData: (before) => before,
    retry: false,
  });
  const before = frames[frames.indexOf(line) - 1]?.camera;
  const otherCamera = before && line.camera && before !== line.camera ? before : undefined;
  const did = (what: string) => {
    if (!frame) return;
    const edit = editOf(frame);
    void saveFrame(frame.id, { ...edit, changed: [...(edit.changed ?? []), what] }).then(changed, () => undefined);
  };
  return (
    <>
      <Panel>
        <Row $apart>
          <h3>
            {line.name}
            {line.raw_preview && ', the picture a raw file carries'}
          </h3>
          <Button
            onPress={() => void answered(api.DELETE('/api/v1/frames/{id}', { params })).then(binned, () => undefined)}
          >
            <Trash2 size={16} aria-hidden /> Into the bin
          </Button>
        </Row>
        {error && (
          <Notice role="alert">
            <strong>It cannot be held against its plan. </strong>
            {error.message}
          </Notice>
        )}
        {otherCamera && (
          <Notice>
            <strong>Another camera than the frame before. </strong>
            This one is from {line.camera}, that one from {otherCamera}: what is learnt of the camera is learnt of the
            one the setup names.
          </Notice>
        )}
        {frame && <OneFrame frame={frame} told={told} missing={line.missing} changed={changed} same={line.same} />}
        {line.changed.length > 0 && <Quiet>Changed after it: {line.changed.join('; ')}</Quiet>}
      </Panel>
      {told?.lesson && <Lesson lesson={told.lesson} stale={held || isPlaceholderData} did={did} />}
      {!line.missing && <Apart frames={frames} chosen={line} />}
      {frame && !line.missing && <More frames={frames} frame={frame} changed={changed} />}
    </>
  );
}

type LogProps = { job: string; frames: FrameLine[]; before: number; choose: (id: string) => void };

/** The frames of the setup that were read, in words, to be looked through; all of them are taken out. */
function Log({ job, frames, before, choose }: LogProps) {
  const [only, setOnly] = useState<'all' | 'off' | 'changed'>('all');
  const isOff = (frame: FrameLine) => frame.came.some((one) => Math.abs(one.off_stops ?? 0) > 0.15);
  const shown = frames.filter((frame) => only === 'all' || (only === 'off' ? isOff(frame) : frame.changed.length > 0));
  return (
    <Panel>
      <Row $apart>
        <h3>Log</h3>
        <Row>
          <ButtonLink href={`/api/v1/jobs/${job}/frames/log.csv`} download target="_self" routerOptions={undefined}>
            <Download size={17} aria-hidden /> CSV
          </ButtonLink>
          <ButtonLink href={`/api/v1/jobs/${job}/frames/log.json`} download target="_self" routerOptions={undefined}>
            <Download size={17} aria-hidden /> JSON
          </ButtonLink>
          <ButtonLink href={`/api/v1/jobs/${job}/frames/archive.zip`} download target="_self" routerOptions={undefined}>
            <Download size={17} aria-hidden /> Job with frames, ZIP
          </ButtonLink>
        </Row>
      </Row>
      <Row $below>
        <Segments
          name="Only those"
          value={only}
          options={[
            { id: 'all', label: 'All' },
            { id: 'off', label: 'Off by more than 0.15 stop' },
            { id: 'changed', label: 'With a change after them' },
          ]}
          onChange={setOnly}
        />
      </Row>
      <PictureLines aria-label="Log of frames">
        {shown.map((frame) => (
          <li key={frame.id}>
            <SmallPicture src={frame.missing ? undefined : `/api/v1/frames/${frame.id}/small`} />
            <span>
              <strong>
                {before + frames.indexOf(frame) + 1} {frame.name}
              </strong>{' '}
              {frame.settings}
              <Quiet>
                {frame.says} {frame.changed.length > 0 && `Then: ${frame.changed.join('; ')}.`} {frame.note}
              </Quiet>
            </span>
            <Button onPress={() => choose(frame.id)}>Show</Button>
          </li>
        ))}
      </PictureLines>
      {shown.length === 0 && <Quiet>None of them.</Quiet>}
      {before > 0 && <Quiet>{before} earlier frames are not shown here. The files have all of them.</Quiet>}
    </Panel>
  );
}
