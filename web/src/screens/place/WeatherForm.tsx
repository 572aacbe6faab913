import { useMutation } from '@tanstack/react-query';
import { CloudSun } from 'lucide-react';
import { memo } from 'react';
import styled from 'styled-components';
import { answered, api } from '../../api/client';
import { Told } from '../../instruments/Told';
import { Field } from '../../session/fields/Field';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Notice, Stack } from '../../ui/Panel';
import { useScene } from './useScene';

const Column = styled(Stack)`
  align-items: flex-start;
  > :not(button) {
    width: 100%;
  }
`;

/** Cloud by hand, or as a forecast gave it. */
export const WeatherForm = memo(function WeatherForm() {
  const { ask } = useSetup();
  const { scene, put } = useScene();
  const forecasting = useMutation({
    mutationFn: () =>
      answered(api.POST('/api/v1/forecast', { body: { site: scene?.site as never, date: scene?.at.date ?? '' } })),
    onSuccess: (forecast) => put('Forecast', 'weather', { forecast }),
  });
  if (!scene) return null;
  const { weather } = scene;
  const forecast = 'forecast' in weather ? weather.forecast : undefined;
  return (
    <Column>
      <h3>Weather</h3>
      {forecast ? (
        <>
          <p>
            Cloud hour by hour from “{forecast.source}”{forecast.simulated && ', made up: no real weather'}.
          </p>
          <Button onPress={() => ask('Cloud by hand', 'cloud_by_hand', 'weather')}>By hand instead</Button>
        </>
      ) : (
        <>
          <Field of="SteadyCloud.cloud_eighths" at={['scene', 'weather', 'steady', 'cloud_eighths']} />
          <Button onPress={() => forecasting.mutate()}>
            <CloudSun size={16} aria-hidden /> Simulated forecast
          </Button>
        </>
      )}
      <Told about="weather" />
      {forecasting.error && (
        <Notice role="alert">
          <strong>No forecast. </strong>
          {forecasting.error.message}
        </Notice>
      )}
    </Column>
  );
});
