-- Lists from outside, and how they are fetched. Without a URL a feed is uploaded only.
create table feed (
  id            bigint generated always as identity primary key,
  name          text not null,
  kind          text not null check (kind in ('addresses', 'countries', 'categories')),
  url           text,
  every_minutes integer not null check (every_minutes > 0),
  most_bytes    bigint not null check (most_bytes > 0),
  most_percent  integer not null check (most_percent >= 0)
);
create unique index feed_name on feed (lower(name));

-- Immutable: content is the JSON document, digest its SHA-256.
create table feed_edition (
  id          bigint generated always as identity primary key,
  name        text not null,
  content     text not null,
  digest      bytea not null,
  imported_at timestamptz not null default now(),
  imported_by bigint references account
);
create unique index feed_edition_name on feed_edition (lower(name));

create trigger feed_edition_immutable before update or delete on feed_edition
  for each row execute function refuse_change();

-- What each edition is like, and what was decided about it. Rulebases are offered editions whose
-- state is 'offered'; one that is 'held' waits for a person.
create table feed_report (
  edition    bigint primary key references feed_edition,
  feed       bigint not null references feed on delete cascade,
  entries    integer not null,
  bad        integer not null,
  faults     text not null,
  change     double precision not null,
  reasons    text[] not null,
  state      text not null check (state in ('offered', 'held', 'refused')),
  decided_by bigint references account,
  decided_at timestamptz
);

-- Every try to read a feed: what came of it.
create table feed_reading (
  id      bigint generated always as identity primary key,
  feed    bigint not null references feed on delete cascade,
  at      timestamptz not null default now(),
  by      bigint references account,
  edition bigint references feed_edition,
  etag    text,
  fault   text,
  check ((edition is null) <> (fault is null))
);
create index feed_reading_feed on feed_reading (feed, id desc);
