-- What is keyed in on a worksheet, of one endpoint or of a whole site.
create table worksheet (
  id bigint generated always as identity primary key,
  site_id bigint not null references site,
  endpoint_id bigint references endpoint,
  sheet text not null check (sheet ~ '^[a-z]{2,20}$'),
  figures jsonb not null check (jsonb_typeof(figures) = 'object'),
  version int not null default 1,
  by text not null,
  at timestamptz not null default now(),
  unique nulls not distinct (site_id, endpoint_id, sheet)
);
create index worksheet_endpoint on worksheet (endpoint_id) where endpoint_id is not null;
grant select, insert, update on worksheet to knot_app;
