-- What a proof belongs to, so that it loosens when that changes. Rounds made before this have none, and are made again.
alter table round add column bond jsonb;

-- What people saw at a check that only eyes can make; the latest of a check counts, none is ever changed.
create table witness (
    id bigint generated always as identity primary key,
    endpoint_id bigint not null references endpoint,
    check_name text not null,
    outcome text not null,
    evidence text not null check (evidence in ('SPOKEN', 'SEEN', 'PHOTO', 'READ_BACK', 'TOOL')),
    at timestamptz not null,
    by text not null,
    bond jsonb not null
);
create index witness_latest on witness (endpoint_id, check_name, id desc);

-- Sign-offs with their grade; the person on site and the office sign apart.
create table sign_off (
    id bigint generated always as identity primary key,
    endpoint_id bigint not null references endpoint,
    grade text not null check (grade in ('THIN', 'FAIR', 'FIRM')),
    note text not null,
    at timestamptz not null,
    by text not null
);
create index sign_off_latest on sign_off (endpoint_id, id desc);

-- Resets and moves are counted, so that a proof from before one is known as such.
create table device_change (
    endpoint_id bigint not null references endpoint,
    what text not null check (what in ('RESET', 'MOVE')),
    at timestamptz not null default now(),
    by text not null
);
create index device_change_of on device_change (endpoint_id, what);

-- Services that the site calls: only these, and what lies in its segments, are ever asked.
create table listed_service (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null,
    protocol text not null check (protocol in ('HTTP', 'HTTPS', 'RAW_PRINT', 'IPP', 'FILE', 'SMTP', 'DNS', 'NTP')),
    host text not null,
    port integer not null check (port between 1 and 65535),
    constraint listed_service_name_once unique (site_id, name)
);

-- Causes that were found at a site and mended: its own history, from which the next search learns.
create table cause_found (
    endpoint_id bigint not null references endpoint,
    round_id bigint primary key references round,
    site_id bigint not null references site,
    cause text not null,
    at timestamptz not null
);
create index cause_found_at on cause_found (site_id);

-- Sweeps of a segment, with what they found; one that a restart of the server cut off is said so.
create table sweep (
    id bigint generated always as identity primary key,
    segment_id bigint not null references segment,
    state text not null check (state in ('RUNNING', 'DONE', 'CANCELLED', 'CUT_OFF')),
    started_at timestamptz not null,
    ended_at timestamptz,
    by text not null,
    asked integer not null,
    total integer not null,
    vantage text not null,
    results jsonb not null
);
create index sweep_latest on sweep (segment_id, id desc);

grant select, insert on witness, sign_off, device_change, cause_found to knot_app;
grant select, insert, update on sweep to knot_app;
grant select, insert, update, delete on listed_service to knot_app;
