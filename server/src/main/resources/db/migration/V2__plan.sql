create table client (
    id bigint generated always as identity primary key,
    name text not null constraint client_name_length check (length(name) between 1 and 120)
);
create unique index client_name_once on client (lower(name));

alter table site
    add column client_id bigint references client,
    add column name_rule text not null default '{site}-{kind}{number}',
    add column feed text not null default '' check (feed in ('', 'WALL', 'MODEM')),
    add column feed_note text not null default '',
    add column feed_port_id bigint,
    add column version int not null default 1;

alter table segment
    add column vlan int constraint segment_vlan_range check (vlan between 1 and 4094),
    add column lease_minutes int not null default 720 check (lease_minutes between 1 and 525600),
    add column method text not null default 'FIXED' check (method in ('FIXED', 'RESERVED', 'LEARNED', 'AUTOMATIC')),
    add column can_reserve boolean not null default true,
    add column notes text not null default '',
    add column prefix6 cidr constraint segment_ipv6 check (family(prefix6) = 6),
    add column gateway6 inet constraint segment_gateway6_inside check (gateway6 << prefix6 or gateway6 << 'fe80::/10'),
    add column fixed6 boolean not null default false,
    -- While it is renumbered its endpoints may stand in either.
    add column next_prefix cidr check (family(next_prefix) = 4),
    add column next_gateway inet,
    add column next_resolvers inet[] not null default '{}',
    add column retired_at timestamptz,
    drop constraint segment_overlap,
    add constraint segment_overlap exclude using gist (site_id with =, prefix inet_ops with &&) where (retired_at is null),
    add constraint segment_overlap6 exclude using gist (site_id with =, prefix6 inet_ops with &&) where (retired_at is null and prefix6 is not null);
create unique index segment_name_once on segment (site_id, lower(name)) where retired_at is null;
create unique index segment_vlan_once on segment (site_id, vlan) where retired_at is null and vlan is not null;

create table place (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null constraint place_name_length check (length(name) between 1 and 120),
    walk int not null default 0,
    unique (id, site_id)
);
create unique index place_name_once on place (site_id, lower(name));

create table gear (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null constraint gear_name_length check (length(name) between 1 and 100),
    type text not null check (type in ('ROUTER', 'SWITCH', 'ACCESS_POINT', 'MODEM')),
    place_id bigint,
    unique (id, site_id),
    foreign key (place_id, site_id) references place (id, site_id)
);
create unique index gear_name_once on gear (site_id, lower(name));

create table port (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    gear_id bigint not null,
    number int not null check (number between 1 and 999),
    role text not null default 'LAN' check (role in ('LAN', 'WAN', 'UPLINK', 'OFF')),
    segment_id bigint,
    poe boolean not null default false,
    unique (id, site_id),
    constraint port_number_once unique (gear_id, number),
    foreign key (gear_id, site_id) references gear (id, site_id),
    foreign key (segment_id, site_id) references segment (id, site_id)
);
alter table site add foreign key (feed_port_id, id) references port (id, site_id);

create table outlet (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    name text not null constraint outlet_name_length check (length(name) between 1 and 120),
    place_id bigint,
    state text not null default 'UNKNOWN' check (state in ('PATCHED', 'DEAD', 'UNKNOWN')),
    port_id bigint,
    unique (id, site_id),
    constraint outlet_patched check ((state = 'PATCHED') = (port_id is not null)),
    foreign key (place_id, site_id) references place (id, site_id),
    foreign key (port_id, site_id) references port (id, site_id)
);
create unique index outlet_name_once on outlet (site_id, lower(name));
create unique index outlet_port_once on outlet (port_id);

