-- Which firmware a unit had on which day; another unit in its place has another serial.
create table firmware (
    id bigint generated always as identity primary key,
    endpoint_id bigint not null references endpoint,
    serial text not null,
    version text not null check (version <> ''),
    read_on date not null,
    by text not null
);
create index firmware_of_endpoint on firmware (endpoint_id, serial, read_on desc, id desc);

-- A fault of a firmware that somebody heard of: all units of the kind, or of one model of it, before the version that mends it.
create table firmware_fault (
    id bigint generated always as identity primary key,
    kind text not null,
    model text not null default '',
    mended_in text not null,
    what text not null,
    by text not null,
    at timestamptz not null,
    unique (kind, model, mended_in, what)
);

grant select, insert on firmware to knot_app;
grant select, insert, update, delete on firmware_fault to knot_app;
