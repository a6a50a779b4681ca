-- pictures, films, sounds and papers that are kept with a job
create table attachment (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  at timestamp(3) with time zone not null,
  who varchar(60) not null,
  name varchar(200) not null,
  kind varchar(20) not null,
  -- media type under which it is handed out
  type varchar(60) not null,
  width int not null,
  height int not null,
  -- when and where the camera says it was taken; kept only when wanted
  taken varchar(60) default '' not null,
  place varchar(60) default '' not null,
  -- the finding, part or capture that it shows, in words
  about varchar(400) default '' not null,
  note varchar(2000) default '' not null,
  -- arrows and rings
  marks varchar(20000) default '[]' not null,
  reported boolean default true not null,
  content blob not null,
  -- what lists show; empty for what is no picture
  small blob
);

create index attachment_job on attachment (job_id);

-- what stands on reports; one row, absent until somebody has told it
create table workshop (
  id int primary key,
  name varchar(200) not null,
  address varchar(600) not null,
  hourly_rate double precision not null,
  tax_percent double precision not null,
  currency varchar(10) not null,
  decimal_comma boolean not null,
  logo blob
);

-- what customers put their name to
create table signature (
  job_id bigint primary key references job,
  at timestamp(3) with time zone not null,
  by_whom varchar(200) not null,
  who varchar(60) not null,
  png blob not null
);
