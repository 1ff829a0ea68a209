import { lazy } from 'react';
import type { Rule } from '../api/types';
import type { Chip } from '../draft/criteria';
import type { DraftHandle } from '../draft/useDraft';
import { PartBoundary } from '../ui/PartBoundary';
import { NameLiteral } from './NameLiteral';
import type { MissingObject } from './missingObjects';

const ReplaceDialog = lazy(() => import('./ReplaceDialog'));
const PairDialog = lazy(() => import('./PairDialog'));
const RuleChecks = lazy(() => import('../checks/RuleChecks'));
const MissingDialog = lazy(() => import('./MissingDialog'));
const PlaceDialog = lazy(() => import('./PlaceDialog'));

/** A dialog about rules of the list. */
export type RuleDialog =
  | { kind: 'name'; rule: Rule; chip: Chip }
  | { kind: 'place'; rule: Rule }
  | { kind: 'replace'; rules: Rule[] }
  | { kind: 'checks'; rules: string[] }
  | { kind: 'missing'; missing: MissingObject[]; rules: Rule[]; below: string }
  | { kind: 'pair'; pair: [string, string] };

/** The dialog that is open. */
export function RuleDialogs({
  dialog,
  handle,
  numbers,
  byId,
  onProbe,
  onPasted,
  onClose,
}: {
  dialog: RuleDialog;
  handle: DraftHandle;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onProbe(line: string): void;
  onPasted(rules: Rule[]): void;
  onClose(): void;
}) {
  switch (dialog.kind) {
    case 'name':
      return (
        <NameLiteral rule={dialog.rule} chip={dialog.chip} handle={handle} onClose={onClose} />
      );
    case 'place':
      return (
        <PartBoundary>
          <PlaceDialog
            rule={dialog.rule}
            number={numbers.get(dialog.rule.id) ?? 0}
            handle={handle}
            onClose={onClose}
          />
        </PartBoundary>
      );
    case 'replace':
      return (
        <PartBoundary>
          <ReplaceDialog rules={dialog.rules} handle={handle} onClose={onClose} />
        </PartBoundary>
      );
    case 'missing':
      return (
        <PartBoundary>
          <MissingDialog
            missing={dialog.missing}
            rules={dialog.rules}
            below={dialog.below}
            handle={handle}
            onPasted={onPasted}
            onClose={onClose}
          />
        </PartBoundary>
      );
    case 'checks':
      return (
        <PartBoundary>
          <RuleChecks
            rules={dialog.rules}
            handle={handle}
            numbers={numbers}
            byId={byId}
            onClose={onClose}
          />
        </PartBoundary>
      );
    case 'pair':
      return (
        <PartBoundary>
          <PairDialog
            pair={dialog.pair}
            draft={handle.draft!}
            numbers={numbers}
            byId={byId}
            onProbe={onProbe}
            onClose={onClose}
          />
        </PartBoundary>
      );
  }
}
