-- what modules had learned, each time it was read; in the unit in which the module tells it
create table learned_reading (
  id bigint generated always as identity primary key,
  job_id bigint not null references job (id) on delete cascade,
  vin varchar(17) not null,
  at timestamp(3) with time zone not null,
  value_id varchar(80) not null,
  figure double precision not null
);
create index learned_reading_vin on learned_reading (vin);
