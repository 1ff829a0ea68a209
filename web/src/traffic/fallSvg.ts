import { percent, whole } from '../ui/numbers';
import type { Fall } from './fall';

const WIDTH = 1600;
const HEIGHT = 900;
const TOP = 150; // of the fall
const FOOT = 60;
const MOST = 16; // steps; the rest is one
const TRUNK = 420;
const LEFT = 90;
const TEXT = 860; // where the words begin

const COLOURS: Record<string, string> = {
  allow: '#0b6a60',
  drop: '#a93417',
  reject: '#6e3590',
  caution: '#855700',
};

const escaped = (text: string) =>
  text.replace(
    /[&<>"]/g,
    (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!,
  );

const shortened = (text: string, most: number) =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;

/** The steps of a picture: those with most in their order, and one line for the rest. */
function linesOf(fall: Fall) {
  const last = fall.steps.filter((step) => step.rule === null);
  const rules = fall.steps.filter((step) => step.rule !== null);
  const least = [...rules].sort((a, b) => b.share - a.share)[MOST - 1]?.share ?? 0;
  const shown = rules.filter((step) => step.share >= least).slice(0, MOST);
  const others = rules.filter((step) => !shown.includes(step));
  return { shown: [...shown, ...last], others };
}

/** The fall as a picture for a presentation, 16 to 9, as SVG. */
export function fallSvg(fall: Fall, title: string, subtitle: string): string {
  const { shown, others } = linesOf(fall);
  const row = Math.min(64, (HEIGHT - TOP - FOOT) / Math.max(1, shown.length));
  let left = 1; // share that is not decided yet
  const parts: string[] = [];
  shown.forEach((step, i) => {
    const y = TOP + i * row;
    const thick = Math.max(2, step.share * row * 3);
    const shownThick = Math.min(thick, row - 8);
    const from = LEFT + TRUNK * left;
    left = Math.max(0, left - step.share);
    const colour = COLOURS[step.rule?.verdict ?? 'drop']!;
    const middle = y + row / 2;
    parts.push(
      `<path d="M ${from} ${y} C ${from + 120} ${y} ${TEXT - 220} ${middle - shownThick / 2} ${TEXT - 40} ${middle - shownThick / 2} l 0 ${shownThick} C ${TEXT - 220} ${middle + shownThick / 2} ${LEFT + TRUNK * left + 120} ${y + row} ${LEFT + TRUNK * left} ${y + row} Z" fill="${colour}" fill-opacity="0.85"/>`,
      `<polygon points="${LEFT},${y} ${from},${y} ${LEFT + TRUNK * left},${y + row} ${LEFT},${y + row}" fill="#cfd8dc"/>`,
      `<text x="${TEXT}" y="${middle - 2}" font-size="22" fill="#1a2226">${escaped(
        shortened(step.rule ? `${step.number}  ${step.rule.name}` : 'Default rule', 52),
      )}</text>`,
      `<text x="${TEXT}" y="${middle + 20}" font-size="17" fill="#55636b"><tspan fill="${colour}" font-weight="600">${step.rule?.verdict ?? 'drop'}</tspan>  ${percent(step.share)} · ${whole(step.connections)}</text>`,
    );
  });
  const rest =
    others.length > 0
      ? `${whole(others.length)} more rules decide ${percent(others.reduce((all, step) => all + step.share, 0))}.`
      : '';
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" font-family="Public Sans Variable, Public Sans, sans-serif">
<rect width="${WIDTH}" height="${HEIGHT}" fill="#ffffff"/>
<text x="${LEFT}" y="70" font-size="38" font-weight="700" fill="#1a2226">${escaped(title)}</text>
<text x="${LEFT}" y="108" font-size="21" fill="#55636b">${escaped(subtitle)}</text>
${parts.join('\n')}
<text x="${LEFT}" y="${HEIGHT - 22}" font-size="17" fill="#55636b">${escaped(rest)}</text>
</svg>
`;
}
