-- What is known of a published revision besides its content. The first revision of a rulebase is
-- the one that it was created with.
alter table revision
  add column note            text not null default '',
  add column draft_version   bigint,
  add column override_reason text;
