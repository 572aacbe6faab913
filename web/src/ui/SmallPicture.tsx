import { useState } from 'react';
import styled from 'styled-components';
import { radius } from './tokens';

const Frame = styled.span`
  display: block;
  flex: none;
  width: 88px;
  height: 58px;
  border-radius: ${radius.small}px;
  background: var(--hair);
  overflow: hidden;
  img {
    display: block;
    width: 100%;
    height: 100%;
    object-fit: cover;
  }
`;

/** A small picture beside a line that says the same in words; where there is none, an even field. */
export function SmallPicture({ src }: { src: string | undefined }) {
  const [gone, setGone] = useState<string>();
  return (
    <Frame aria-hidden>
      {src && src !== gone && <img src={src} alt="" loading="lazy" decoding="async" onError={() => setGone(src)} />}
    </Frame>
  );
}
