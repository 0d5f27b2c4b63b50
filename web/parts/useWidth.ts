import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

/** Width of an element as it is laid out, followed while it changes; `assumed` until it is known. */
export function useWidth<Node extends Element>(assumed: number): [RefObject<Node | null>, number] {
  const ref = useRef<Node>(null);
  const [width, setWidth] = useState(assumed);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const follow = () => setWidth(Math.round(element.getBoundingClientRect().width) || assumed);
    follow();
    const observer = new ResizeObserver(follow);
    observer.observe(element);
    return () => observer.disconnect();
  }, [assumed]);
  return [ref, width];
}
