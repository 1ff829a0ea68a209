-- A publish that waits for its time. It is gone once it happened or somebody cancelled it; one that
-- could not happen stays, with the reason, until somebody dismisses it.
create table scheduled_publish (
  rulebase_id     bigint primary key references rulebase,
  version         bigint not null,
  account_id      bigint not null references account,
  note            text not null,
  override_reason text,
  due             timestamptz not null,
  failed          text
);
