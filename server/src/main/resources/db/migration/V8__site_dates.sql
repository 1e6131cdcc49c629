-- How the site writes its days and times; a lead chooses it.
alter table site add column dates text not null default 'WORDS'
    check (dates in ('WORDS', 'PERIODS', 'SLASHES', 'YEAR_FIRST', 'MONTH_FIRST'));
