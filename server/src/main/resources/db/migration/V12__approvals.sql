-- Where four eyes are required, one person asks for a publish and another approves exactly that
-- content. A request ends with its approval; another state of the draft voids it.
alter table rulebase add column four_eyes boolean not null default false;
alter table revision add column approved_by bigint references account;
create table publish_request (
  rulebase_id     bigint primary key references rulebase,
  version         bigint not null,
  digest          bytea not null,
  account_id      bigint not null references account,
  note            text not null,
  override_reason text,
  at              timestamptz not null default now()
);
