-- How many connections are open by each rule, as the run of a gateway reported last; the default rule
-- has an empty id. It counts while records of that run arrive.
create table rule_open (
  rulebase_id bigint not null references rulebase,
  gateway_id  bigint not null references gateway,
  run         text not null,
  rule        text not null,
  open        bigint not null,
  primary key (gateway_id, run, rule)
);
create index rule_open_rulebase on rule_open (rulebase_id);
