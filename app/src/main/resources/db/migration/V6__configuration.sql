-- what modules were told, with what they held before; a row is there before anything is written
create table configuration_write (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  configuration varchar(80) not null,
  item varchar(80) not null,
  before varchar(400) not null,
  after varchar(400) not null,
  who varchar(60) not null,
  at timestamp(3) with time zone not null,
  confirmed boolean not null default false
);

-- somebody who looks on and commands nothing
alter table account add column duty varchar(20);
update account set duty = role;
alter table account drop column role;
alter table account alter column duty rename to role;
alter table account alter column role set not null;
alter table account add constraint account_role
  check (role in ('ONLOOKER', 'TECHNICIAN', 'LEAD', 'ADMINISTRATOR'));

-- procedures that follow, by their ids with blanks between
alter table procedure_run add column following varchar(2000) default '' not null;

-- an actuator led by hand has its positions in its name
alter table procedure_run alter column procedure varchar(1000) not null;
