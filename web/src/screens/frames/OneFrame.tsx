import { useRef, useState } from 'react';
import styled from 'styled-components';
import {
  answered,
  api,
  type FrameEdit,
  type FrameLine,
  type FrameMark,
  type FrameReport,
  type LessonOfFrame,
  type TakenFrame,
} from '../../api/client';
import { LooseField } from '../../session/fields/LooseField';
import { readTyped, writeTyped } from '../../session/drafts';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Wrong } from '../../ui/field';
import { Grid, Notice, Part, Quiet, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { Table } from '../../ui/Table';
import { TextField } from '../../ui/TextField';
import { figures, space } from '../../ui/tokens';
import { Histogram } from '../proof/Histogram';
import { PlateNote } from '../shots/PlateNote';
import { Marks } from './Marks';

const Came = styled(Table)`
  ${figures}
  margin-top: ${space.gap}px;
  td:first-child {
    font-weight: 600;
  }
  small {
    display: block;
    color: var(--quiet);
    font-size: 13px;
    font-weight: 400;
  }
`;
const Scroll = styled.div`
  overflow-x: auto;
`;
const Headline = styled.p`
  font-size: 17px;
  font-weight: 600;
  margin: ${space.gap}px 0 0;
`;

const Parts = styled.div`
  margin-top: ${space.gap}px;
  > ${Notice} {
    margin-top: ${space.gap}px;
  }
`;

/** What somebody changes of a frame, as it is sent. */
export const editOf = ({ settings, marks, note, changed, shot_id }: TakenFrame): FrameEdit => ({
  shot_id: shot_id ?? null,
  settings,
  marks: marks ?? [],
  note: note ?? '',
  changed: changed ?? [],
});

/** Sends what was changed of a frame. */
export const saveFrame = (id: string, body: FrameEdit): Promise<TakenFrame> =>
  answered(api.PUT('/api/v1/frames/{id}', { params: { path: { id } }, body }));

type Props = {
  frame: TakenFrame;
  told: LessonOfFrame | undefined;
  missing: boolean;
  changed: () => void;
  same: FrameLine['same'];
};

/** A frame: where its regions are, what each was to be and is. */
export function OneFrame({ frame, told, missing, changed, same }: Props) {
  const { setup } = useSetup();
  const [wrong, setWrong] = useState<string>();
  const [chosen, setChosen] = useState<string>();
  const latest = useRef<Promise<unknown>>(Promise.resolve());
  // One after the other: each begins with what the one before has left.
  const save: Save = (change) => {
    const saved = latest.current.then(async () => {
      try {
        const now = await answered(api.GET('/api/v1/frames/{id}', { params: { path: { id: frame.id } } }));
        await saveFrame(frame.id, change(editOf(now)));
        setWrong(undefined);
        changed();
        return true;
      } catch (failure) {
        setWrong(failure instanceof Error ? failure.message : 'Tolva does not answer.');
        return false;
      }
    });
    latest.current = saved;
    return saved;
  };
  const regions = frame.setup.regions;
  const unmarked = regions.filter((region) => !frame.marks?.some((mark) => mark.region_id === region.id));
  const mark = frame.marks?.find((one) => one.region_id === chosen);
  const report = told?.report;
  const setMark = (mark: FrameMark) =>
    void save((now) => ({
      ...now,
      marks: [...now.marks.filter((one) => one.region_id !== mark.region_id), mark],
    }));
  const histograms = told?.histograms ?? [];
  // That of the mark that is chosen; otherwise the whole frame's, which is the first.
  const histogram = histograms.find((one) => one.region_id === chosen) ?? histograms[0];
  const nameOf = (id: string) => regions.find((region) => region.id === id)?.name ?? id;
  return (
    <Parts>
      {frame.simulated && (
        <Notice>
          <strong>Simulated. </strong>The stand-in camera made this frame: it is of no real place.
        </Notice>
      )}
      <Marks frame={frame} chosen={chosen} choose={setChosen} setMark={setMark} missing={missing} />
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      {frame.marks_by === 'lost' && (
        <Notice>
          <strong>The marks may lie beside their regions. </strong>This frame could not be followed from the one before
          it: it has moved, or is of another size. Look at each mark.
        </Notice>
      )}
      {(frame.wrong?.length ?? 0) > 0 && (
        <Notice>
          <strong>Its file says what cannot be: </strong>
          {frame.wrong?.join(', ')}. That is left out.
        </Notice>
      )}
      {(setup.shots?.length ?? 0) > 0 && (
        <Row $below>
          <Choice
            name="Which shot it is of"
            value={frame.shot_id ?? ''}
            options={[
              { id: '', label: 'Not said: a picture' },
              ...(setup.shots ?? []).map(({ id, name }) => ({ id, label: name })),
            ]}
            onChange={(id) => void save((now) => ({ ...now, shot_id: id || null }))}
          />
        </Row>
      )}
      {same && <PlateNote same={same} />}
      {report && report.lacking.length > 0 && <Lacking frame={frame} lacking={report.lacking} save={save} />}
      <Headline data-testid="frame-says">{report?.says}</Headline>
      {report && (
        <Scroll>
          <Came aria-label="Planned and came, in stops from mid grey">
            <thead>
              <tr>
                <th scope="col">Region</th>
                <th scope="col">Planned</th>
                <th scope="col">Came</th>
                <th scope="col">Off by</th>
                <th scope="col">Expected</th>
                <th scope="col">Clipped</th>
              </tr>
            </thead>
            <tbody>
              {report.regions.map((region) => (
                <tr key={region.region_id}>
                  <td>
                    {region.name}
                    <small>{region.says}</small>
                    {region.balance && <small>{region.balance}</small>}
                  </td>
                  <td>{region.planned?.exact ?? '–'}</td>
                  <td>{region.came?.exact ?? '–'}</td>
                  <td>{region.off ? `${region.off.exact}` : '–'}</td>
                  <td>{region.expected ?? '–'}</td>
                  <td>{region.clipped_percent == null ? '–' : `${Math.round(region.clipped_percent)} %`}</td>
                </tr>
              ))}
            </tbody>
          </Came>
        </Scroll>
      )}
      <Quiet>Stops from mid grey, as a grey card would have there.</Quiet>
      {report?.notes.map((note) => (
        <Quiet key={note}>{note}</Quiet>
      ))}
      <Grid $below $min={240}>
        {histogram && (
          <div>
            <Part>{histogram.region_id ? `Under the mark of ${nameOf(histogram.region_id)}` : 'The whole frame'}</Part>
            <Histogram counted={histogram.counted} clipped={histogram.clipped_percent} />
          </div>
        )}
        <div>
          <Part>Marks</Part>
          <Quiet>Drag a mark, or move it with the arrow keys; with Shift they size it.</Quiet>
          <Row $below $gap={6}>
            {unmarked.map((region) => (
              <Button
                key={region.id}
                onPress={() => {
                  setChosen(region.id);
                  setMark({
                    region_id: region.id,
                    left: 0.47,
                    top: 0.45,
                    width: 0.06,
                    height: 0.09,
                    round: true,
                    by_proof: true,
                  });
                }}
              >
                Mark {region.name}
              </Button>
            ))}
          </Row>
          {mark && (
            <MarkForm
              key={mark.region_id}
              mark={mark}
              name={nameOf(mark.region_id)}
              surfaces={report?.surfaces ?? []}
              setMark={setMark}
              away={() => {
                setChosen(undefined);
                void save((now) => ({ ...now, marks: now.marks.filter((one) => one.region_id !== mark.region_id) }));
              }}
            />
          )}
        </div>
        <Note key={frame.id} frame={frame} save={save} />
      </Grid>
    </Parts>
  );
}

type FormProps = {
  mark: FrameMark;
  name: string;
  surfaces: FrameReport['surfaces'];
  setMark: (mark: FrameMark) => void;
  away: () => void;
};

function MarkForm({ mark, name, surfaces, setMark, away }: FormProps) {
  const stops = mark.surface_stops ?? 0;
  const known = surfaces.find((one) => Math.abs(one.stops - stops) < 0.005);
  const other = known || mark.by_proof ? [] : [{ id: 'other', label: 'Something else' }];
  return (
    <>
      <Row $below>
        <Choice
          name={`Under the mark of ${name}`}
          value={mark.by_proof ? 'proof' : (known?.code ?? 'other')}
          options={[
            { id: 'proof', label: 'What the proof shows there' },
            ...surfaces.map(({ code, name }) => ({ id: code, label: name })),
            ...other,
          ]}
          onChange={(id) => {
            const surface = surfaces.find((one) => one.code === id);
            if (id === 'proof') setMark({ ...mark, by_proof: true });
            if (surface) setMark({ ...mark, by_proof: false, surface_stops: surface.stops });
          }}
        />
        <LooseField
          name="Brighter than mid grey, stops"
          as="stops"
          value={stops}
          least={-8}
          most={4}
          onValue={(surface_stops) => setMark({ ...mark, by_proof: false, surface_stops })}
          keptAs={`frames/surface/${mark.region_id}`}
        />
      </Row>
      <Row $below>
        <Segments
          name="Shape"
          value={mark.round ? 'round' : 'box'}
          options={[
            { id: 'round', label: 'Round' },
            { id: 'box', label: 'Box' },
          ]}
          onChange={(shape) => setMark({ ...mark, round: shape === 'round' })}
        />
        <Button onPress={away}>Take the mark away</Button>
      </Row>
    </>
  );
}

/** Changes the frame as it is stored; whether that went well. */
type Save = (change: (now: FrameEdit) => FrameEdit) => Promise<boolean>;

/** What its file does not say is asked once. */
function Lacking({ frame, lacking, save }: { frame: TakenFrame; lacking: string[]; save: Save }) {
  const { settings } = frame;
  const put = (part: Partial<FrameEdit['settings']>) =>
    void save((now) => ({ ...now, settings: { ...now.settings, ...part } }));
  const kept = (field: string) => `frames/${frame.id}/${field}`;
  return (
    <Notice>
      <strong>Its file does not say all it was taken with. </strong>What you give here stays with the frame.
      <Grid $below $min={130}>
        {lacking.includes('settings') && (
          <>
            <LooseField
              name="Shutter"
              as="shutter"
              value={settings.shutter_s}
              least={0.00001}
              most={3600}
              onValue={(shutter_s) => put({ shutter_s })}
              keptAs={kept('shutter_s')}
            />
            <LooseField
              name="Aperture"
              as="aperture"
              value={settings.f_number}
              least={0.5}
              most={128}
              onValue={(f_number) => put({ f_number })}
              keptAs={kept('f_number')}
            />
            <LooseField
              name="ISO"
              as="iso"
              value={settings.iso}
              least={3}
              most={10_000_000}
              onValue={(iso) => put({ iso })}
              keptAs={kept('iso')}
            />
          </>
        )}
        {lacking.includes('flash') && (
          <Segments
            name="The flash"
            value={settings.flash == null ? 'unsaid' : settings.flash ? 'fired' : 'off'}
            options={[
              { id: 'fired', label: 'Fired' },
              { id: 'off', label: 'Was off' },
            ]}
            onChange={(flash) => put({ flash: flash === 'fired' })}
          />
        )}
      </Grid>
    </Notice>
  );
}

function Note({ frame, save }: { frame: TakenFrame; save: Save }) {
  const key = `frames/${frame.id}/note`;
  const [text, setText] = useState(() => readTyped(key) ?? frame.note ?? '');
  return (
    <TextField
      name="Note"
      value={text}
      onChange={(typed) => {
        setText(typed);
        writeTyped(key, typed);
      }}
      onFinish={() => {
        if (text === (frame.note ?? '')) writeTyped(key, undefined);
        else void save((now) => ({ ...now, note: text })).then((good) => good && writeTyped(key, undefined));
      }}
      lines
      most={2000}
    />
  );
}
