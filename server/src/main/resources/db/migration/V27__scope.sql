-- Where somebody works: at every site, or at those that a lead chose. Leads work everywhere.
alter table person add column every_site boolean not null default true;
create table person_site (
    person_id bigint not null references person,
    site_id bigint not null references site,
    primary key (person_id, site_id)
);
grant select, insert, delete on person_site to knot_app;
