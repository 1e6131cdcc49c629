-- Work that one server does now and no other may begin meanwhile: how far it is, and whether somebody wants it to end. Who holds
-- it is told by a lock, which ends with that server. After a crash of the base nobody is at work, so nothing needs to be kept.
create unlogged table claim (
    work text not null,
    id bigint not null,
    told jsonb not null,
    stop boolean not null,
    primary key (work, id)
);
grant select, insert, update, delete on claim to knot_app;

-- Sweeps that have not ended are looked for every few seconds.
create index sweep_running on sweep (segment_id) where state = 'RUNNING';

-- Tries at signing in, by the SHA-256 of the name and the place that they are counted for; known_at is when somebody got in.
create table sign_in_try (
    key bytea primary key,
    tries integer not null,
    last_at timestamptz not null,
    known_at timestamptz
);
grant select, insert, update, delete on sign_in_try to knot_app;
