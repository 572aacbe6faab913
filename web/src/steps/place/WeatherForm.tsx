import { CloudSun } from 'lucide-react';
import { memo, useState } from 'react';
import styled from 'styled-components';
import { answered, api, ApiProblem } from '../../api/client';
import { useJob } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Panel';
import { TypedField } from '../../ui/TypedField';
import { useScene } from './useScene';
import { rangeOf } from '../../api/ranges';

const Stack = styled.div`
  display: flex;
  flex-direction: column;
  gap: 10px;
  align-items: flex-start;
  > :not(button) {
    width: 100%;
  }
`;

/** Cloud by hand, or as a forecast gave it. */
export const WeatherForm = memo(function WeatherForm() {
  const { id } = useJob();
  const { scene, put } = useScene();
  const [wrong, setWrong] = useState<string>();
  if (!scene) return null;
  const { weather } = scene;
  const forecast = 'forecast' in weather ? weather.forecast : undefined;
  const ask = async () => {
    try {
      const body = { site: scene.site, date: scene.at.date };
      put('Forecast', { weather: { forecast: await answered(api.POST('/api/v1/forecast', { body })) } });
      setWrong(undefined);
    } catch (failure) {
      setWrong(failure instanceof ApiProblem ? failure.message : 'The forecast does not answer.');
    }
  };
  return (
    <Stack>
      <h3>Weather</h3>
      {forecast ? (
        <>
          <p>
            Cloud hour by hour from “{forecast.source}”{forecast.simulated && ', made up: no real weather'}.
          </p>
          <Button
            onPress={() =>
              put('Cloud by hand', {
                weather: { steady: { cloud_eighths: Math.round(forecast.hours[12]?.cloud_eighths ?? 0) } },
              })
            }
          >
            By hand instead
          </Button>
        </>
      ) : (
        <>
          <TypedField
            name="Cloud, eighths of the sky"
            as="number"
            value={'steady' in weather ? weather.steady.cloud_eighths : 0}
            keptAs={`${id}/cloud`}
            {...rangeOf('SteadyCloud.cloud_eighths')}
            hint="0 clear, 4 partly cloudy, 8 overcast"
            onValue={({ value }) => put('Cloud', { weather: { steady: { cloud_eighths: value } } })}
          />
          <Button onPress={() => void ask()}>
            <CloudSun size={16} aria-hidden /> Simulated forecast
          </Button>
        </>
      )}
      {wrong && (
        <Notice role="alert">
          <strong>No forecast. </strong>
          {wrong}
        </Notice>
      )}
    </Stack>
  );
});
