-- Numbers of records that are counted as lost and may still come, since UDP keeps no order.
alter table log_sender add column missing bigint[] not null default '{}';
