-- Where each person of a visit went last, by their name, and whether they have left; and how many minutes it takes them to
-- get to what they have in hand.
alter table visit add whereabouts jsonb not null default '{}' check (jsonb_typeof(whereabouts) = 'object');
update visit set whereabouts = (
  select coalesce(jsonb_object_agg(p ->> 'name', '{"place": "", "gone": true}'::jsonb), '{}')
  from jsonb_array_elements(brief -> 'people') p where (p ->> 'gone')::boolean);
alter table visit_hand add way int not null default 0 check (way between 0 and 1440);

-- What would not go on this day is left for another: nobody is told to do it, and it is among what is left.
alter table visit_unit add aside boolean not null default false;

-- What was to be ordered for a visit that needs it no more goes off the list.
grant delete on prerequisite to knot_app;

-- What Today asks of all sites at once.
create index endpoint_waiting on endpoint (site_id, station, status) where retired_at is null and station <> 'DONE';
create index registration_ending_in on registration (registry_id, ends_at) where ended_at is null;
create index registration_not_restarted on registration (registry_id, entered_at) where ended_at is null and restarted_at is null;
