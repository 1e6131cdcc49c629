create extension if not exists btree_gist;
create extension if not exists pg_trgm;

create table person (
    id bigint generated always as identity primary key,
    name text not null constraint person_name_length check (length(name) between 2 and 60),
    role text not null constraint person_role check (role in ('LEAD', 'TECHNICIAN', 'OFFICE')),
    password_hash text not null,
    created_at timestamptz not null default now()
);
create unique index person_name_once on person (lower(name));

create table invitation (
    token_hash bytea primary key,
    role text not null check (role in ('LEAD', 'TECHNICIAN', 'OFFICE')),
    expires_at timestamptz not null,
    used_at timestamptz
);

create table site (
    id bigint generated always as identity primary key,
    name text not null constraint site_name_length check (length(name) between 2 and 80),
    code text not null constraint site_code_form check (code ~ '^[A-Z]{2,5}$'),
    zone text not null
);
create unique index site_name_once on site (lower(name));
create unique index site_code_once on site (code);

create table segment (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null,
    prefix cidr not null constraint segment_ipv4 check (family(prefix) = 4),
    gateway inet constraint segment_gateway_inside check (gateway << prefix),
    resolvers inet[] not null default '{}',
    unique (id, site_id),
    constraint segment_overlap exclude using gist (site_id with =, prefix inet_ops with &&)
);

create table pool (
    id bigint generated always as identity primary key,
    segment_id bigint not null references segment,
    from_address inet not null,
    to_address inet not null,
    constraint pool_upwards check (from_address <= to_address),
    constraint pool_overlap exclude using gist (
        segment_id with =,
        int8range(from_address - '0.0.0.0'::inet, to_address - '0.0.0.0'::inet, '[]') with &&)
);

create table series (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    segment_id bigint not null,
    name text not null,
    host_base int not null check (host_base between 0 and 65534),
    port_base int not null check (port_base between 0 and 65534),
    constraint series_name_once unique (site_id, name),
    foreign key (segment_id, site_id) references segment (id, site_id)
);

create table partner (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null,
    address inet not null,
    test_port int check (test_port between 1 and 65535),
    constraint partner_name_once unique (site_id, name),
    unique (id, site_id)
);

create table endpoint (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    segment_id bigint not null,
    kind text not null,
    kind_version int not null,
    name text not null constraint endpoint_name_length check (length(name) between 1 and 120),
    series_id bigint references series,
    number int check (number between 1 and 9999),
    address inet,
    method text not null default 'FIXED' check (method in ('FIXED', 'RESERVED', 'LEARNED', 'AUTOMATIC')),
    service_port int check (service_port between 1 and 65535),
    partner_id bigint,
    serial text not null default '',
    place text not null default '',
    outlet text not null default '',
    switch_port text not null default '',
    tag_code text not null,
    station text not null,
    knot text not null,
    confirmed_at timestamptz,
    confirmed_by text,
    retired_at timestamptz,
    version int not null default 1,
    finder text not null default '',
    foreign key (segment_id, site_id) references segment (id, site_id),
    foreign key (partner_id, site_id) references partner (id, site_id)
);
-- One truth among the living: each of these belongs to at most one.
create unique index endpoint_address_once on endpoint (site_id, address) where retired_at is null;
create unique index endpoint_name_once on endpoint (site_id, lower(name)) where retired_at is null;
create unique index endpoint_number_once on endpoint (series_id, number) where retired_at is null;
create unique index endpoint_serial_once on endpoint (site_id, kind, serial) where retired_at is null and serial <> '';
create unique index endpoint_switch_port_once on endpoint (site_id, lower(switch_port)) where retired_at is null and switch_port <> '';
create unique index endpoint_tag_code_once on endpoint (tag_code) where retired_at is null;
create index endpoint_of_site on endpoint (site_id, address nulls last, id) where retired_at is null;
create index endpoint_finder on endpoint using gin (finder gin_trgm_ops) where retired_at is null;

create table interface (
    id bigint generated always as identity primary key,
    endpoint_id bigint not null references endpoint,
    site_id bigint not null references site,
    medium text not null default 'WIRED' check (medium in ('WIRED', 'WIRELESS', 'ADAPTER')),
    mac macaddr not null constraint interface_mac_single
        check (mac & '01:00:00:00:00:00' = '00:00:00:00:00:00' and mac <> '00:00:00:00:00:00'),
    retired_at timestamptz
);
create unique index interface_mac_once on interface (site_id, mac) where retired_at is null;
create unique index interface_medium_once on interface (endpoint_id, medium) where retired_at is null;

create function endpoint_before_write() returns trigger language plpgsql as $$
declare s segment;
begin
    if new.address is not null and new.retired_at is null then
        select * into s from segment where id = new.segment_id;
        if not (new.address << s.prefix) or masklen(new.address) <> 32
            or (masklen(s.prefix) < 31 and (new.address = host(network(s.prefix))::inet or new.address = host(broadcast(s.prefix))::inet)) then
            raise exception 'address % is not usable in %', new.address, s.prefix
                using errcode = 'check_violation', constraint = 'endpoint_address_in_segment';
        end if;
        if new.address = s.gateway then
            raise exception 'address % is the gateway', new.address
                using errcode = 'check_violation', constraint = 'endpoint_address_not_gateway';
        end if;
    end if;
    new.finder := lower(concat_ws(' ', new.name, host(new.address), new.serial, new.tag_code, replace(new.tag_code, '-', ''),
        new.place, new.outlet, new.switch_port,
        (select string_agg(mac::text || ' ' || replace(mac::text, ':', ''), ' ') from interface where endpoint_id = new.id and retired_at is null)));
    return new;
