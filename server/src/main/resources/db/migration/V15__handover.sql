-- What is proved waits to be handed over; with a new sign-off it is handed over anew.
alter table endpoint add handed_over_at timestamptz;
update endpoint set station = 'HANDOVER' where station = 'DONE';

-- Tag codes end in two check characters now (ISO/IEC 7064, MOD 1271-36); the one before missed some swaps of neighbours.
create function tag_check(body text) returns text language plpgsql immutable as $$
declare alphabet constant text := '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'; total int := 0; letter text; rest int;
begin
    foreach letter in array regexp_split_to_array(replace(body, '-', ''), '') loop
        total := (total + position(letter in alphabet) - 1) * 36 % 1271;
    end loop;
    rest := (1272 - total * 36 % 1271) % 1271;
    return substr(alphabet, rest / 36 + 1, 1) || substr(alphabet, rest % 36 + 1, 1);
end $$;
update endpoint set tag_code = regexp_replace(tag_code, '-[0-9A-Z]$', '') || '-' || tag_check(regexp_replace(tag_code, '-[0-9A-Z]$', ''));
drop function tag_check;
create index endpoint_bare_code on endpoint (replace(tag_code, '-', '')) where retired_at is null;

-- Sheets of labels of the shop's own, in tenths of a millimetre.
create table label_grid (
    id bigint generated always as identity primary key,
    name text not null constraint label_grid_name_length check (length(name) between 1 and 60),
    grid jsonb not null check (jsonb_typeof(grid) = 'object'),
    by text not null,
    at timestamptz not null default now()
);
create unique index label_grid_name_once on label_grid (lower(name));

-- What stood on a tag when it was printed, and when it was hung. The latest of an endpoint counts.
create table printed_tag (
    id bigint generated always as identity primary key,
    endpoint_id bigint not null references endpoint,
    facts jsonb not null check (jsonb_typeof(facts) = 'object'),
    at timestamptz not null,
    by text not null,
    hung_at timestamptz,
    hung_by text
);
create index printed_tag_latest on printed_tag (endpoint_id, id desc);

-- What stands open longer than it should is asked for of all sites at once.
create index opening_ends on opening (ends_on) where not closed and ends_on is not null;

-- What a lead lets stay as it is, with the reason.
create table let_pass (
    endpoint_id bigint not null references endpoint,
    key text not null constraint let_pass_key check (length(key) between 2 and 80),
    reason text not null,
    at timestamptz not null,
    by text not null,
    primary key (endpoint_id, key)
);

-- Whom the client calls when something fails.
alter table site add help text not null default '';

-- Packs as they were signed; never made anew and never changed.
create table signed_pack (
    id bigint generated always as identity primary key,
    site_id bigint not null references site,
    type text not null check (type in ('CLIENT', 'TECHNICIAN', 'OFFICE')),
    signer text not null,
    at timestamptz not null,
    by text not null,
    log_id bigint not null,
    endpoints int not null,
    document bytea not null,
    sha256 bytea not null
);
create index signed_pack_of_site on signed_pack (site_id, id desc);

grant select, insert, update, delete on label_grid, let_pass to knot_app;
grant select, insert, update on printed_tag to knot_app;
grant select, insert on signed_pack to knot_app;

-- After a whole site was taken into an empty base, with the numbers that it had.
create function past_all_ids() returns void language plpgsql security definer set search_path = public as $$
declare c record;
begin
    for c in select table_name, column_name from information_schema.columns where table_schema = 'public' and is_identity = 'YES' loop
        execute format('select setval(pg_get_serial_sequence(%L, %L), (select coalesce(max(%I), 0) + 1 from %I), false)',
            c.table_name, c.column_name, c.column_name, c.table_name);
    end loop;
end $$;
revoke all on function past_all_ids() from public;
grant execute on function past_all_ids() to knot_app;
