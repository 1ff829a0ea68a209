import type { LogSender, LogState } from '../api/types';
import { ago } from '../ui/age';
import { Modal } from '../ui/Modal';
import { whole } from '../ui/numbers';

const CLOCK_WRONG = 600; // seconds

/** The counts of a sender, each with its words; only those above 0 are shown. */
const COUNTS: [keyof LogSender, string, boolean][] = [
  ['records', 'records', false],
  ['other', 'other messages', false],
  ['flows', 'flows', false],
  ['malformed', 'malformed', true],
  ['unknownGateway', 'of an unknown gateway', true],
  ['overflow', 'dropped, too many waited', true],
  ['refused', 'refused by the database', true],
  ['lostFlows', 'flows lost', true],
  ['unreadFlows', 'flow messages before their template', true],
];

/** Who sends log records and flows, and what of it was lost or wrong. */
export function Senders({ state, onClose }: { state: LogState; onClose(): void }) {
  const now = new Date();
  return (
    <Modal title="Senders of log records" wide onClose={onClose}>
      <p className="mb-3 text-dim">
        {state.waiting === 0
          ? 'No record waits to be stored.'
          : `${whole(state.waiting)} records wait to be stored.`}
      </p>
      <h3 className="mb-1 font-semibold">Gateways of this rulebase</h3>
      {state.runs.length === 0 && <p className="mb-3 text-dim">None has reported yet.</p>}
      {state.runs.length > 0 && (
        <table className="mb-4 w-full border-collapse text-[12px]">
          <thead>
            <tr className="text-left text-dim">
              <th className="py-1 pr-3 font-normal">gateway</th>
              <th className="py-1 pr-3 text-right font-normal">stored</th>
              <th className="py-1 pr-3 text-right font-normal">lost</th>
              <th className="py-1 pr-3 text-right font-normal">came again</th>
              <th className="py-1 pr-3 font-normal">clock</th>
              <th className="py-1 font-normal">last</th>
            </tr>
          </thead>
          <tbody>
            {state.runs.map((run) => (
              <tr key={`${run.gateway} ${run.startedAt}`} className="border-t border-line">
                <td className="py-1 pr-3">{run.gateway}</td>
                <td className="py-1 pr-3 text-right">{whole(run.stored)}</td>
                <td className={`py-1 pr-3 text-right ${run.lost > 0 ? 'text-caution' : ''}`}>
                  {whole(run.lost)}
                </td>
                <td className="py-1 pr-3 text-right">{whole(run.repeated)}</td>
                <td className="py-1 pr-3">
                  {Math.abs(run.clockAhead) > CLOCK_WRONG ? (
                    <span className="text-caution">
                      wrong by {whole(Math.round(Math.abs(run.clockAhead) / 60))} min
                    </span>
                  ) : (
                    'right'
                  )}
                </td>
                <td className="py-1">{ago(new Date(run.lastAt), now)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h3 className="mb-1 font-semibold">Addresses, since the server started</h3>
      {state.senders.length === 0 && <p className="text-dim">Nothing was received.</p>}
      <ul>
        {state.senders.map((sender) => (
          <li key={sender.address} className="border-t border-line py-1 text-[12px]">
            <span className="font-mono">{sender.address}</span>
            {COUNTS.filter(([key]) => (sender[key] as number) > 0).map(([key, words, wrong]) => (
              <span key={key} className={wrong ? 'text-caution' : ''}>
                {' '}
                · {whole(sender[key] as number)} {words}
              </span>
            ))}{' '}
            · {ago(new Date(sender.lastAt), now)}
            {sender.lastFault && (
              <p className="break-words text-caution">Last fault: {sender.lastFault}</p>
            )}
          </li>
        ))}
      </ul>
    </Modal>
  );
}
