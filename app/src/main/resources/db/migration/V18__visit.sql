-- who brought a vehicle, and what was lit on its dash
alter table job add column customer varchar(200) default '' not null;
alter table job add column order_number varchar(60) default '' not null;
alter table job add column lamps varchar(400) default '' not null;

-- what was measured with, as each instrument names itself
create table instrument (
  job_id bigint not null references job,
  told varchar(300) not null,
  since timestamp(3) with time zone not null,
  primary key (job_id, told)
);
