/** How far something is, 0 to 1, with its name for those who do not see the bar. */
export function Progress({ share, label, widthPx }: { share: number; label: string; widthPx?: number }) {
  return <progress className="share-done" max={1} value={share} aria-label={label} {...(widthPx ? { style: { width: widthPx } } : {})} />;
}
