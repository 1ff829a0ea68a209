-- What people say about rules of a draft before it is published. With the publish it belongs to the
-- revision, and stays.
create table review_comment (
  id          bigint generated always as identity primary key,
  rulebase_id bigint not null references rulebase,
  revision    int,
  rule        text not null,
  account_id  bigint not null references account,
  text        text not null,
  at          timestamptz not null default now(),
  foreign key (rulebase_id, revision) references revision (rulebase_id, number)
);
create index review_comment_rulebase on review_comment (rulebase_id, revision);
