import { useMutation } from '@tanstack/react-query';
import { DropZone, FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { answered, api, type ApiProblem, type TargetRead } from '../../api/client';
import { Button } from '../../ui/Button';
import { Lead } from '../../ui/Panel';
import { figures, space } from '../../ui/tokens';
import { Wrong } from '../../ui/field';

/** The one sum that takes a picture. */
export const TARGET = 'two-tone-target';

const Zone = styled(DropZone)`
  margin-top: ${space.gap}px;
  display: grid;
  gap: ${space.gap}px;
  justify-items: start;
  &[data-drop-target] {
    outline: 2px solid var(--ink);
    outline-offset: 4px;
  }
`;
const Off = styled.p`
  ${figures} font-size: 20px;
  font-weight: 620;
`;

const KINDS = ['image/jpeg', 'image/png', 'image/tiff'];

/** How far a picture of a two-tone target is off, with no setup open: nothing of it is kept. */
export function TargetSum() {
  const { mutate, data, error, isPending } = useMutation<TargetRead, ApiProblem, File>({
    mutationFn: (file) =>
      answered(
        api.POST('/api/v1/calculators/two-tone-target', {
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
  });
  const take = (file: File | undefined) => {
    if (file) mutate(file);
  };
  return (
    <Zone
      aria-label="Two-tone target: drop a picture here"
      getDropOperation={() => 'copy'}
      onDrop={({ items }) => {
        const file = items.find((item) => item.kind === 'file');
        if (file?.kind === 'file') void file.getFile().then(take);
      }}
    >
      <Lead>Half white (90%), half black (3.5%), filling the frame or a part of it. JPEG, PNG or TIFF; not kept.</Lead>
      <FileTrigger acceptedFileTypes={KINDS} onSelect={(files) => take(files?.[0])}>
        <Button isDisabled={isPending}>{isPending ? 'Measuring…' : 'Choose a picture'}</Button>
      </FileTrigger>
      <div aria-live="polite">
        {error && <Wrong role="alert">{error.message}</Wrong>}
        {data && !error && (
          <>
            <Off>{data.says}</Off>
            {data.balance && <p>White balance: {data.balance}</p>}
          </>
        )}
      </div>
    </Zone>
  );
}
