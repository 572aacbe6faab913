import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { useMe } from '../../api/me';
import { useJob } from '../../session/job';
import { newId } from '../../session/kit';
import { framesOf } from '../frames/framesOf';
import { space, type } from '../../ui/tokens';

const Line = styled.p`
  padding: ${space.hair}px 16px;
  font-size: ${type.note}px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
`;

/** What this window calls itself, for as long as it is open. */
function windowName(): string {
  const place = 'tolva.window';
  const name = sessionStorage.getItem(place) ?? newId();
  sessionStorage.setItem(place, name);
  return name;
}

/** What is done to the job on other devices shows here at once; who else looks at it; what this device may do. */
export default function Live() {
  const { id, session } = useJob();
  const client = useQueryClient();
  const [others, setOthers] = useState<string[]>([]);
  const { me, says: may } = useMe();
  useEffect(() => {
    let source: EventSource | undefined;
    const listen = () => {
      source?.close();
      source = undefined;
      // A browser keeps few lines open to one server: a window that nobody looks at needs none.
      if (document.visibilityState !== 'visible') return;
      source = new EventSource(`/api/v1/jobs/${encodeURIComponent(id)}/events?window=${windowName()}`);
      source.addEventListener('saved', () => {
        session.look();
        void client.invalidateQueries({ queryKey: ['log', id] });
      });
      source.addEventListener('frames', () => void client.invalidateQueries({ queryKey: framesOf(id) }));
      source.addEventListener('present', (event) =>
        setOthers((JSON.parse((event as MessageEvent<string>).data) as { others: string[] }).others),
      );
      // What was done while the line was cut is looked up when it is there again.
      source.addEventListener('open', () => session.look());
    };
    listen();
    document.addEventListener('visibilitychange', listen);
    return () => {
      document.removeEventListener('visibilitychange', listen);
      source?.close();
    };
  }, [id, session, client]);
  const names = [...new Set(others.map((name) => name || (me?.name ? 'the laptop' : 'another window')))];
  if (names.length === 0 && !may) return null;
  return (
    <Line role="status">
      {may} {names.length > 0 && `Also here: ${names.join(', ')}.`}
    </Line>
  );
}
