import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { Button } from './Button';

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: rgb(0 0 0 / 0.45);
  display: flex;
  align-items: flex-start;
  justify-content: center;
  padding: 6vh 12px 12px;
  overflow: auto;
  z-index: 10;
`;
const Frame = styled(Modal)<{ $width: number }>`
  width: min(100%, ${({ $width }) => $width}px);
  background: var(--panel);
  border: 1px solid var(--control-line);
  border-radius: 11px;
`;
const Body = styled(Dialog)`
  padding: 16px 18px 20px;
  outline: none;
`;
const Head = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  margin-bottom: 10px;
  h2 {
    font-size: 19px;
  }
`;

type Props = {
  title: string;
  open: boolean;
  onClose: () => void;
  width?: number;
  /** False where a choice must be made. */
  dismissable?: boolean;
  children: ReactNode;
};

/** Something over the page that has its own beginning and end. */
export function Sheet({ title, open, onClose, width = 620, dismissable = true, children }: Props) {
  return (
    <Veil
      isOpen={open}
      onOpenChange={(is) => !is && onClose()}
      isDismissable={dismissable}
      isKeyboardDismissDisabled={!dismissable}
    >
      <Frame $width={width}>
        <Body>
          <Head>
            <Heading slot="title" level={2}>
              {title}
            </Heading>
            {dismissable && (
              <Button kind="bare" aria-label="Close" onPress={onClose}>
                <X size={18} aria-hidden />
              </Button>
            )}
          </Head>
          {children}
        </Body>
      </Frame>
    </Veil>
  );
}
