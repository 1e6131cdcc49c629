-- Which backups were made, by the script that makes them; the server only reads of it.
create table backup (
    id bigint generated always as identity primary key,
    made_at timestamptz not null,
    file text not null,
    bytes bigint,
    entries bigint,
    same_disk boolean,
    rehearsed_at timestamptz,
    failed text,
    check ((failed is null) = (bytes is not null and entries is not null and same_disk is not null))
);
create index backup_latest on backup (made_at desc);
create index log_of_clock on log_entry (id desc) where action = 'clock jumped';
grant select on backup to knot_app;
