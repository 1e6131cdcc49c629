-- A visit: devices to be carried through on a day. People, places and means are one value: they are only ever read together.
create table visit (
  id bigint generated always as identity primary key,
  site_id bigint not null references site,
  name text not null check (length(name) between 1 and 120),
  begins timestamptz not null,
  due timestamptz check (due > begins),
  brief jsonb not null check (jsonb_typeof(brief) = 'object'),
  plan jsonb check (jsonb_typeof(plan) = 'object'),
  began_at timestamptz,
  ended_at timestamptz check (ended_at >= began_at),
  version int not null default 1
);
create index visit_site on visit (site_id);
create index visit_open on visit (begins) where ended_at is null;

create table visit_unit (
  visit_id bigint not null references visit,
  endpoint_id bigint not null references endpoint,
  bench boolean not null,
  first boolean not null,
  primary key (visit_id, endpoint_id)
);
create index visit_unit_endpoint on visit_unit (endpoint_id);

-- Whatever else is to be done there: a swap, a check, something to close.
create table visit_task (
  id bigint generated always as identity primary key,
  visit_id bigint not null references visit,
  title text not null check (length(title) between 1 and 160),
  place text not null default '',
  minutes int not null check (minutes between 1 and 240),
  skill text not null default '',
  done_at timestamptz
);
create index visit_task_visit on visit_task (visit_id);

-- Who is at what now: a person at one device or task, which is in one pair of hands. A task counts below zero.
create table visit_hand (
  visit_id bigint not null references visit,
  person int not null check (person between 0 and 19),
  unit_id bigint not null check (unit_id <> 0),
  steps jsonb not null check (jsonb_typeof(steps) = 'array'),
  since timestamptz not null,
  primary key (visit_id, person),
  unique (visit_id, unit_id)
);

-- Minutes of hands as they really were.
create table visit_minutes (
  visit_id bigint not null references visit,
  endpoint_id bigint not null references endpoint,
  kind text not null,
  step text not null,
  minutes int not null check (minutes between 0 and 1440),
  planned int not null,
  primary key (visit_id, endpoint_id, step)
);
create index visit_minutes_kind on visit_minutes (kind, step);

-- What does not hold is asked for over all sites.
create index endpoint_failed on endpoint (site_id) where status = 'FAILED' and retired_at is null;

grant select, insert, update on visit, visit_minutes to knot_app;
grant select, insert, update, delete on visit_unit, visit_task, visit_hand to knot_app;
