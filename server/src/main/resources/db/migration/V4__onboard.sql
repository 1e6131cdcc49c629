-- How often a gate stayed shut in a row, and the restarts that were counted while it waited.
alter table step
    add column tries int not null default 0,
    add column restarts int not null default 0;

-- Every version of every kind that was ever used: a runbook that has begun goes on with the one it began with.
create table kind_file (
    id text not null,
    version int not null check (version >= 1),
    yaml text not null constraint kind_file_length check (length(yaml) <= 65536),
    shipped boolean not null,
    at timestamptz not null default now(),
    by text not null,
    primary key (id, version)
);

-- Answers to a kind's questions, and other facts of one endpoint: seals reported for it, its hour of restart.
create table endpoint_fact (
    endpoint_id bigint not null references endpoint,
    key text not null constraint endpoint_fact_key check (key ~ '^[a-z][a-z-]{1,39}$'),
    value text not null constraint endpoint_fact_length check (length(value) <= 200),
    primary key (endpoint_id, key)
);

-- A seal is used once, whoever has the case.
create table seal (
    number text primary key,
    endpoint_id bigint not null references endpoint,
    case_number text not null,
    at timestamptz not null default now(),
    by text not null
);

create table opening (
    endpoint_id bigint not null references endpoint,
    key text not null constraint opening_key check (key ~ '^[a-z][a-z0-9-]{1,39}$'),
    danger text not null,
    title text not null,
    owner text not null,
    ends_on date,
    closed boolean not null,
    note text not null,
    at timestamptz not null default now(),
    by text not null,
    primary key (endpoint_id, key)
);

-- Hours of a site in which nothing may restart.
create table busy_time (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    from_time time not null,
    until_time time not null,
    what text not null constraint busy_time_what check (length(what) between 1 and 120)
);

grant select, insert on kind_file, seal to knot_app;
grant select, insert, update, delete on endpoint_fact, opening to knot_app;
grant select, insert, delete on busy_time to knot_app;
