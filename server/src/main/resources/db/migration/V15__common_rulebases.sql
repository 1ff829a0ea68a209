-- A rulebase below a common one has its rules and objects from it. The documents of draft and
-- revision contain all of them; the columns only find the rulebases below a common one.
alter table rulebase add column kind text not null default 'traffic'
  check (kind in ('traffic', 'common', 'services'));
alter table draft add column common_id bigint references rulebase;
alter table revision add column common_id bigint references rulebase;
create index draft_common on draft (common_id) where common_id is not null;
create index revision_common on revision (common_id) where common_id is not null;
