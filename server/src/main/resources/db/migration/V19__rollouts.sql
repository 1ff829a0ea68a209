-- A revision that some gateways follow first. The others follow the one before until the time has
-- come and the first ones have it in force; then the row is gone. It is stopped if one of them fails.
create table rollout (
  rulebase_id bigint primary key references rulebase,
  revision    int not null,
  previous    int not null,
  first       bigint[] not null,
  rest_at     timestamptz not null,
  stopped     text,
  foreign key (rulebase_id, revision) references revision (rulebase_id, number),
  foreign key (rulebase_id, previous) references revision (rulebase_id, number)
);
