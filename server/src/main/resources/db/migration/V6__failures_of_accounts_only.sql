-- Failures of names that no account has are counted in memory only, so that tries with invented
-- names leave no rows.
delete from sign_in_failure f
  where not exists (select 1 from account a where lower(a.name) = lower(f.name));
