import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Autocomplete, Input, Menu, MenuItem, SearchField, useFilter } from 'react-aria-components';
import { useLocation } from 'wouter';
import styled from 'styled-components';
import { answered, api } from '../api/client';
import { boxLook } from '../ui/field';
import { Sheet } from '../ui/Sheet';
import { useKeys } from '../ui/shortcuts';

const Box = styled(Input)`
  ${boxLook} font-size: 17px;
  &::-webkit-search-cancel-button {
    appearance: none;
  }
`;
const Found = styled(Menu)`
  margin-top: 8px;
  outline: none;
`;
const One = styled(MenuItem)`
  padding: 8px 10px;
  border-radius: 6px;
  cursor: pointer;
  display: flex;
  justify-content: space-between;
  gap: 12px;
  outline: none;
  small {
    color: var(--quiet);
    font-size: 13px;
  }
  &[data-focused] {
    background: var(--chosen);
    box-shadow: inset 3px 0 var(--ink);
  }
`;

type Item = { id: string; name: string; words?: string; more: string; run: () => void };

/** Finds jobs, steps, blends, actions: everything that has a name. */
export default function Finder({ onClose }: { onClose: () => void }) {
  const { contains } = useFilter({ sensitivity: 'base' });
  const [, navigate] = useLocation();
  const keys = useKeys();
  const [text, setText] = useState('');
  const { data: jobs = [] } = useQuery({
    queryKey: ['jobs', 'found', text],
    queryFn: async () =>
      (await answered(api.GET('/api/v1/jobs', { params: { query: { search: text.slice(0, 200), limit: 20 } } }))).jobs,
    placeholderData: keepPreviousData,
  });
  const items: Item[] = [
    ...keys.all().map((one) => ({ id: `key-${one.does}`, name: one.does, more: one.name, run: one.run })),
    ...jobs.map((job) => ({
      id: job.id,
      name: job.name,
      // The core finds it by any of these; what it was found by must be there for the list to show it.
      words: [job.name, job.client, job.place, job.date, ...job.setups, text].join(' '),
      more: 'Job',
      run: () => navigate(`/jobs/${job.id}`),
    })),
    { id: 'all-jobs', name: 'All jobs', more: 'Page', run: () => navigate('/') },
    { id: 'kit', name: 'Kit', more: 'Page', run: () => navigate('/kit') },
    { id: 'drills', name: 'Drills', more: 'Page', run: () => navigate('/drills') },
    { id: 'phones', name: 'Phones', more: 'Page', run: () => navigate('/phones') },
    { id: 'sums', name: 'Quick sums', more: 'Q', run: keys.sums },
    { id: 'keys', name: 'List the keys', more: '?', run: keys.showKeys },
  ];
  return (
    <Sheet title="Find anything" open onClose={onClose} width={540}>
      <Autocomplete filter={contains} inputValue={text} onInputChange={setText}>
        <SearchField aria-label="Find" autoFocus>
          <Box placeholder="A job, a step, an action" />
        </SearchField>
        <Found
          aria-label="Found"
          renderEmptyState={() => 'Nothing has that name.'}
          onAction={(id) => {
            onClose();
            items.find((item) => item.id === id)?.run();
          }}
        >
          {items.map((item) => (
            <One key={item.id} id={item.id} textValue={item.words ?? item.name}>
              {item.name} <small>{item.more}</small>
            </One>
          ))}
        </Found>
      </Autocomplete>
    </Sheet>
  );
}
