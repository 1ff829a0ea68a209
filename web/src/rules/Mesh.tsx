/** The mesh: ten small holes, as many dark as tenths of the rule's match still get to it. */
export function Mesh({ open, says }: { open: number; says: string }) {
  return (
    <svg width="33" height="13" viewBox="0 0 33 13" role="img" aria-label={says}>
      <title>{says}</title>
      {Array.from({ length: 10 }, (_, i) => (
        <rect
          key={i}
          x={(i % 5) * 7}
          y={i < 5 ? 0 : 7.5}
          width="5"
          height="5"
          rx="0.8"
          fill={i < open ? 'var(--hole)' : 'var(--no-hole)'}
        />
      ))}
    </svg>
  );
}
