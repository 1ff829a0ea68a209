-- Accounts of the demo, whose password everybody may know. They are disabled outside of the demo.
-- Until now they could be told by the cost of their hash, which no other account has.
alter table account add column demo boolean not null default false;
update account set demo = true where password_hash like '$2a$04$%';
