-- what a person knows better than the gateway: modules fitted or not, for one vehicle
create table fitted (
  vin varchar(17) not null,
  module varchar(80) not null,
  fitted boolean not null,
  reason varchar(300) not null,
  who varchar(60) not null,
  at timestamp(3) with time zone not null,
  primary key (vin, module)
);

-- a roll call of a large vehicle is longer than other evidence
alter table finding alter column evidence varchar(100000);

create index job_of_vehicle on job (vin, id);

-- what lists of sweeps tell, so that they need not be read whole
alter table sweep add column modules int default 0 not null;
alter table sweep add column answered int default 0 not null;
alter table sweep add column codes int default 0 not null;
alter table sweep add column whole boolean default false not null;
