create table account (
  id bigint generated always as identity primary key,
  name varchar(60) not null unique,
  display varchar(120) not null,
  password varchar(200) not null,
  role varchar(20) not null check (role in ('TECHNICIAN', 'LEAD', 'ADMINISTRATOR')),
  enabled boolean not null default true
);

create table job (
  id bigint generated always as identity primary key,
  opened timestamp(3) with time zone not null,
  closed timestamp(3) with time zone,
  opened_by varchar(60) not null,
  vehicle_id varchar(80) not null,
  vin varchar(17) not null,
  address varchar(120) not null,
  meter varchar(120) not null,
  complaint varchar(4000) not null,
  symptoms varchar(2000) not null,
  odometer double precision not null,
  earlier varchar(4000) not null
);

-- what each stage found; evidence is empty for plain notes
create table finding (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  at timestamp(3) with time zone not null,
  stage varchar(20) not null,
  who varchar(60) not null,
  text varchar(2000) not null,
  passed boolean,
  evidence varchar(4000),
  detail clob
);
create index finding_of_job on finding (job_id, id);

create table sweep (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  started timestamp(3) with time zone not null,
  finished timestamp(3) with time zone,
  content clob not null
);
create index sweep_of_job on sweep (job_id, id);

create table take (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  name varchar(200) not null,
  started timestamp(3) with time zone not null,
  ended timestamp(3) with time zone
);

create table take_chunk (
  take_id bigint not null references take,
  number int not null,
  content blob not null,
  primary key (take_id, number)
);

create table take_mark (
  take_id bigint not null references take,
  seconds double precision not null,
  text varchar(400) not null
);

create table repair (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  at timestamp(3) with time zone not null,
  suspect_id varchar(80) not null,
  name varchar(200) not null,
  authorised_by varchar(200) not null,
  who varchar(60) not null,
  failed boolean not null default false
);

-- everything commanded, cleared or written, with the vehicle's answer
create table command_log (
  id bigint generated always as identity primary key,
  at timestamp(3) with time zone not null,
  job_id bigint,
  who varchar(60) not null,
  vin varchar(17) not null,
  kind varchar(20) not null,
  what varchar(400) not null,
  why varchar(400) not null,
  answer varchar(1000) not null
);
create index command_log_of_job on command_log (job_id, id);

create table shelf_case (
  job_id bigint primary key references job,
  content varchar(8000) not null
);
