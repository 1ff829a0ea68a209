-- A gateway enrols once with a token, and has a secret of its own from then on; only hashes of both
-- are stored. It follows the newest revision of its rulebase.
create table gateway (
  id           bigint generated always as identity primary key,
  name         text not null,
  rulebase_id  bigint not null references rulebase,
  token_hash   bytea,
  secret_hash  bytea,
  created_at   timestamptz not null default now(),
  created_by   bigint references account,
  enrolled_at  timestamptz,
  revoked_at   timestamptz,
  seen_at      timestamptz,
  in_force     int,
  state        text check (state in ('fetching', 'verified', 'in force', 'refused')),
  state_of     int,
  reason       text,
  reported_at  timestamptz,
  check (token_hash is not null or secret_hash is not null or revoked_at is not null),
  foreign key (rulebase_id, in_force) references revision (rulebase_id, number),
  foreign key (rulebase_id, state_of) references revision (rulebase_id, number)
);
create unique index gateway_name on gateway (lower(name));
create index gateway_rulebase on gateway (rulebase_id);
