import { type ReactNode, useEffect, useRef } from 'react';
import { useCame } from '../../ui/came';
import { Title } from '../../ui/Panel';

/** The heading of a step. Who comes from another one is brought to it. */
export function StepTitle({ children }: { children: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null);
  // The first page of a visit has the focus where the browser puts it.
  const came = useCame();
  useEffect(() => {
    if (came) heading.current?.focus({ preventScroll: false });
  }, [came]);
  return (
    <Title ref={heading} tabIndex={-1}>
      {children}
    </Title>
  );
}
