-- Immutable: content is the JSON document, digest its SHA-256.
create table directory_snapshot (
  id          bigint generated always as identity primary key,
  name        text not null,
  content     text not null,
  digest      bytea not null,
  imported_at timestamptz not null default now(),
  imported_by bigint references account
);
create unique index directory_snapshot_name on directory_snapshot (lower(name));

create trigger directory_snapshot_immutable before update or delete on directory_snapshot
  for each row execute function refuse_change();

-- Every try to read the directory: what came of it, and which snapshot holds from then on.
create table directory_reading (
  id       bigint generated always as identity primary key,
  at       timestamptz not null default now(),
  by       bigint references account,
  snapshot text,
  fault    text,
  check ((snapshot is null) <> (fault is null))
);
