alter table take add column note varchar(2000) default '' not null;
alter table take add column set_aside boolean default false not null;
alter table take add column source varchar(200) default '' not null;
-- values that the vehicle's description does not know, of a take that came from elsewhere
alter table take add column own_values clob;

create table watch_list (
  id bigint generated always as identity primary key,
  vehicle varchar(80) not null,
  name varchar(120) not null,
  owner varchar(60) not null,
  shared boolean not null,
  content varchar(20000) not null,
  unique (vehicle, owner, name)
);

create table unit_choice (
  account varchar(60) not null,
  quantity varchar(40) not null,
  unit varchar(20) not null,
  primary key (account, quantity)
);

-- what a column of a log from elsewhere was said to be
create table column_mapping (
  vehicle varchar(80) not null,
  column_name varchar(200) not null,
  value_id varchar(120) not null,
  unit varchar(20) not null,
  primary key (vehicle, column_name)
);

create table kept_map (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  name varchar(200) not null,
  at timestamp(3) with time zone not null,
  content clob not null
);

create table experiment (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  name varchar(200) not null,
  at timestamp(3) with time zone not null,
  content clob not null
);
