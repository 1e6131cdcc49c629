-- The field's own words, so that a search for status, check, observation or fault finds what it looks for. Nothing is lost: columns and tables are renamed,
-- the five states of a step and an endpoint are said in words.
alter table endpoint rename column knot to status;
alter table step drop constraint step_knot_check;
alter table step rename column knot to status;
update endpoint set status = case status when 'OPEN' then 'PENDING' when 'HALF_DRAWN' then 'ACTIVE' when 'TIGHT' then 'PASSED' when 'FRAYED' then 'FAILED' else 'SKIPPED' end;
update step set status = case status when 'OPEN' then 'PENDING' when 'HALF_DRAWN' then 'ACTIVE' when 'TIGHT' then 'PASSED' when 'FRAYED' then 'FAILED' else 'SKIPPED' end;
alter table step add constraint step_status_check check (status in ('PENDING', 'ACTIVE', 'PASSED', 'FAILED', 'SKIPPED'));
alter table endpoint add constraint endpoint_status_check check (status in ('PENDING', 'ACTIVE', 'PASSED', 'FAILED', 'SKIPPED'));

alter table round rename to check_run;
alter table check_run rename column bond to basis;
alter table witness rename to observation;
alter table observation rename column bond to basis;
alter table diagnosis_look rename to diagnosis_answer;
alter table diagnosis_answer rename column look to question;
alter table diagnosis_answer rename column round_id to check_run_id;
alter table cause_found rename to fault_found;
alter table fault_found rename column cause to fault;
alter table fault_found rename column round_id to check_run_id;

-- What came out of a run keeps its states in its results.
update check_run set results = replace(replace(replace(replace(replace(replace(results::text, '"knot"', '"status"'), '"OPEN"', '"PENDING"'), '"HALF_DRAWN"', '"ACTIVE"'),
    '"TIGHT"', '"PASSED"'), '"FRAYED"', '"FAILED"'), '"LEFT_OUT"', '"SKIPPED"')::jsonb;

-- What was seen is one of a closed list, in capitals as everywhere; an answer that nobody could give says so.
update observation set outcome = upper(replace(outcome, '-', '_'));
update diagnosis_answer set outcome = case when outcome = '' then 'CANNOT_BE_TOLD' else upper(replace(outcome, '-', '_')) end;
