import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Upload } from 'lucide-react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { answered, api, ApiProblem, type Place, type Site } from '../../api/client';
import { readTyped, writeTyped } from '../../session/drafts';
import { useJob, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { Suggest } from '../../ui/Suggest';
import { useScene } from './useScene';

const Line = styled.div`
  display: flex;
  gap: 8px;
  align-items: flex-end;
  > div {
    flex: 1;
    min-width: 0;
  }
`;
const List = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  > button {
    justify-content: flex-start;
  }
`;

const Below = styled(Notice)`
  margin-top: 8px;
`;

const siteOf = (place: Place): Site => ({
  name: place.name.slice(0, 120),
  latitude_deg: place.latitude_deg,
  longitude_deg: place.longitude_deg,
  elevation_m: place.elevation_m ?? 0,
  time_zone: place.time_zone,
});
const digits = (degrees: number) => degrees.toFixed(4).replace('-', '−');
const about = (place: Place) =>
  [place.within, `${digits(place.latitude_deg)}, ${digits(place.longitude_deg)}`, place.time_zone]
    .filter(Boolean)
    .join(' · ');

/** As much of a file as is read: a photo has its position at its beginning. */
const mostBytes = 4 * 1024 * 1024;

/** A place by its name, by coordinates, or out of a file. */
export function PlaceFinder({ label = 'Find a place' }: { label?: string }) {
  const { id } = useJob();
  const { setup } = useSetup();
  const { goTo } = useScene();
  // A place that is being looked for belongs to its setup.
  const keptAs = `${id}/${setup.id}/place`;
  const [text, setText] = useState(() => readTyped(keptAs) ?? '');
  const [wrong, setWrong] = useState<string>();
  const [several, setSeveral] = useState<Place[]>();
  const asked = useDeferredValue(text.trim());
  const { data, error } = useQuery<{ places: Place[] }, ApiProblem>({
    queryKey: ['places', asked],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/v1/places', { params: { query: { text: asked.slice(0, 200) } }, signal })),
    enabled: asked.length > 1,
    retry: false,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  const found = asked.length > 1 && !error ? (data?.places ?? []) : [];

  const type = (typed: string) => {
    setText(typed);
    setWrong(undefined);
    writeTyped(keptAs, typed === '' ? undefined : typed);
  };
  const pick = async (place: Place | undefined) => {
    if (!place) return;
    const problem = await goTo(siteOf(place));
    setWrong(problem);
    if (!problem) {
      type('');
      setSeveral(undefined);
    }
  };
  const readFile = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setWrong(undefined);
    try {
      const body = file.slice(0, mostBytes) as unknown as number[];
      const answer = await answered(
        api.POST('/api/v1/places/file', {
          body,
          bodySerializer: (bytes) => bytes,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      );
      if (answer.places.length === 1) await pick(answer.places[0]);
      else setSeveral(answer.places);
    } catch (failure) {
      setWrong(`${file.name}: ${failure instanceof ApiProblem ? failure.message : 'it cannot be read'}`);
    }
  };

  return (
    <>
      <Line>
        <div>
          <Suggest
            name={label}
            text={text}
            onText={type}
            placeholder="Kotka, or 60.4612, 26.9528"
            found={found.map((place, index) => ({ id: String(index), name: place.name || text, more: about(place) }))}
            onPick={(key) => void pick(found[Number(key)])}
            wrong={asked.length > 2 && error && error.status !== 0 ? error.message : undefined}
          />
        </div>
        <FileTrigger
          acceptedFileTypes={['.gpx', '.geojson', '.json', 'image/*']}
          onSelect={(files) => void readFile(files)}
        >
          <Button aria-label="Place from a file: GPX, GeoJSON or a photo">
            <Upload size={16} aria-hidden /> From a file
          </Button>
        </FileTrigger>
      </Line>
      {wrong && (
        <Below role="alert">
          <strong>No place. </strong>
          {wrong}
        </Below>
      )}
      <Sheet title="Which point?" open={several !== undefined} onClose={() => setSeveral(undefined)}>
        <List>
          {several?.map((place, index) => (
            <Button key={index} onPress={() => void pick(place)}>
              {place.name || `Point ${index + 1}`}, {about(place)}
            </Button>
          ))}
        </List>
      </Sheet>
    </>
  );
}
