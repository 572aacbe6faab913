import { useQuery } from '@tanstack/react-query';
import { Check, Lock } from 'lucide-react';
import { Button, Label, ListBox, Select, SelectValue } from 'react-aria-components';
import styled from 'styled-components';
import { answered, api, type Camera } from '../../api/client';
import { figures } from '../../app/theme';
import { Floating, Item } from '../../ui/Choice';
import { FieldName } from '../../ui/field';

const Cell = styled(Select)`
  padding: 9px 12px 7px;
  display: flex;
  flex-direction: column;
  min-width: 0;
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  color: var(--quiet);
`;
const Held = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 3px;
  font-size: 12.5px;
`;
const Big = styled(Button)`
  ${figures} border: none;
  background: none;
  padding: 0;
  text-align: left;
  font-size: 31px;
  line-height: 1.15;
  font-weight: 620;
  cursor: pointer;
  border-radius: 4px;
  white-space: nowrap;
  &[data-hovered] {
    text-decoration: underline;
    text-decoration-thickness: 2px;
    text-underline-offset: 5px;
  }
`;
const Tick = styled.span`
  width: 16px;
  flex: none;
  display: inline-flex;
`;

type Which = 'shutter' | 'aperture' | 'iso';
const names: Record<Which, string> = { shutter: 'Shutter', aperture: 'Aperture', iso: 'ISO' };

type Props = {
  which: Which;
  camera: Camera;
  label: string;
  fixed: number | null | undefined;
  onFix: (value: number | undefined) => void;
};

/** One setting of the dial card: read at arm's length, and fixed or left to Tolva in place. */
export function DialSelect({ which, camera, label, fixed, onFix }: Props) {
  const { data: dials } = useQuery({
    queryKey: ['dials', camera],
    queryFn: () => answered(api.POST('/api/dials', { body: camera })),
    staleTime: Infinity,
  });
  const settings = dials?.[which] ?? [];
  const own = fixed !== null && fixed !== undefined && !settings.some((one) => one.nominal === fixed);
  const listed = own ? [...settings, { nominal: fixed, label }] : settings;
  return (
    <Cell
      value={fixed === null || fixed === undefined ? 'free' : String(fixed)}
      onChange={(key) => onFix(key === 'free' ? undefined : Number(key))}
    >
      <Head>
        <Label>
          <FieldName>{names[which]}</FieldName>
        </Label>
        {fixed !== null && fixed !== undefined && (
          <Held>
            <Lock size={12} aria-hidden /> fixed
          </Held>
        )}
      </Head>
      <Big>
        <SelectValue>{() => (which === 'iso' ? label.replace('ISO ', '') : label)}</SelectValue>
      </Big>
      <Floating placement="bottom start">
        <ListBox style={{ maxHeight: 320, overflow: 'auto' }}>
          {[
            { key: 'free', label: 'Leave it to Tolva' },
            ...listed.map((one) => ({ key: String(one.nominal), label: one.label })),
          ].map((one) => (
            <Item key={one.key} id={one.key} textValue={one.label}>
              {({ isSelected }) => (
                <>
                  <Tick>{isSelected && <Check size={15} aria-hidden />}</Tick>
                  {one.label}
                </>
              )}
            </Item>
          ))}
        </ListBox>
      </Floating>
    </Cell>
  );
}
