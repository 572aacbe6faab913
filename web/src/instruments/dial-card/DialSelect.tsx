import { Check, Lock } from 'lucide-react';
import { Button, Label, ListBox, Select, SelectValue } from 'react-aria-components';
import { memo, useMemo } from 'react';
import styled from 'styled-components';
import type { Camera, Lens } from '../../api/client';
import { useSetup } from '../../session/job';
import { Floating, Item } from '../../ui/ChoiceList';
import { cellLook, cellValueLook } from './look';
import { dialNames, fixedAs, useDials, type Which } from './dials';
import { FieldName } from '../../ui/field';

export const Cell = styled(Select)`
  ${cellLook}
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
  ${cellValueLook}
  border: none;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
  border-radius: 4px;
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

export const LongList = styled(ListBox)`
  max-height: 320px;
  overflow: auto;
`;

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
export default memo(function DialSelect({ which, camera, lens, label, fixed, note }: Props) {
  const { set } = useSetup();
  const dials = useDials(camera, lens);
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
    set(
      value === undefined ? `${dialNames[which]} left to Tolva` : `${dialNames[which]} fixed`,
      ['fixed', fixedAs[which]],
      value,
    );
  return (
    <Cell
      value={fixed === null || fixed === undefined ? 'free' : String(fixed)}
      onChange={(key) => fix(key === 'free' ? undefined : Number(key))}
    >
      <Head>
        <Label>
          <FieldName>{dialNames[which]}</FieldName>
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
        <LongList>{list}</LongList>
      </Floating>
    </Cell>
  );
});
