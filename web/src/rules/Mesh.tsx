/**
 * The mesh: ten small holes, as many dark as tenths of the rule's match still get to it.
 *
 * @param says its accessible name; left out where the element around it has one
 * @param hole colour of an open hole
 */
export function Mesh({
  open,
  says,
  hole = 'var(--hole)',
}: {
  open: number;
  says?: string;
  hole?: string;
}) {
  return (
    <svg
      width="33"
      height="13"
      viewBox="0 0 33 13"
      role={says === undefined ? undefined : 'img'}
      aria-hidden={says === undefined}
      aria-label={says}
      className={says === undefined ? 'inline' : undefined}
    >
      {says !== undefined && <title>{says}</title>}
      {Array.from({ length: 10 }, (_, i) => (
        <rect
          key={i}
          x={(i % 5) * 7}
          y={i < 5 ? 0 : 7.5}
          width="5"
          height="5"
          rx="0.8"
          fill={i < open ? hole : 'var(--no-hole)'}
        />
      ))}
    </svg>
  );
}
