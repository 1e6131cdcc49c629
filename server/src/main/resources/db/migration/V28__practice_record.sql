-- What was wrong in each case that somebody played, and whether leads may see how far somebody is.
alter table practice_result add column causes text[] not null default '{}';
alter table person add column practice_shown boolean not null default false;
