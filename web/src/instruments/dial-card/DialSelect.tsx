import { useQuery } from '@tanstack/react-query';
import { Check, Lock } from 'lucide-react';
import { Button, Label, ListBox, Select, SelectValue } from 'react-aria-components';
import { memo, useMemo } from 'react';
import styled from 'styled-components';
import { answered, api, type Camera, type Lens } from '../../api/client';
import { useKeptSetup } from '../../jobs/JobContext';
import { figures } from '../../app/theme';
import { Floating, Item } from '../../ui/Choice';
import { FieldName } from '../../ui/field';

export const Cell = styled(Select)`
  padding: 9px 12px 7px;
  display: flex;
  flex-direction: column;
  min-width: 0;
`;
export const Head = styled.div`
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
export const Big = styled(Button)`
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
const Note = styled.p`
  font-size: 12.5px;
  line-height: 1.3;
  padding-left: 7px;
  border-left: 2px solid var(--ink);
`;
export const Tick = styled.span`
  width: 16px;
  flex: none;
  display: inline-flex;
`;

type Which = (typeof whichDials)[number];
const names: Record<Which, string> = { shutter: 'Shutter', aperture: 'Aperture', iso: 'ISO' };
/** The dials of a camera, in the order they are read. */
export const whichDials = ['shutter', 'aperture', 'iso'] as const;
/** What is fixed on each, as a setup has it. */
export const fixedAs = { shutter: 'shutter_s', aperture: 'f_number', iso: 'iso' } as const;

type Props = {
  which: Which;
  camera: Camera;
  lens: Lens;
  label: string;
  fixed: number | null | undefined;
  /** Where what is fixed is not on this camera or lens: what is used instead. */
  note: string | null | undefined;
};

/** One setting of the dial card: read at arm's length, and fixed or left to Tolva in place. */
export const DialSelect = memo(function DialSelect({ which, camera, lens, label, fixed, note }: Props) {
  const { change } = useKeptSetup();
  const { data: dials } = useQuery({
    queryKey: ['dials', camera, lens],
    queryFn: () => answered(api.POST('/api/v1/dials', { body: { camera, lens } })),
    staleTime: Infinity,
  });
  // A dial has half a hundred settings: its list is made once, not at every frame of a drag.
  const list = useMemo(() => {
    const settings = dials?.[which] ?? [];
    return [
      { key: 'free', label: 'Leave it to Tolva' },
      ...settings.map((one) => ({ key: String(one.nominal), label: one.label })),
    ].map((one) => (
      <Item key={one.key} id={one.key} textValue={one.label}>
        {({ isSelected }) => (
          <>
            <Tick>{isSelected && <Check size={15} aria-hidden />}</Tick>
            {one.label}
          </>
        )}
      </Item>
    ));
  }, [dials, which]);
  const fix = (value: number | undefined) =>
    change(value === undefined ? `${names[which]} left to Tolva` : `${names[which]} fixed`, (one) => ({
      ...one,
      fixed: { ...one.fixed, [fixedAs[which]]: value },
    }));
  return (
    <Cell
      value={fixed === null || fixed === undefined ? 'free' : String(fixed)}
      onChange={(key) => fix(key === 'free' ? undefined : Number(key))}
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
      {note && <Note>{note}</Note>}
      <Floating placement="bottom start">
        <ListBox style={{ maxHeight: 320, overflow: 'auto' }}>{list}</ListBox>
      </Floating>
    </Cell>
  );
});
