import { Button as AriaButton, type ButtonProps, Link as AriaLink, type LinkProps } from 'react-aria-components';
import styled, { css } from 'styled-components';

const look = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  min-height: 34px;
  padding: 5px 12px;
  border: 1px solid var(--control-line);
  border-radius: 7px;
  background: var(--panel);
  color: var(--ink);
  text-decoration: none;
  cursor: pointer;
  font-weight: 550;
  &[data-hovered] {
    background: var(--chosen);
  }
  &[data-pressed] {
    background: var(--line);
  }
  &[data-disabled] {
    color: var(--quiet);
    border-color: var(--line);
    cursor: default;
  }
  @media (pointer: coarse) {
    min-height: 44px;
    min-width: 44px;
  }
`;

const Plain = styled(AriaButton)`
  ${look}
`;
const Strong = styled(AriaButton)`
  ${look}
  background: var(--ink);
  color: var(--panel);
  border-color: var(--ink);
  &[data-hovered],
  &[data-pressed] {
    background: var(--quiet);
  }
  &[data-disabled] {
    background: var(--line);
    color: var(--panel);
  }
`;
const Bare = styled(AriaButton)`
  ${look}
  &,
  &[data-disabled] {
    border-color: transparent;
  }
  background: none;
  padding: 5px 9px;
`;

export function Button({ kind = 'plain', ...props }: ButtonProps & { kind?: 'plain' | 'strong' | 'bare' }) {
  if (kind === 'strong') return <Strong {...props} />;
  if (kind === 'bare') return <Bare {...props} />;
  return <Plain {...props} />;
}

const LookedLink = styled(AriaLink)`
  ${look}
`;
const BareLink = styled(LookedLink)`
  border-color: transparent;
  background: none;
  padding: 5px 9px;
`;
export function ButtonLink({ kind = 'plain', ...props }: LinkProps & { kind?: 'plain' | 'bare' }) {
  return kind === 'bare' ? <BareLink {...props} /> : <LookedLink {...props} />;
}
