-- Accounts are closed, never deleted: the log and what was signed off name them.
alter table person add column closed_at timestamptz, add column version int not null default 1;

-- A link that sets the password of somebody who is there already is an invitation too.
alter table invitation add column id bigint generated always as identity unique,
    add column person_id bigint references person,
    add column invited_by text not null default '',
    add column made_at timestamptz not null default now();

-- Who came in, who did not, and from where; kept for a season.
create table sign_in (
    id bigint generated always as identity primary key,
    at timestamptz not null default now(),
    person_id bigint references person,
    caller text not null,
    what text not null check (what in ('ENTERED', 'LEFT', 'REFUSED', 'CLOSED', 'SLOWED'))
);
create index sign_in_of_person on sign_in (person_id, id desc);
create index sign_in_by_age on sign_in (at);
grant select, insert, delete on sign_in to knot_app;
