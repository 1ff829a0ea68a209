-- The stage at which a gateway decided a connection, or that its sender was held.
alter table log_record add column stage text;
