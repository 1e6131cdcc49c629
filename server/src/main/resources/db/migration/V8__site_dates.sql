-- How the site writes its days and times; a lead chooses it.
alter table site add column dates text not null default 'WORDS'
    check (dates in ('WORDS', 'PERIODS', 'SLASHES', 'YEAR_FIRST', 'MONTH_FIRST'));

-- The list of a site goes on from any endpoint, also from one that has no address yet.
drop index endpoint_of_site;
create index endpoint_of_site on endpoint (site_id, (coalesce(address, '0.0.0.0'::inet)), id) where retired_at is null;

-- What happened to one endpoint, however much happened around it since.
create index log_of_endpoint on log_entry (endpoint_id, id desc) where endpoint_id is not null;
