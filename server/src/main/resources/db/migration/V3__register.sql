-- A device has several interfaces; one of them counts: the one by which it joins.
alter table interface
    drop constraint interface_medium_check,
    add constraint interface_medium_check check (medium in ('WIRED', 'WIRELESS', 'ADAPTER', 'WAN', 'LAN', 'BLUETOOTH')),
    add column stands_at text not null default '',
    add column counts boolean not null default true;
update interface i set counts = false
    from (select id, row_number() over (partition by endpoint_id order by (medium = 'WIRED') desc, id) as n from interface where retired_at is null) r
    where r.id = i.id and r.n > 1;
create unique index interface_counts_once on interface (endpoint_id) where retired_at is null and counts;
create index interface_mac on interface (mac) where retired_at is null;

alter table endpoint
    add column model text not null default '',
    add column away_since timestamptz,
    add column away_why text not null default '';

-- Places where MACs must be registered. The rules are core's Registry.Rules.
create table registry (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null constraint registry_name_length check (length(name) between 1 and 80),
    type text not null check (type in ('RESERVATIONS', 'ACCESS_LIST', 'PORTAL', 'GUEST_DESK', 'SERVICE')),
    segment_id bigint,
    medium text check (medium in ('WIRED', 'WIRELESS', 'ADAPTER', 'WAN', 'LAN', 'BLUETOOTH')),
    kinds text[] not null default '{}',
    rules jsonb not null,
    retired_at timestamptz,
    unique (id, site_id),
    foreign key (segment_id, site_id) references segment (id, site_id)
);
create unique index registry_name_once on registry (site_id, lower(name)) where retired_at is null;

-- What a registry holds of an endpoint, as it was last handed in.
create table registration (
    id bigint generated always as identity primary key,
    registry_id bigint not null,
    site_id bigint not null,
    endpoint_id bigint not null references endpoint,
    name text not null,
    mac macaddr,
    address inet,
    serial text not null default '',
    model text not null default '',
    owner text not null default '',
    shared_with text[] not null default '{}',
    issued text not null default '',
    issued_used text not null default '',
    asked_at timestamptz,
    entered_at timestamptz,
    restarted_at timestamptz,
    ends_at timestamptz,
    ended_at timestamptz,
    ended_why text not null default '',
    version int not null default 1,
    foreign key (registry_id, site_id) references registry (id, site_id),
    constraint registration_ends_after check (ends_at is null or entered_at is null or ends_at > entered_at)
);
create unique index registration_mac_once on registration (registry_id, mac) where ended_at is null;
create unique index registration_name_once on registration (registry_id, lower(name)) where ended_at is null;
create unique index registration_unit_once on registration (registry_id, endpoint_id) where ended_at is null;
create index registration_of_endpoint on registration (endpoint_id) where ended_at is null;
create index registration_of_site on registration (site_id);

-- What was handed over when, to tell what changed since.
create table hand_over (
    id bigint generated always as identity primary key,
    registry_id bigint not null references registry,
    at timestamptz not null,
    by text not null,
    form text not null,
    entries jsonb not null
);
create index hand_over_latest on hand_over (registry_id, id desc);

-- One unit in the place of another, place by place.
create table swap (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    endpoint_id bigint not null references endpoint,
    old_unit jsonb not null,
    new_unit jsonb not null,
    steps jsonb not null,
    ticked boolean[] not null,
    started_at timestamptz not null default now(),
    started_by text not null,
    ended_at timestamptz,
    version int not null default 1
);
create unique index swap_running_once on swap (endpoint_id) where ended_at is null;

create table owner_left (
    site_id bigint not null references site,
    name text not null constraint owner_left_name check (length(name) between 1 and 120),
    left_at timestamptz not null,
    by text not null
);
create unique index owner_left_once on owner_left (site_id, lower(name));

-- What must be ordered or asked for before the next visit.
create table prerequisite (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null constraint prerequisite_name check (length(name) between 1 and 120),
    who text not null default '',
    days int not null check (days between 0 and 365),
    after text not null default '',
    done_at timestamptz
);
create unique index prerequisite_name_once on prerequisite (site_id, lower(name)) where done_at is null;
alter table site
    add column visit_on date,
    add column visit_slack int not null default 1 check (visit_slack between 0 and 60);

-- Addresses of calendar feeds; only the hash is kept, as of a password.
create table calendar_feed (
    token_hash bytea primary key,
    site_id bigint not null references site,
    person text not null,
    created_at timestamptz not null default now()
);

grant select, insert, update on registry, registration, swap, prerequisite to knot_app;
grant select, insert on hand_over to knot_app;
grant select, insert, delete on owner_left, calendar_feed to knot_app;
