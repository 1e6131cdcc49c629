-- A site that is looked at every night, in which hours of its own clock.
create table watch (
    site_id bigint primary key references site,
    from_time time not null,
    until_time time not null,
    since timestamptz not null,
    by text not null
);

-- One night, or a round of the same looks that somebody asked for; that one is of no morning.
create table night (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    morning date,
    by text not null,
    started_at timestamptz not null,
    ended_at timestamptz,
    outcome jsonb not null default '{"fresh": 0, "still": 0, "well": 0, "looked": 0, "left": 0}',
    read_at timestamptz,
    mailed_at timestamptz,
    unique (site_id, morning)
);
create index night_of_site on night (site_id, id);
create index night_open on night (id) where ended_at is null;
create index night_ended on night (ended_at);
create index night_morning on night (morning);

-- Each look of a night, with how many answered or -1 where nobody was counted; of a night that is some weeks back only its lines are kept.
create table night_look (
    night_id bigint not null references night,
    key text not null,
    what text not null,
    at timestamptz not null,
    why_not text not null,
    answered integer not null,
    primary key (night_id, key)
);

-- What a night has to tell.
create table night_line (
    id bigint generated always as identity primary key,
    night_id bigint not null references night,
    news text not null check (news in ('NEW', 'STILL', 'WELL')),
    about text not null,
    what text not null,
    endpoint_id bigint references endpoint,
    title text not null,
    detail text not null,
    since timestamptz not null
);
create index night_line_of on night_line (night_id);

-- What stood not as it should when it was looked at last, look by look: the next look is held against it.
create table watch_standing (
    site_id bigint not null references site,
    look text not null,
    about text not null,
    what text not null,
    endpoint_id bigint references endpoint,
    title text not null,
    detail text not null,
    since timestamptz not null,
    primary key (site_id, look, about, what)
);

-- Where the report of the morning goes; the relay lets this machine send, so there is no secret.
create table morning_mail (
    one boolean primary key default true check (one),
    host text not null,
    port integer not null check (port between 1 and 65535),
    secured boolean not null,
    sender text not null,
    recipients text[] not null check (cardinality(recipients) between 1 and 10),
    by text not null,
    tried_at timestamptz,
    trouble text not null default ''
);

grant select, insert, update, delete on watch, night_look, night_line, watch_standing, morning_mail to knot_app;
grant select, insert, update on night to knot_app;

-- The same found again lengthens a run, so that years of nights are not a row each.
alter table check_run add column again_at timestamptz;
grant update (again_at) on check_run to knot_app;
-- A sweep by night takes the place of the one before.
grant delete on sweep to knot_app;
