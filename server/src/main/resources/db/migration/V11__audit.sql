-- Who did what that is not an edit of a draft: sign-ins, accounts, publishing, gateways, settings.
-- Rows are only ever added.
create table audit (
  id         bigint generated always as identity primary key,
  at         timestamptz not null default now(),
  who        text not null,
  address    inet,
  action     text not null,
  subject    text not null,
  detail     text not null default ''
);
create index audit_at on audit (at desc, id desc);

create function audit_is_append_only() returns trigger language plpgsql as $$
begin
  raise exception 'the audit trail is append-only';
end
$$;
create trigger audit_is_append_only before update or delete on audit
  for each row execute function audit_is_append_only();
create trigger audit_is_never_emptied before truncate on audit
  for each statement execute function audit_is_append_only();
