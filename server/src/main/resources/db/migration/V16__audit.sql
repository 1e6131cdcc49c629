-- What somebody said of a MAC that is on no record; the word holds as long as it stays where it was, or on automatic.
create table known_mac (
    site_id bigint not null references site,
    mac macaddr not null,
    address inet not null,
    what text not null constraint known_mac_what_length check (length(what) between 1 and 80),
    by text not null,
    at timestamptz not null,
    primary key (site_id, mac)
);
grant select, insert, update, delete on known_mac to knot_app;
