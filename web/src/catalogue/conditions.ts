import type { Signature } from '../api/types';

/** What a condition can be: the member that it is in a signature's document, and how people say it. */
export const KINDS = [
  { member: 'client', word: 'client sends', hint: '53 53 48 2d, or @4: 21 ?? a4' },
  { member: 'server', word: 'server sends', hint: '32 32 30' },
  { member: 'clientPattern', word: 'client sends what fits', hint: '^(USER|PASS) ' },
  { member: 'serverPattern', word: 'server sends what fits', hint: '^220 ' },
  { member: 'services', word: 'service is', hint: 'tcp/443 udp/5000-5010' },
  { member: 'speaks', word: 'client speaks', hint: 'TLS, HTTP, DNS or QUIC' },
  { member: 'tlsName', word: 'TLS asks for', hint: '*.quay.example' },
  { member: 'alpn', word: 'TLS offers', hint: 'h2' },
  { member: 'httpHost', word: 'HTTP host is', hint: '*.quay.example' },
  { member: 'httpMethod', word: 'HTTP method is', hint: 'POST' },
  { member: 'httpPath', word: 'HTTP path begins', hint: '/upload' },
  { member: 'httpField', word: 'HTTP field is', hint: 'upgrade: websocket' },
  { member: 'dnsName', word: 'DNS asks for', hint: '*.quay.example' },
] as const;

export type Member = (typeof KINDS)[number]['member'];

/** A condition as it is typed. */
export interface Typed {
  member: Member;
  text: string;
}

/** The document of what is typed; nothing while no condition has a text. */
export function signatureOf(conditions: Typed[], feature: string): Signature | null {
  const filled = conditions.filter((condition) => condition.text.trim());
  if (filled.length === 0) return null;
  const out: Signature = feature.trim() ? { feature: feature.trim() } : {};
  for (const { member, text } of filled) {
    if (member === 'services') {
      out.services = text.trim().split(/[\s,]+/);
    } else {
      // A pattern may begin or end with a space that counts.
      out[member] = member.endsWith('Pattern') ? text : text.trim();
    }
  }
  return out;
}

/** A signature as people say it, its conditions one after the other. */
export function wordsOf(signature: Signature): string {
  return KINDS.flatMap(({ member, word }) => {
    const value = signature[member];
    return value ? [`${word} ${Array.isArray(value) ? value.join(' or ') : value}`] : [];
  }).join(', ');
}

/** The first kind that no condition has yet, since a signature has each at most once. */
export const freeKind = (conditions: Typed[]): Member | undefined =>
  KINDS.find((kind) => !conditions.some((c) => c.member === kind.member))?.member;

/** Bytes in rows of 16, hexadecimal and as text, dots for what cannot be printed. */
export function dump(hex: string): { hex: string; text: string }[] {
  const bytes = hex ? hex.split(' ') : [];
  const rows = [];
  for (let at = 0; at < bytes.length; at += 16) {
    const row = bytes.slice(at, at + 16);
    const text = row
      .map((byte) => parseInt(byte, 16))
      .map((code) => (code >= 0x20 && code < 0x7f ? String.fromCharCode(code) : '.'))
      .join('');
    rows.push({ hex: row.join(' '), text });
  }
  return rows;
}
