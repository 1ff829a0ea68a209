-- Immutable: content is the JSON document, digest its SHA-256.
create table catalogue_edition (
  id          bigint generated always as identity primary key,
  name        text not null,
  content     text not null,
  digest      bytea not null,
  imported_at timestamptz not null default now(),
  imported_by bigint references account
);
create unique index catalogue_edition_name on catalogue_edition (lower(name));

create trigger catalogue_edition_immutable before update or delete on catalogue_edition
  for each row execute function refuse_change();