alter table series
    alter column segment_id drop not null,
    add column counts text not null default 'HOST' check (counts in ('HOST', 'LISTENING_PORT', 'NUMBER', 'GEAR_PORT')),
    add column last_number int not null default 0 check (last_number between 0 and 9999),
    add column per_year numeric(6, 1) not null default 0 check (per_year >= 0),
    add column follows_id bigint,
    add column gear_id bigint,
    add unique (id, site_id),
    add constraint series_ground check ((counts = 'HOST') = (segment_id is not null) and (counts = 'GEAR_PORT') = (gear_id is not null)),
    add foreign key (follows_id, site_id) references series (id, site_id),
    add foreign key (gear_id, site_id) references gear (id, site_id);

-- Words become records: places, outlets, and gear with ports, such as “Shop switch 11”.
alter table endpoint
    add column host_name text not null default '' constraint endpoint_host_name_form check (host_name ~ '^([a-z0-9]([a-z0-9-]{0,13}[a-z0-9])?)?$'),
    add column notes text not null default '',
    add column partner_port int check (partner_port between 1 and 65535),
    add column place_id bigint,
    add column outlet_id bigint,
    add column port_id bigint;
drop trigger endpoint_before_write on endpoint;
insert into place (site_id, name) select distinct on (site_id, lower(place)) site_id, place from endpoint where place <> '' order by site_id, lower(place);
insert into outlet (site_id, name) select distinct on (site_id, lower(outlet)) site_id, outlet from endpoint where outlet <> '' order by site_id, lower(outlet);
insert into gear (site_id, name, type)
    select distinct on (site_id, lower(g)) site_id, g, 'SWITCH' from (select site_id, regexp_replace(switch_port, '\s*\d{1,3}$', '') as g from endpoint where switch_port ~ '\S\s*\d{1,3}$') named
    where g <> '' order by site_id, lower(g);
insert into port (site_id, gear_id, number)
    select distinct e.site_id, g.id, substring(e.switch_port from '(\d{1,3})$')::int
    from endpoint e join gear g on g.site_id = e.site_id and lower(g.name) = lower(regexp_replace(e.switch_port, '\s*\d{1,3}$', ''))
    where substring(e.switch_port from '(\d{1,3})$')::int > 0;
update endpoint e set
    place_id = (select id from place p where p.site_id = e.site_id and lower(p.name) = lower(e.place)),
    outlet_id = (select id from outlet o where o.site_id = e.site_id and lower(o.name) = lower(e.outlet)),
    port_id = (select p.id from port p join gear g on g.id = p.gear_id where p.site_id = e.site_id and lower(g.name || ' ' || p.number) = lower(regexp_replace(e.switch_port, '\s*(\d{1,3})$', ' \1')));
update endpoint set notes = 'Port: ' || switch_port where port_id is null and switch_port <> '';
drop index endpoint_switch_port_once;
alter table endpoint
    drop column place, drop column outlet, drop column switch_port,
    add foreign key (place_id, site_id) references place (id, site_id),
    add foreign key (outlet_id, site_id) references outlet (id, site_id),
    add foreign key (port_id, site_id) references port (id, site_id),
    add foreign key (series_id, site_id) references series (id, site_id);
create unique index endpoint_port_once on endpoint (port_id) where retired_at is null;
create index endpoint_outlet on endpoint (outlet_id);
create unique index endpoint_host_name_once on endpoint (site_id, host_name) where retired_at is null and host_name <> '';
create unique index endpoint_partner_port_once on endpoint (partner_id, partner_port) where retired_at is null;
create index endpoint_of_segment on endpoint (segment_id, address) where retired_at is null;
create index endpoint_place on endpoint (place_id);

