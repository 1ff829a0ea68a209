-- The state of a draft at one of its versions, so that opening it need not go through every change.
-- Derived from revision and changes: it may be deleted at any time. Content is the JSON document.
create table draft_snapshot (
  rulebase_id   bigint not null references draft,
  version       bigint not null,
  base_revision int not null,
  content       text not null,
  made_at       timestamptz not null default now(),
  primary key (rulebase_id, version)
);

-- The page that made a change, and the key by which a request that is sent twice is known again.
alter table change add column client text;
alter table change add column request_key text;
create unique index change_request on change (rulebase_id, account_id, request_key)
  where request_key is not null;
create index change_of on change (rulebase_id, of_version) where of_version is not null;
create index change_account on change (rulebase_id, account_id, version);
