import type { ReactNode } from "react";
import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { Button } from "./Button";

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 40;
  background: rgb(0 0 0 / 40%);
  display: grid;
  place-items: center;
  padding: 16px;
`;
const Panel = styled(Modal)`
  width: min(620px, 100%);
  &[data-wide="true"] {
    width: min(980px, 100%);
  }
  max-height: 100%;
  overflow-y: auto;
  background: var(--ground);
  border: 3px solid var(--ink);
  section {
    padding: 24px;
    display: grid;
    gap: 16px;
    outline: none;
  }
`;

interface Props {
  title: string;
  isOpen: boolean;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
}

/** A plain dialog with a title and a way out. */
export function Sheet({ title, isOpen, onClose, children, wide = false }: Props) {
  return (
    <Veil isDismissable isOpen={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Panel data-wide={wide}>
        <Dialog>
          <Heading slot="title" level={2}>
            {title}
          </Heading>
          {children}
          <Button onPress={onClose}>Close</Button>
        </Dialog>
      </Panel>
    </Veil>
  );
}
