-- States of drafts that people gave a name, to go back to. Content is the JSON document.
create table named_state (
  rulebase_id   bigint not null references draft,
  name          text not null,
  version       bigint not null,
  base_revision int not null,
  content       text not null,
  account_id    bigint not null references account,
  at            timestamptz not null default now()
);
create unique index named_state_name on named_state (rulebase_id, lower(name));
