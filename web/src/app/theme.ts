import { createGlobalStyle } from 'styled-components';
import { narrow, type } from '../ui/tokens';

/** Colours and measures, as CSS variables so that a change of theme repaints without a render. */
const daylight = `
  --ground: #dedede; --panel: #f4f4f4; --raised: #ffffff; --chosen: #e6e6e6;
  --ink: #161616; --quiet: #4c4c4c; --line: #b9b9b9; --control-line: #767676; --hair: #cfcfcf;
  --ambient: #0b6b78; --flash: #b83a14; --band: rgba(22, 22, 22, 0.16); --hatch: #8a8a8a; --focus: #161616;
`;
const dusk = `
  --ground: #191919; --panel: #242424; --raised: #2d2d2d; --chosen: #333333;
  --ink: #ececec; --quiet: #b4b4b4; --line: #4a4a4a; --control-line: #8c8c8c; --hair: #3a3a3a;
  --ambient: #63c7d2; --flash: #ff8d5e; --band: rgba(236, 236, 236, 0.2); --hatch: #7c7c7c; --focus: #ececec;
`;

export const GlobalStyle = createGlobalStyle`
  :root { color-scheme: light; ${daylight} }
  @media (prefers-color-scheme: dark) { :root:not([data-theme='daylight']) { color-scheme: dark; ${dusk} } }
  :root[data-theme='dusk'] { color-scheme: dark; ${dusk} }

  *, *::before, *::after { box-sizing: border-box; }
  html { -webkit-text-size-adjust: 100%; }
  /* What is focused is not hidden under the bars of a phone. */
  ${narrow} { html { scroll-padding: 112px 0 84px; } }
  body {
    margin: 0; background: var(--ground); color: var(--ink);
    font-family: 'Atkinson Hyperlegible Next Variable', sans-serif; font-size: ${type.body}px; line-height: 1.4;
  }
  h1, h2, h3, p, dl, dd, ol, ul { margin: 0; padding: 0; }
  h1, h2, h3 { font-weight: 650; line-height: 1.2; }
  ol, ul { list-style: none; }
  button, input, textarea, select { font: inherit; color: inherit; }
  :focus-visible, [data-focus-visible] { outline: 2.5px solid var(--focus); outline-offset: 2px; }
  .only-print { display: none; }
  @media print {
    :root, :root[data-theme] { color-scheme: light; ${daylight} --ground: #fff; --panel: #fff; --chosen: #fff; }
    .no-print { display: none !important; }
    .only-print { display: block; }
  }
  @media (prefers-reduced-motion: reduce) { * { animation: none !important; transition: none !important; } }
`;
