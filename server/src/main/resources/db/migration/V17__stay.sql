-- A night after night that sees the same device at the same address is one stay, and not a row a night.
create table stay (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    address inet not null,
    mac macaddr,
    source text not null check (source in ('LEASES', 'NEIGHBOURS', 'HOSTS', 'SHEET')),
    first_seen timestamptz not null,
    last_seen timestamptz not null,
    looks integer not null check (looks > 0),
    lease_ends timestamptz,
    by text not null,
    check (first_seen <= last_seen)
);

-- A stay ends where the device was seen elsewhere by the same source, or where nobody saw it for two weeks.
with look as (
    select *,
        address is distinct from lag(address) over device
        or seen_at - lag(seen_at) over device > interval '14 days' as begins
    from sighting
    window device as (
        partition by site_id, source, mac, case when mac is null then address end order by seen_at, address
    )
), numbered as (
    select *, count(*) filter (where begins) over (
        partition by site_id, source, mac, case when mac is null then address end order by seen_at, address
    ) as number
    from look
)
insert into stay (site_id, address, mac, source, first_seen, last_seen, looks, lease_ends, by)
select site_id, address, mac, source, min(seen_at), max(seen_at), count(*),
    (array_agg(lease_ends order by seen_at desc, id desc))[1], (array_agg(by order by seen_at desc, id desc))[1]
from numbered
group by site_id, address, mac, source, number
order by min(id);

-- How many MACs a sweep saw: with none it cannot call anybody silent.
alter table sweep add column heard integer not null default 0;
update sweep w set heard = (
    select count(distinct g.mac) from sighting g join segment s on s.id = w.segment_id
    where g.site_id = s.site_id and g.source = 'NEIGHBOURS' and g.address << s.prefix
        and g.seen_at between w.started_at and w.ended_at + interval '1 minute'
)
where state = 'DONE';

drop table sighting;
-- What never changes is written to every night: room on the page keeps that from growing the indexes.
alter table stay set (fillfactor = 80);
create index stay_of_mac on stay (mac, source);
create index stay_of_address on stay (site_id, address);
grant select, insert, update on stay to knot_app;

-- Whose MAC it was is asked of those that have been retired too.
drop index interface_mac;
create index interface_mac on interface (mac);
