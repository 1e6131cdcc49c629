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

-- Who is at what now: a person at one device, a device in one pair of hands.
create table visit_hand (
  visit_id bigint not null,
  person int not null check (person between 0 and 19),
  endpoint_id bigint not null,
  steps jsonb not null check (jsonb_typeof(steps) = 'array'),
  since timestamptz not null,
  primary key (visit_id, person),
  unique (visit_id, endpoint_id),
  foreign key (visit_id, endpoint_id) references visit_unit
);

-- Minutes of hands as they really were.
create table visit_minutes (
  visit_id bigint not null,
  endpoint_id bigint not null,
  kind text not null,
  step text not null,
  minutes int not null check (minutes between 0 and 1440),
  planned int not null,
  primary key (visit_id, endpoint_id, step),
  foreign key (visit_id, endpoint_id) references visit_unit
);
create index visit_minutes_kind on visit_minutes (kind, step);

-- What does not hold is asked for over all sites.
create index endpoint_failed on endpoint (site_id) where status = 'FAILED' and retired_at is null;

grant select, insert, update on visit, visit_minutes to knot_app;
grant select, insert, update, delete on visit_unit, visit_hand to knot_app;
