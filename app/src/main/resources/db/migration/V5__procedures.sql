create table procedure_run (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  procedure varchar(80) not null,
  who varchar(60) not null,
  began timestamp(3) with time zone not null,
  -- what was measured, to be shown again
  samples clob
);

-- a run is its log; playing it again gives the run as it stood
create table procedure_event (
  run_id bigint not null references procedure_run,
  n int not null,
  at timestamp(3) with time zone not null,
  content clob not null,
  primary key (run_id, n)
);

-- recordings of injectors as they were judged; the newest of a circumstance counts
create table injector_sound (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  warm boolean not null,
  who varchar(60) not null,
  at timestamp(3) with time zone not null,
  content clob not null
);