end $$;
create trigger endpoint_before_write before insert or update on endpoint for each row execute function endpoint_before_write();

create function interface_after_write() returns trigger language plpgsql as $$
begin
    update endpoint set finder = finder where id = coalesce(new.endpoint_id, old.endpoint_id);
    return null;
end $$;
create trigger interface_after_write after insert or update or delete on interface for each row execute function interface_after_write();

create table step (
    endpoint_id bigint not null references endpoint,
    key text not null,
    knot text not null check (knot in ('OPEN', 'HALF_DRAWN', 'TIGHT', 'FRAYED', 'LEFT_OUT')),
    started_at timestamptz,
    ended_at timestamptz,
    evidence jsonb not null,
    findings jsonb not null,
    reason text not null,
    by text not null,
    primary key (endpoint_id, key)
);
create index step_running on step (endpoint_id) where started_at is not null and ended_at is null;

create table round (
    id bigint generated always as identity primary key,
    endpoint_id bigint not null references endpoint,
    at timestamptz not null,
    by text not null,
    failed boolean not null,
    results jsonb not null
);
create index round_latest on round (endpoint_id, id desc);

create table log_entry (
    id bigint primary key,
    at timestamptz not null,
    person text not null,
    site_id bigint references site,
    endpoint_id bigint references endpoint,
    action text not null,
    before jsonb,
    after jsonb,
    reason text not null,
    previous bytea not null,
    hash bytea not null
);
create index log_of_site on log_entry (site_id, id desc);

create table log_head (
    only_one boolean primary key default true check (only_one),
    id bigint not null,
    hash bytea not null
);
insert into log_head (id, hash) values (0, sha256('knot tag'::bytea));

create function log_hash(e log_entry) returns bytea language sql immutable as $$
    select sha256(e.previous || convert_to(concat_ws(E'\x1f', e.id, to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US'),
        e.person, coalesce(e.site_id::text, '-'), coalesce(e.endpoint_id::text, '-'), e.action,
        coalesce(e.before::text, '-'), coalesce(e.after::text, '-'), e.reason), 'UTF8'))
$$;

-- Entries are numbered without a gap and chained; the row of log_head makes writers queue and keeps the end of the chain.
create function log_chain() returns trigger language plpgsql security definer set search_path = public as $$
declare head log_head;
begin
    select * into head from log_head for update;
    new.id := head.id + 1;
    new.at := clock_timestamp();
    new.previous := head.hash;
    new.hash := log_hash(new);
    update log_head set id = new.id, hash = new.hash;
    return new;
end $$;
create trigger log_chain before insert on log_entry for each row execute function log_chain();

create function log_append_only() returns trigger language plpgsql as $$
begin
    raise exception 'the log is append-only' using errcode = 'insufficient_privilege';
end $$;
create trigger log_append_only before update or delete or truncate on log_entry for each statement execute function log_append_only();

create function log_first_broken() returns bigint language sql stable as $$
    with chained as (
        select e.id, e.hash = log_hash(e) as whole,
            e.previous = coalesce(lag(e.hash) over (order by e.id), sha256('knot tag'::bytea)) as linked,
            e.id = row_number() over (order by e.id) as in_order
        from log_entry e)
    select coalesce(
        (select min(id) from chained where not (whole and linked and in_order)),
        (select h.id from log_head h where h.id <> (select count(*) from log_entry)
            or h.hash is distinct from coalesce((select hash from log_entry order by id desc limit 1), sha256('knot tag'::bytea))))
$$;

create table idempotency (
    person text not null,
    key text not null check (length(key) between 8 and 80),
    fingerprint bytea not null,
    answer jsonb,
    at timestamptz not null default now(),
    primary key (person, key)
);

create table spring_session (
    primary_id char(36) not null primary key,
    session_id char(36) not null unique,
    creation_time bigint not null,
    last_access_time bigint not null,
    max_inactive_interval int not null,
    expiry_time bigint not null,
    principal_name varchar(100)
);
create index spring_session_expiry on spring_session (expiry_time);
create index spring_session_principal on spring_session (principal_name);
create table spring_session_attributes (
    session_primary_id char(36) not null references spring_session on delete cascade,
    attribute_name varchar(200) not null,
    attribute_bytes bytea not null,
    primary key (session_primary_id, attribute_name)
);

-- The application works as another role than the one that owns the tables, and may not rewrite history.
grant usage on schema public to knot_app;
grant select, insert, update, delete on all tables in schema public to knot_app;
revoke update, delete on log_entry, round from knot_app;
revoke all on log_head from knot_app;
grant select on log_head to knot_app;
revoke delete on endpoint, interface, step, site, segment, partner, person from knot_app;
