import { useEffect, useState } from 'react';

/** How wide a part is drawn, followed as it changes; `ref` goes to the part. */
export function useWidth(first: number): { width: number; ref: (part: HTMLDivElement | null) => void } {
  const [part, setPart] = useState<HTMLDivElement | null>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    if (!part) return undefined;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width));
    watch.observe(part);
    return () => watch.disconnect();
  }, [part]);
  return { width, ref: setPart };
}
