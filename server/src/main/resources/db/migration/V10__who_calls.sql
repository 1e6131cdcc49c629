-- Which kinds call a listed service; with none named it is only known by its port, and proves nothing for certain.
alter table listed_service add column kinds text not null default '' check (kinds ~ '^([a-z][a-z0-9-]*(,[a-z][a-z0-9-]*)*)?$');

-- How it is known what was seen: what is only said on the phone is misread more often.
alter table diagnosis_look add column evidence text not null default 'SEEN'
    check (evidence in ('SPOKEN', 'SEEN', 'PHOTO', 'READ_BACK', 'TOOL'));
