-- Who said what mended it, and that what was learned can be taken back.
alter table cause_found add column by text not null default '';
grant update (cause, at, by), delete on cause_found to knot_app;
