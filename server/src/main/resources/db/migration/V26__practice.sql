-- How somebody did at a case of practice. It belongs to that person alone, and to no site.
create table practice_result (
    id bigint generated always as identity primary key,
    person text not null,
    case_id text not null check (length(case_id) between 1 and 60),
    kind text not null,
    level text not null check (level in ('FIRST', 'SECOND', 'THIRD')),
    at timestamptz not null,
    solved boolean not null,
    minutes double precision not null check (minutes >= 0),
    par double precision not null check (par >= 0),
    score double precision not null check (score between 0 and 1)
);
create index practice_result_person on practice_result (person, at);
grant select, insert on practice_result to knot_app;