create or replace function endpoint_before_write() returns trigger language plpgsql as $$
declare s segment;
begin
    if new.address is not null and new.retired_at is null then
        select * into s from segment where id = new.segment_id;
        if masklen(new.address) <> 32 or not (address_usable(new.address, s.prefix) or coalesce(address_usable(new.address, s.next_prefix), false)) then
            raise exception 'address % is not usable in %', new.address, s.prefix
                using errcode = 'check_violation', constraint = 'endpoint_address_in_segment';
        end if;
        if new.address = s.gateway then
            raise exception 'address % is the gateway', new.address
                using errcode = 'check_violation', constraint = 'endpoint_address_not_gateway';
        end if;
    end if;
    new.finder := lower(concat_ws(' ', new.name, new.host_name, host(new.address), new.serial, new.tag_code, replace(new.tag_code, '-', ''),
        (select name from place where id = new.place_id), (select name from outlet where id = new.outlet_id),
        (select g.name || ' ' || p.number from port p join gear g on g.id = p.gear_id where p.id = new.port_id),
        (select string_agg(mac::text || ' ' || replace(mac::text, ':', ''), ' ') from interface where endpoint_id = new.id and retired_at is null)));
    return new;
end $$;

create function address_usable(address inet, prefix cidr) returns boolean language sql immutable as $$
    select address << prefix and (masklen(prefix) >= 31 or (address <> host(network(prefix))::inet and address <> host(broadcast(prefix))::inet))
$$;
create trigger endpoint_before_write before insert or update on endpoint for each row execute function endpoint_before_write();

-- A segment may not shrink away from its endpoints, nor put its gateway on one; a pool lies inside and not over the gateway.
create function segment_before_change() returns trigger language plpgsql as $$
declare outside record;
begin
    select e.name, e.address into outside from endpoint e where e.segment_id = new.id and e.retired_at is null and e.address is not null
        and not (address_usable(e.address, new.prefix) or coalesce(address_usable(e.address, new.next_prefix), false)) order by e.address limit 1;
    if found then
        raise exception '% at %', outside.name, host(outside.address) using errcode = 'check_violation', constraint = 'segment_leaves_outside';
    end if;
    select e.name, e.address into outside from endpoint e where e.segment_id = new.id and e.retired_at is null and e.address = new.gateway;
    if found then
        raise exception '%', outside.name using errcode = 'check_violation', constraint = 'segment_gateway_taken';
    end if;
    return new;
end $$;
create trigger segment_before_change before update on segment for each row
    when (new.retired_at is null and (old.prefix, old.gateway) is distinct from (new.prefix, new.gateway)) execute function segment_before_change();

create function pool_before_write() returns trigger language plpgsql as $$
declare s segment;
begin
    select * into s from segment where id = new.segment_id;
    if not (new.from_address << s.prefix and new.to_address << s.prefix) then
        raise exception 'pool outside %', s.prefix using errcode = 'check_violation', constraint = 'pool_in_segment';
    end if;
    if s.gateway between new.from_address and new.to_address then
        raise exception 'pool over the gateway' using errcode = 'check_violation', constraint = 'pool_over_gateway';
    end if;
    return new;
end $$;
create trigger pool_before_write before insert or update on pool for each row execute function pool_before_write();

-- What lists say that were pasted in: who was seen where, and when each kind of list was last looked at.
create table sighting (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    address inet not null,
    mac macaddr,
    source text not null check (source in ('LEASES', 'NEIGHBOURS', 'HOSTS', 'SHEET')),
    seen_at timestamptz not null,
    lease_ends timestamptz,
    by text not null
);
create index sighting_of_site on sighting (site_id, address, seen_at desc);
create table look (
    site_id bigint not null references site,
    source text not null,
    at timestamptz not null,
    primary key (site_id, source)
);

create table renumbering (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    segment_id bigint not null references segment,
    was jsonb not null,
    becomes jsonb not null,
    steps jsonb not null,
    done int not null default 0 check (done >= 0),
    started_at timestamptz not null default now(),
    started_by text not null,
    ended_at timestamptz,
    version int not null default 1
);
create unique index renumbering_running_once on renumbering (segment_id) where ended_at is null;

grant select, insert, update, delete on client, place, gear, port, outlet to knot_app;
grant select, insert on sighting to knot_app;
grant select, insert, update on look, renumbering to knot_app;
update endpoint set finder = finder;
