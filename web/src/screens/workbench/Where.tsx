import { useMutation } from '@tanstack/react-query';
import { ListPlus } from 'lucide-react';
import { type ReactNode, Suspense, useState } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { useLocation } from 'wouter';
import { useJob, useLivePlan, useSetup } from '../../session/job';
import { Choice } from '../../ui/Choice';
import { lazily } from '../../ui/lazily';
import type { MenuEntry } from '../../ui/Menu';
import { Notice } from '../../ui/Panel';
import { narrow, phone, space, type } from '../../ui/tokens';
import { useMedia } from '../../ui/useMedia';
import { useNewSetup } from '../job/useNewSetup';
import type { StepId } from './steps';

const Menu = lazily(() => import('../../ui/Menu'));
const Names = lazily(() => import('./Names'));

const JobLink = styled(Link)`
  color: inherit;
  font-weight: 600;
  text-underline-offset: 4px;
  border-radius: 4px;
  padding: 7px 2px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  flex: none;
  max-width: min(40%, 300px);
`;
/** It gives way, and the name of the job does not: its own name stands in its list. */
const Setups = styled.div`
  min-width: 0;
  flex: 0 1 340px;
  ${narrow} {
    flex: 1 1 auto;
  }
`;
const Failed = styled(Notice)`
  margin: ${space.near}px ${space.gap}px;
  background: var(--panel);
`;
const SunBox = styled.p`
  flex: none;
  font-size: ${type.note}px;
  background: var(--chosen);
  border-radius: 7px;
  padding: 5px 10px;
  white-space: nowrap;
  @media (max-width: 1240px) {
    display: none;
  }
`;

/** Where the sun stands at the hour of the setup. */
function SunNow() {
  const says = useLivePlan((plan) => plan.sun_report?.says);
  return says ? <SunBox>{says}</SunBox> : null;
}

/** What can be done with this setup beside planning it, and what is on screen while it is done. */
export function useSetupMenu(step: StepId): { entries: MenuEntry[]; open: ReactNode } {
  const { id } = useJob();
  const { setup } = useSetup();
  const [, navigate] = useLocation();
  const [naming, setNaming] = useState(false);
  const begin = useNewSetup();
  const add = useMutation({
    mutationFn: begin,
    onSuccess: (made) => navigate(`/jobs/${id}/setups/${made.id}/${step}`),
  });
  const entries: MenuEntry[] = [
    {
      id: 'new-setup',
      name: 'New setup',
      icon: 'begin',
      run: () => add.mutate(undefined),
    },
    {
      id: 'copy',
      name: 'A copy of this one',
      icon: 'copy',
      run: () => add.mutate(setup.id),
    },
    {
      id: 'names',
      name: 'Names of job and setup',
      icon: 'rename',
      run: () => setNaming(true),
    },
    { id: 'job', name: 'The job', icon: 'folder', href: `/jobs/${id}` },
  ];
  const open = (
    <>
      {add.error && (
        <Failed role="alert">
          <strong>No setup was made. </strong>
          {add.error.message}
        </Failed>
      )}
      <Suspense>{naming && <Names onClose={() => setNaming(false)} />}</Suspense>
    </>
  );
  return { entries, open };
}

/** Which job and which setup this is, and the others. On a phone what there is more stands in the header's menu. */
export function Where({ step, entries }: { step: StepId; entries: MenuEntry[] }) {
  const { id, job } = useJob();
  const { setup } = useSetup();
  const [, navigate] = useLocation();
  const small = useMedia(phone);
  return (
    <>
      {!small && (
        <>
          <JobLink href={`/jobs/${id}`}>{job.name}</JobLink>
          <span aria-hidden>/</span>
        </>
      )}
      <Setups>
        <Choice
          name="Setup"
          unseenName
          value={setup.id}
          options={job.setups.map((one) => ({ id: one.id, label: one.name }))}
          onChange={(other) => navigate(`/jobs/${id}/setups/${other}/${step}`)}
        />
      </Setups>
      {!small && (
        <Suspense>
          <Menu name="This setup, and new ones" icon={<ListPlus size={18} aria-hidden />} entries={entries} />
        </Suspense>
      )}
      <SunNow />
    </>
  );
}
