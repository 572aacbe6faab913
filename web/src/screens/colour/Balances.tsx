import { memo } from 'react';
import styled from 'styled-components';
import type { ColourOptions } from '../../api/client';
import { useSetup } from '../../session/job';
import { figures } from '../../ui/tokens';
import { Button } from '../../ui/Button';
import { Lead, Panel } from '../../ui/Panel';
import { Strip } from './Strip';

const List = styled.ul`
  > li {
    border-top: 1px solid var(--line);
    padding: 10px 0;
    display: grid;
    grid-template-columns: minmax(140px, 172px) minmax(0, 1fr) 78px;
    gap: 8px 12px;
    align-items: start;
  }
  > li[data-chosen] {
    border-left: 4px solid var(--ink);
    padding-left: 10px;
    margin-left: -14px;
  }
  h4 {
    font-size: 14.5px;
    font-weight: 650;
    margin: 0;
  }
  .label {
    ${figures} font-size: 19px;
    font-weight: 620;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
  }
  @media (max-width: 620px) {
    > li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .regions {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
`;
const Regions = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  > li {
    width: 134px;
    font-size: 13px;
  }
  b {
    font-weight: 600;
    display: block;

    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** Every school of white balance side by side, each with what becomes of the picture. */
export const Balances = memo(function Balances({ ways }: { ways: ColourOptions | undefined }) {
  const { setup, take } = useSetup();
  return (
    <Panel aria-labelledby="balances">
      <h3 id="balances">White balance, by school</h3>
      <Lead>
        What each does to a neutral grey, a white shirt, and pale, medium and dark skin. Practitioners disagree: choose
        by eye, and keep it.
      </Lead>
      <List aria-label="Schools of white balance">
        {ways?.conventions.map((way) => (
          <li key={way.name} data-chosen={way.chosen || undefined}>
            <div>
              <h4>{way.name}</h4>
              <span className="label">{way.label}</span>
              <small>{way.says}</small>
              {way.settings && <small>{way.settings}</small>}
            </div>
            <Regions className="regions">
              {way.regions.map((region) => (
                <li key={region.region_id}>
                  <b title={region.name}>{region.name}</b>
                  <Strip swatches={region.swatches} of={`${region.name}, ${way.name}`} small />
                  <small title={`Δu′v′ ${region.off_grey}`}>
                    {region.words}, {region.cast}
                  </small>
                </li>
              ))}
            </Regions>
            {way.chosen ? (
              <span>chosen</span>
            ) : (
              <Button
                aria-label={`Choose white balance: ${way.name}`}
                onPress={() => take(`White balance: ${way.name}`, way.setup, setup)}
              >
                Choose
              </Button>
            )}
          </li>
        ))}
      </List>
    </Panel>
  );
});
