-- Findings of drafts that somebody accepted. The digest is of the rule and of the rules that cause
-- the finding, as they were then: if one of them changes, the finding comes back.
create table accepted_finding (
  rulebase_id bigint not null references rulebase,
  rule        text not null,
  kind        text not null,
  digest      bytea not null,
  account_id  bigint not null references account,
  reason      text not null,
  ask_again   date,
  at          timestamptz not null default now(),
  primary key (rulebase_id, rule, kind)
);
