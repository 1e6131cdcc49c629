-- What a router or a switch told of itself when it was last read.
create table gear_reading (
    gear_id bigint primary key,
    site_id bigint not null references site,
    address inet not null,
    at timestamptz not null,
    by text not null,
    reading jsonb not null,
    foreign key (gear_id, site_id) references gear (id, site_id) on delete cascade
);
grant select, insert, update on gear_reading to knot_app;

-- At which port each MAC hung, from when to when; a port that leads to other gear shows nobody's place.
create table port_stay (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    gear_id bigint not null,
    port text not null,
    mac macaddr not null,
    first_seen timestamptz not null,
    last_seen timestamptz not null,
    foreign key (gear_id, site_id) references gear (id, site_id) on delete cascade,
    check (first_seen <= last_seen)
);
create index port_stay_of_mac on port_stay (site_id, mac);
create index port_stay_of_gear on port_stay (gear_id);
grant select, insert, update on port_stay to knot_app;
