-- Whoever listens hears at once, when it has been committed, where something was changed: "site endpoint", each empty for none.
create function log_told() returns trigger language plpgsql as $$
begin
    perform pg_notify('knot', coalesce(new.site_id::text, '') || ' ' || coalesce(new.endpoint_id::text, ''));
    return null;
end $$;
create trigger log_told after insert on log_entry for each row execute function log_told();
