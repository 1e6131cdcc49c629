-- A person's epoch is checked on each request: whoever raises it ends all sessions of that person at once.
-- The key is the name as it looks, so that nobody can sign in under a name that cannot be told from another one.
alter table person add column epoch int not null default 1, add column name_key text;
create unique index person_name_key_once on person (name_key);

-- One link for the first lead at a time, good until there is a lead.
alter table invitation add column first_lead boolean not null default false, add column withdrawn_at timestamptz;

-- The log keeps who it was, not only how they were called. Entries from before have none, and their hashes stay true.
alter table log_entry add column person_id bigint references person;
create or replace function log_hash(e log_entry) returns bytea language sql immutable as $$
    select sha256(e.previous || convert_to(concat_ws(E'\x1f', e.id, to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US'),
        e.person, coalesce(e.site_id::text, '-'), coalesce(e.endpoint_id::text, '-'), e.action,
        coalesce(e.before::text, '-'), coalesce(e.after::text, '-'), e.reason, e.person_id::text), 'UTF8'))
$$;

-- An endpoint lives in a segment that is there. Both sides wait for each other, so that neither slips past.
create function endpoint_segment_living() returns trigger language plpgsql as $$
begin
    if new.retired_at is null and exists (select 1 from segment where id = new.segment_id and retired_at is not null for share) then
        raise exception 'the segment was removed' using errcode = 'check_violation', constraint = 'endpoint_segment_living';
    end if;
    return new;
end $$;
create trigger endpoint_segment_living before insert or update of segment_id, retired_at, address on endpoint
    for each row execute function endpoint_segment_living();
create function segment_left() returns trigger language plpgsql as $$
begin
    if new.retired_at is not null and old.retired_at is null
        and exists (select 1 from endpoint where segment_id = new.id and retired_at is null) then
        raise exception 'endpoints live there' using errcode = 'check_violation', constraint = 'segment_left';
    end if;
    return new;
end $$;
create trigger segment_left before update of retired_at on segment for each row execute function segment_left();

create index port_of_site on port (site_id);
create index outlet_of_site on outlet (site_id);
create index registration_ending on registration (ends_at) where ended_at is null;
