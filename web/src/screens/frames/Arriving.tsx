import { Upload as Up } from 'lucide-react';
import { useEffect } from 'react';
import { DropZone, FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { Bar } from '../../ui/Bar';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Row } from '../../ui/Panel';
import { radius, space } from '../../ui/tokens';
import { useUploads } from './useUploads';

const Zone = styled(DropZone)`
  border: 1.5px dashed var(--control-line);
  border-radius: ${radius.card}px;
  padding: ${space.gap}px ${space.part}px;
  &[data-drop-target] {
    background: var(--chosen);
    border-style: solid;
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
  }
`;
const Says = styled.p`
  flex: 1 1 220px;
  color: var(--quiet);
`;

const kinds = ['image/*', '.dng', '.tif', '.tiff'];

type Props<Came> = {
  /** Where each is sent to. */
  url: string;
  arrived: (came: Came) => void;
};

/** Where frames come in: dropped, chosen, pasted, or taken with a phone's camera. */
export function Arriving<Came>({ url, arrived }: Props<Came>) {
  const { now, wrong, add, stop } = useUploads(url, arrived);
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = event.clipboardData?.files;
      if (!files || files.length === 0) return;
      event.preventDefault();
      add(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [add]);
  return (
    <Zone
      aria-label="Frames: drop or paste pictures here"
      getDropOperation={() => 'copy'}
      onDrop={({ items }) => {
        const files = items.filter((item) => item.kind === 'file');
        void Promise.all(files.map((item) => item.getFile())).then(add);
      }}
    >
      <Row $apart>
        <Says>Drop frames here, or paste them: JPEG, PNG, TIFF, or a raw file by the picture it carries.</Says>
        <FileTrigger acceptedFileTypes={kinds} allowsMultiple onSelect={(files) => files && add(files)}>
          <Button>
            <Up size={17} aria-hidden /> Choose frames
          </Button>
        </FileTrigger>
      </Row>
      {now && (
        <Row>
          <Bar name={`Sending ${now.name}`} percent={now.percent} />
          <span role="status">
            {now.percent < 99.5 ? 'Sending' : 'Measuring'} {now.name}
            {now.left > 0 && `, ${now.left} more`}
          </span>
          <Button onPress={stop}>Stop</Button>
        </Row>
      )}
      {wrong.length > 0 && (
        <Wrong role="alert">
          {wrong.map((one) => (
            <span key={one}>{one} </span>
          ))}
        </Wrong>
      )}
    </Zone>
  );
}
