create table account (
  id            bigint generated always as identity primary key,
  name          text not null,
  display_name  text not null,
  role          text not null check (role in ('viewer', 'editor', 'publisher', 'admin')),
  password_hash text not null,
  disabled      boolean not null default false,
  created_at    timestamptz not null default now()
);
create unique index account_name on account (lower(name));

-- Kept by the name that was tried, whether there is such an account or not, so that nobody can
-- tell from being locked out which accounts there are.
create table sign_in_failure (
  name         text primary key,
  failures     int not null,
  locked_until timestamptz
);

create table session (
  token_hash bytea primary key,
  account_id bigint not null references account,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null
);
create index session_account on session (account_id);

create table setup_token (
  token_hash bytea primary key,
  expires_at timestamptz not null
);

create table rulebase (
  id         bigint generated always as identity primary key,
  name       text not null,
  created_at timestamptz not null default now(),
  created_by bigint references account
);
create unique index rulebase_name on rulebase (lower(name));

-- Immutable: content is the JSON document, digest its SHA-256.
create table revision (
  rulebase_id bigint not null references rulebase,
  number      int not null,
  content     text not null,
  digest      bytea not null,
  created_at  timestamptz not null default now(),
  created_by  bigint references account,
  primary key (rulebase_id, number)
);

create table draft (
  rulebase_id   bigint primary key references rulebase,
  base_revision int not null,
  version       bigint not null,
  foreign key (rulebase_id, base_revision) references revision
);

-- What was done to a draft, in order; never updated. An undo or redo is a change of its own.
create table change (
  rulebase_id   bigint not null references draft,
  version       bigint not null,
  base_revision int not null,
  kind          text not null check (kind in ('edit', 'undo', 'redo')),
  of_version    bigint,
  edit          jsonb not null,
  inverse       jsonb,
  touched       text[] not null,
  account_id    bigint not null references account,
  made_at       timestamptz not null default now(),
  primary key (rulebase_id, version),
  check ((kind = 'edit') = (of_version is null))
);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception '% rows are never changed', tg_table_name;
end $$;
create trigger revision_immutable before update or delete on revision
  for each row execute function refuse_change();
create trigger change_immutable before update or delete on change
  for each row execute function refuse_change();
