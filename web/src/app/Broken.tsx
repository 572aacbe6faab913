import styled from 'styled-components';
import { Button, ButtonLink } from '../ui/Button';
import { Notice, Row } from '../ui/Panel';
import { space } from '../ui/tokens';

const Page = styled.main`
  padding: ${space.wide}px;
  max-width: 720px;
  display: grid;
  gap: ${space.part}px;
`;

/** Something on this page broke: what is kept, and the ways on. */
export function Broken({ again, error }: { again: () => void; error: Error }) {
  return (
    <Page>
      <h1>This page broke</h1>
      <Notice role="alert">
        <strong>That is a fault of Tolva. </strong>
        What was saved is saved, and what was not is kept in this browser. It says: {error.message}
      </Notice>
      <Row>
        <Button kind="strong" onPress={again}>
          Try again
        </Button>
        <Button onPress={() => window.location.reload()}>Load the page anew</Button>
        <ButtonLink href="/">All jobs</ButtonLink>
      </Row>
    </Page>
  );
}
