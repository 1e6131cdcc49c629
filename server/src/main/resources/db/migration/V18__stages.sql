-- What a change asks for comes in an order: a task waits for those of a lower stage.
alter table visit_task add column stage int not null default 0 check (stage between 0 and 100);
