import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, ApiProblem, type CalculatorOffer } from '../../api/client';
import { LooseField } from '../../session/fields/LooseField';
import { LooseWords } from '../../session/fields/LooseWords';
import { Choice } from '../../ui/Choice';
import { Grid, Lead } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { Sheet } from '../../ui/Sheet';
import { figures, space } from '../../ui/tokens';
import { Wrong } from '../../ui/field';
import { TARGET, TargetSum } from './TargetSum';

const Result = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  margin-top: 16px;
  border-top: 1px solid var(--line);
  padding-top: 12px;
  dt {
    font-size: 13px;
    color: var(--quiet);
  }
  dd {
    ${figures} font-size: 25px;
    font-weight: 620;
    line-height: 1.2;
  }
  dd small {
    font-size: 14px;
    font-weight: 450;
  }
`;
const Lines = styled.ul`
  margin-top: 12px;
  color: var(--quiet);
  font-size: 13.5px;
`;

const Says = styled(Lead)`
  margin-top: ${space.gap}px;
`;

type Values = { [field: string]: number | string | null };
const first = (offer: CalculatorOffer): Values =>
  Object.fromEntries(offer.asked.map((asked) => [asked.field, asked.usual as number | string]));

/** Single calculations with their workings, reached from anywhere. */
export default function QuickSums({ onClose }: { onClose: () => void }) {
  const { data: offers = [] } = useQuery({
    queryKey: ['sums'],
    queryFn: () => answered(api.GET('/api/v1/calculators')),
    staleTime: Infinity,
  });
  const [name, setName] = useState('depth-of-field');
  const [all, setAll] = useState<{ [name: string]: Values }>({});
  const offer = offers.find((one) => one.name === name) ?? offers[0];
  return (
    <Sheet title="Quick sums" open onClose={onClose} width={720}>
      {offer && (
        <>
          <Choice
            name="Sum"
            value={name === TARGET ? TARGET : offer.name}
            options={[
              ...offers.map((one) => ({ id: one.name, label: `${one.group}: ${one.title}` })),
              { id: TARGET, label: 'Picture: Two-tone target' },
            ]}
            onChange={setName}
          />
          {name === TARGET ? (
            <TargetSum />
          ) : (
            <OneSum
              key={offer.name}
              offer={offer}
              values={all[offer.name] ?? first(offer)}
              put={(values) => setAll({ ...all, [offer.name]: values })}
            />
          )}
        </>
      )}
    </Sheet>
  );
}

type Props = { offer: CalculatorOffer; values: Values; put: (values: Values) => void };

/** A number as the core gave it, to what anyone reads off a scale. */
const shown = (value: unknown) =>
  typeof value === 'number'
    ? String(Number(value.toPrecision(4))).replace('-', '−')
    : typeof value === 'string'
      ? value
      : '–';

function OneSum({ offer, values, put }: Props) {
  // A shape needs only its own sizes.
  const choice = offer.asked.find((asked) => asked.choices.length > 0);
  const { data, error } = useQuery<Record<string, unknown>, ApiProblem>({
    queryKey: ['sum', offer.name, values],
    queryFn: async () => {
      const params = { path: { name: offer.name } };
      return (await answered(api.POST('/api/v1/calculators/{name}', { params, body: values as never }))) as Record<
        string,
        unknown
      >;
    },
    placeholderData: (before) => before,
    retry: false,
    staleTime: Infinity,
  });
  const workings = Array.isArray(data?.workings) ? (data.workings as string[]) : [];
  return (
    <>
      <Says>{offer.says}</Says>
      <Grid>
        {offer.asked.map((asked) => {
          if (asked.choices.length > 0) {
            return (
              <Segments
                key={asked.field}
                name={asked.name}
                value={String(values[asked.field])}
                options={asked.choices.map((one) => ({ id: one, label: `${one[0]?.toUpperCase()}${one.slice(1)}` }))}
                onChange={(to) => put({ ...values, [asked.field]: to })}
              />
            );
          }
          const keptAs = `sum/${offer.name}/${asked.field}`;
          const label = asked.unit ? `${asked.name}, ${asked.unit}` : asked.name;
          if (choice && asked.goes_with && asked.goes_with !== values[choice.field]) return null;
          return typeof asked.usual === 'string' ? (
            <LooseWords
              key={asked.field}
              name={label}
              value={String(values[asked.field])}
              put={(text) => put({ ...values, [asked.field]: text })}
              good={(text) => text.trim() !== ''}
              wrong={`Write it as ${asked.usual}.`}
              keptAs={keptAs}
            />
          ) : (
            <LooseField
              key={asked.field}
              name={label}
              as={asked.unit === 's' ? 'shutter' : 'number'}
              value={values[asked.field] as number}
              keptAs={keptAs}
              least={asked.least ?? -Infinity}
              most={asked.most ?? Infinity}
              onValue={(to) => put({ ...values, [asked.field]: to })}
            />
          );
        })}
      </Grid>
      {error ? (
        <Wrong role="alert">{error.message}</Wrong>
      ) : (
        <Result aria-label="Result" aria-live="polite">
          {offer.given.map((given) => (
            <div key={given.field}>
              <dt>{given.name}</dt>
              <dd>
                {shown(data?.[given.field])} <small>{data?.[given.field] === null ? '' : given.unit}</small>
              </dd>
            </div>
          ))}
        </Result>
      )}
      {workings.length > 0 && (
        <Lines aria-label="Workings">
          {workings.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </Lines>
      )}
    </>
  );
}
