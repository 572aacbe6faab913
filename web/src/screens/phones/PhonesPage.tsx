import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Smartphone, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type DeviceLine } from '../../api/client';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Lead, Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { TextField } from '../../ui/TextField';
import { space } from '../../ui/tokens';
import { when } from '../../ui/when';
import { Page } from '../frame/Page';

const Picture = styled.img`
  width: 240px;
  height: 240px;
  background: #fff;
  border: 8px solid #fff;
  border-radius: 4px;
`;
const Devices = styled.ul`
  li {
    border-top: 1px solid var(--line);
    padding: ${space.gap}px 0;
  }
`;

const rights = [
  { id: 'tick', label: 'Look, tick and note' },
  { id: 'look', label: 'Look only' },
  { id: 'all', label: 'Everything' },
] as const;
type Rights = (typeof rights)[number]['id'];

/** Phones and tablets on the set: a code for a new one, and what each may do. Only on the machine Tolva runs on. */
export default function PhonesPage() {
  const client = useQueryClient();
  const { data, error } = useQuery({
    queryKey: ['phones'],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/phones', { signal })),
    refetchInterval: 3000,
    retry: false,
  });
  const took = (now: unknown) => client.setQueryData(['phones'], now);
  const reach = useMutation({
    mutationFn: (on: boolean) => answered(api.PUT('/api/v1/phones', { body: { on } })),
    onSuccess: took,
  });
  return (
    <Page>
      <h1>Phones</h1>
      {error ? (
        <Notice role="alert">
          <strong>Phones are let in on the machine Tolva runs on. </strong>
          {error.message}
        </Notice>
      ) : (
        <>
          <Panel aria-labelledby="reach">
            <Part as="h2" id="reach">
              On the set’s own network
            </Part>
            {data?.address ? (
              <>
                <p>
                  Phones on the same network reach Tolva at <code>{data.address}</code>, over a line that nobody else
                  reads. Nobody is let in without a code.
                </p>
                <Quiet>Fingerprint of Tolva’s certificate (SHA-256), to hold against the phone’s:</Quiet>
                <p>
                  <code>{data.fingerprint}</code>
                </p>
                <Row $below>
                  <Button onPress={() => reach.mutate(false)}>Close it</Button>
                </Row>
              </>
            ) : (
              <>
                <Lead>
                  Tolva answers this machine only. Let phones reach it, and one that reads a code can show the plan,
                  tick shots and take notes; it keeps what it knew when this machine is gone.
                </Lead>
                <Button kind="strong" onPress={() => reach.mutate(true)} isDisabled={!data || reach.isPending}>
                  <Smartphone size={17} aria-hidden /> Let phones reach Tolva
                </Button>
              </>
            )}
            {reach.error && (
              <Notice role="alert">
                <strong>Phones cannot be let in. </strong>
                {reach.error.message}
              </Notice>
            )}
          </Panel>
          {data?.address && <NewPhone devices={data.devices.length} />}
          <Panel aria-labelledby="devices">
            <Part as="h2" id="devices">
              Let in
            </Part>
            {data?.devices.length === 0 && <Lead $tight>No device was let in yet.</Lead>}
            <Devices aria-label="Devices that were let in">
              {data?.devices.map((device) => (
                <Device key={device.id} device={device} took={took} />
              ))}
            </Devices>
          </Panel>
        </>
      )}
    </Page>
  );
}

/** A code for one device: good for two minutes. */
function NewPhone({ devices }: { devices: number }) {
  const [may, setMay] = useState<Rights>('tick');
  const [left, setLeft] = useState(0);
  const code = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/phones/code', { body: { rights: may } })),
    onSuccess: (made) => setLeft(made.seconds),
  });
  const { reset } = code;
  useEffect(() => {
    if (left <= 0) return;
    const timer = window.setTimeout(() => setLeft(left - 1), 1000);
    return () => window.clearTimeout(timer);
  }, [left]);
  // A code that was used is shown no longer.
  useEffect(() => reset(), [devices, reset]);
  return (
    <Panel aria-labelledby="new">
      <Part as="h2" id="new">
        A new one
      </Part>
      <Row>
        <Choice name="It may" value={may} options={[...rights]} onChange={setMay} />
        <Button kind="strong" onPress={() => code.mutate()}>
          {code.data ? 'Another code' : 'Show a code'}
        </Button>
      </Row>
      {code.error && <Notice role="alert">{code.error.message}</Notice>}
      {code.data && left > 0 && (
        <>
          <p>Read it with the phone’s camera. It is good for one device, {left} s more.</p>
          <Picture
            src={`data:image/svg+xml,${encodeURIComponent(code.data.picture)}`}
            alt={`The code as a picture: ${code.data.url}`}
          />
          <p>
            <code data-testid="join">{code.data.url}</code>
          </p>
          <Quiet>
            The phone’s browser warns, since Tolva made its certificate itself: hold the fingerprint it shows against
            the one above, and go on only where they are the same.
          </Quiet>
        </>
      )}
      {code.data && left <= 0 && <p role="status">The code is no longer good.</p>}
    </Panel>
  );
}

function Device({ device, took }: { device: DeviceLine; took: (now: unknown) => void }) {
  const [name, setName] = useState(device.name);
  const params = { path: { id: device.id } };
  const change = useMutation({
    mutationFn: (to: { name: string; rights: Rights }) =>
      answered(api.PUT('/api/v1/phones/{id}', { params, body: to })),
    onSuccess: took,
  });
  const out = useMutation({
    mutationFn: () => answered(api.DELETE('/api/v1/phones/{id}', { params })),
    onSuccess: took,
  });
  return (
    <li>
      <Row>
        <TextField
          name="Name"
          value={name}
          most={60}
          onChange={setName}
          wrong={change.error?.message}
          onFinish={() => name !== device.name && change.mutate({ name, rights: device.rights })}
          onEscape={() => setName(device.name)}
        />
        <Choice
          name={`${device.name} may`}
          value={device.rights}
          options={[...rights]}
          onChange={(to) => change.mutate({ name: device.name, rights: to })}
        />
        <Button aria-label={`Put out ${device.name}`} onPress={() => out.mutate()}>
          <Trash2 size={16} aria-hidden /> Put out
        </Button>
      </Row>
      <Quiet>Let in {when(device.joined_at)}</Quiet>
    </li>
  );
}
