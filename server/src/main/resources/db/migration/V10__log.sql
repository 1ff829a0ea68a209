-- Connections that gateways decided, a partition for each day (UTC). Partitions are added by the
-- server, and dropped when they are older than the log is kept. The number is that of the record in
-- the run of its gateway.
create table log_record (
  id           bigint generated always as identity,
  at           timestamptz not null,
  received_at  timestamptz not null,
  rulebase_id  bigint not null,
  gateway_id   bigint not null,
  number       bigint not null,
  revision     int not null,
  rule         text,
  verdict      text not null,
  observed_rule    text,
  observed_verdict text,
  phase        text not null,
  millis       bigint not null,
  packets      bigint not null,
  bytes        bigint not null,
  from_zone    text not null,
  from_address inet not null,
  to_zone      text not null,
  to_address   inet not null,
  protocol     smallint not null,
  port         int not null,
  source_port  int not null,
  person       text,
  device       text,
  site         text,
  application  text,
  file         text
) partition by range (at);
create index log_record_at on log_record (rulebase_id, at desc, id desc);
create index log_record_rule on log_record (rulebase_id, rule, at desc);
create index log_record_observed on log_record (rulebase_id, observed_rule, at desc)
  where observed_rule is not null;
create index log_record_person on log_record (rulebase_id, lower(person), at desc)
  where person is not null;
create index log_record_from on log_record (rulebase_id, from_address, at desc);
create index log_record_to on log_record (rulebase_id, to_address, at desc);

-- How often each rule decided, by hour; the default rule has an empty id.
create table rule_hits (
  rulebase_id bigint not null references rulebase,
  rule        text not null,
  hour        timestamptz not null,
  gateway_id  bigint not null references gateway,
  revision    int not null,
  connections bigint not null,
  observed    bigint not null,
  differing   bigint not null,
  packets     bigint not null,
  bytes       bigint not null,
  primary key (rulebase_id, rule, hour, gateway_id, revision)
);
create index rule_hits_hour on rule_hits (rulebase_id, hour);

-- The same since the first hit, for all gateways.
create table rule_hit_total (
  rulebase_id bigint not null references rulebase,
  rule        text not null,
  connections bigint not null,
  observed    bigint not null,
  differing   bigint not null,
  packets     bigint not null,
  bytes       bigint not null,
  first_at    timestamptz not null,
  last_at     timestamptz not null,
  primary key (rulebase_id, rule)
);

-- One run of a gateway's program, whose records are numbered from 1. It is changed in the same
-- transaction that stores the records, so each is stored once, or counted as lost.
create table log_sender (
  gateway_id  bigint not null references gateway,
  run         text not null,
  next_number bigint not null,
  lost        bigint not null default 0,
  repeated    bigint not null default 0,
  started_at  timestamptz not null default now(),
  last_at     timestamptz not null default now(),
  clock_ahead interval not null default '0',
  primary key (gateway_id, run)
);
