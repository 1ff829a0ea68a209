import type { Family } from './catalogue';

const MOST = 4;
const ROW = 22;
const WIDTH = 520;
const BOX = 168;

/** An application between its dependencies and its dependants. */
export function FamilyPicture({
  name,
  family,
  onChoose,
}: {
  name: string;
  family: Family;
  onChoose(name: string): void;
}) {
  const left = [
    ...short(family.neededBy).map((text) => ({ text, how: 'needs it' })),
    ...short(family.carriedBy).map((text) => ({ text, how: 'carries it' })),
  ];
  const right = [
    ...short(family.needs).map((text) => ({ text, how: 'needed' })),
    ...short(family.carries).map((text) => ({ text, how: 'carried' })),
  ];
  if (left.length + right.length === 0) {
    return <p className="text-[12px] text-dim">No dependencies.</p>;
  }
  const rows = Math.max(left.length, right.length, 1);
  const height = rows * ROW + 10;
  const y = (i: number, of: number) => height / 2 + (i - (of - 1) / 2) * ROW;
  const node = (x: number, at: number, text: string, how: string) => (
    <g
      key={how + text}
      role={isMore(text) ? undefined : 'button'}
      tabIndex={isMore(text) ? undefined : 0}
      aria-label={isMore(text) ? undefined : `${text}, ${how}`}
      className={isMore(text) ? '' : 'cursor-pointer'}
      onClick={() => !isMore(text) && onChoose(text)}
      onKeyDown={(e) => e.key === 'Enter' && !isMore(text) && onChoose(text)}
    >
      <rect x={x} y={at - 9} width={BOX} height={18} rx={3} className="fill-chip" />
      <text x={x + 6} y={at + 4} className="fill-ink text-[12px]">
        {cut(text)}
      </text>
      <text x={x + BOX - 6} y={at + 4} textAnchor="end" className="fill-dim text-[11px]">
        {how}
      </text>
    </g>
  );
  const middle = WIDTH / 2;
  return (
    <svg
      role="group"
      aria-label={`Dependencies of ${name}`}
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full max-w-[560px]"
    >
      {left.map((_, i) => (
        <path
          key={i}
          d={`M${BOX} ${y(i, left.length)} L${middle} ${height / 2}`}
          className="stroke-line"
          fill="none"
        />
      ))}
      {right.map((_, i) => (
        <path
          key={i}
          d={`M${middle} ${height / 2} L${WIDTH - BOX} ${y(i, right.length)}`}
          className="stroke-line"
          fill="none"
        />
      ))}
      {left.map(({ text, how }, i) => node(0, y(i, left.length), text, how))}
      {right.map(({ text, how }, i) => node(WIDTH - BOX, y(i, right.length), text, how))}
      <rect
        x={middle - 62}
        y={height / 2 - 11}
        width={124}
        height={22}
        rx={3}
        className="fill-sheet stroke-iron"
      />
      <text
        x={middle}
        y={height / 2 + 4}
        textAnchor="middle"
        className="fill-ink text-[12px] font-semibold"
      >
        {cut(name)}
      </text>
    </svg>
  );
}

const LONGEST = 17;
const cut = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST - 1)}…` : text);
const isMore = (text: string) => text.startsWith('and ') && text.endsWith(' more');

/** The first few, and how many more there are. */
function short(names: string[]): string[] {
  return names.length <= MOST
    ? names
    : [...names.slice(0, MOST - 1), `and ${names.length - MOST + 1} more`];
}
