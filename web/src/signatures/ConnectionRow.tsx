import type { RecognisedConnection, SignatureTrialResult } from '../api/types';
import { clockOf } from './captures';

const END = 'w-[112px] shrink-0 truncate font-mono text-[12px]';

/** A connection in the list, with what a signature that is tried makes of it. */
export function ConnectionRow({
  connection,
  marks,
  own,
}: {
  connection: RecognisedConnection;
  marks: SignatureTrialResult | undefined;
  own: string;
}) {
  const { number } = connection;
  return (
    <>
      {connection.at && (
        <span className="w-[58px] shrink-0 text-[12px] text-dim tabular-nums">
          {clockOf(connection.at)}
        </span>
      )}
      <span className={END}>{connection.from}</span>
      <span className={END}>{connection.to}</span>
      <span className="w-[68px] shrink-0 truncate font-mono text-[12px]">{connection.service}</span>
      <span className="min-w-0 flex-1 truncate">
        {marks?.meant.includes(number) ? (
          <>
            <b>{own}</b>
            {marks.taken.includes(number) && (
              <span className="text-caution"> instead of {connection.application}</span>
            )}
          </>
        ) : (
          <>
            {connection.application ?? <span className="text-dim">unidentified</span>}
            {connection.files.map((file) => (
              <span key={file.direction} className="text-dim">
                , {file.direction} of {file.kind}
              </span>
            ))}
            {marks?.holds.includes(number) && (
              <span className="text-dim"> (yours holds too, and is wider)</span>
            )}
          </>
        )}
      </span>
    </>
  );
}
