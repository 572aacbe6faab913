import { Check } from 'lucide-react';
import { memo } from 'react';
import styled from 'styled-components';
import { Label, SelectValue } from 'react-aria-components';
import type { WhiteBalance } from '../../api/client';
import { useStart } from '../../api/start';
import { useSetup } from '../../session/job';
import { Floating, Item } from '../../ui/ChoiceList';
import { FieldName } from '../../ui/field';
import { Big, Cell, Head, LongList, Tick } from './DialSelect';

const Long = styled(Big)<{ $long: boolean }>`
  font-size: ${({ $long }) => ($long ? 21 : 27)}px;
  line-height: 36px;
`;

const schools: { id: string; label: string; balance: WhiteBalance }[] = [
  { id: 'flash', label: 'The flash’s', balance: 'flash' },
  { id: 'ambient', label: 'The ambient’s', balance: 'ambient' },
  { id: 'between', label: 'Between the two', balance: 'between' },
  { id: 'measured', label: 'Measured with a target', balance: 'measured' },
];

const keyOf = (balance: WhiteBalance): string =>
  typeof balance === 'string' ? balance : 'preset' in balance ? balance.preset : 'kelvin';

/** The white balance on the dial card: a school, or a name on the camera's menu. */
export default memo(function BalanceSelect({ label }: { label: string }) {
  const { setup, set } = useSetup();
  const start = useStart();
  const balance = setup.white_balance ?? 'flash';
  const key = keyOf(balance);
  const options = [
    ...schools,
    ...(start?.presets ?? []).map((one) => ({
      id: one.preset as string,
      label: one.name,
      balance: { preset: one.preset },
    })),
    ...(key === 'kelvin' ? [{ id: 'kelvin', label, balance }] : []),
  ];
  // The flash of the menu and the flash's own have one word.
  const unique = options.map((one, index) => ({ ...one, id: index >= schools.length ? `menu-${one.id}` : one.id }));
  const chosen = typeof balance === 'string' ? key : `menu-${key}`;
  return (
    <Cell
      value={chosen}
      onChange={(to) => {
        const one = unique.find((option) => option.id === to);
        if (one && to !== chosen) set(`White balance: ${one.label}`, ['white_balance'], one.balance);
      }}
    >
      <Head>
        <Label>
          <FieldName>White balance</FieldName>
        </Label>
      </Head>
      <Long $long={label.length > 7}>
        <SelectValue>{() => label}</SelectValue>
      </Long>
      <Floating placement="bottom end">
        <LongList>
          {unique.map((one) => (
            <Item key={one.id} id={one.id} textValue={one.label}>
              {({ isSelected }) => (
                <>
                  <Tick>{isSelected && <Check size={15} aria-hidden />}</Tick>
                  {one.label}
                </>
              )}
            </Item>
          ))}
        </LongList>
      </Floating>
    </Cell>
  );
});
