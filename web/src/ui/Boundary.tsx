import { Component, type ReactNode } from 'react';

type Props = { children: ReactNode; otherwise: (again: () => void, error: Error) => ReactNode };

/** Catches what breaks under it, and shows a way on instead of an empty page. */
export class Boundary extends Component<Props, { error: Error | undefined }> {
  override state: { error: Error | undefined } = { error: undefined };

  static getDerivedStateFromError(error: unknown) {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override render() {
    const { error } = this.state;
    return error ? this.props.otherwise(() => this.setState({ error: undefined }), error) : this.props.children;
  }
}
