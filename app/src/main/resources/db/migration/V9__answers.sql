-- what the customer said to a way of mending it
create table answer (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  at timestamp(3) with time zone not null,
  suspect_id varchar(120) not null,
  way varchar(300) not null,
  price double precision not null,
  agreed boolean not null,
  by_whom varchar(200) not null,
  how varchar(60) not null,
  who varchar(60) not null
);
