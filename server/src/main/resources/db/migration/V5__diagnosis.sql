-- What a machine saw when a round failed, and what people saw since, look by look.
create table diagnosis_look (
    endpoint_id bigint not null references endpoint,
    round_id bigint not null references round,
    look text not null,
    outcome text not null,
    at timestamptz not null default now(),
    by text not null,
    primary key (endpoint_id, round_id, look)
);
grant select, insert, update on diagnosis_look to knot_app;
