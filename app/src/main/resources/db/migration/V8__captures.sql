-- recordings of an oscilloscope; lanes as they were connected, and what a study takes them for
create table capture (
  id bigint generated always as identity primary key,
  job_id bigint not null references job,
  -- how it was recorded; empty for what was brought in
  plan varchar(80) not null,
  name varchar(200) not null,
  note varchar(2000) default '' not null,
  who varchar(60) not null,
  began timestamp(3) with time zone not null,
  -- empty while it runs, or when the program died meanwhile
  ended timestamp(3) with time zone,
  interval_seconds double precision not null,
  lanes clob not null,
  -- why it ended early; empty when it did not
  trouble varchar(600) default '' not null
);

-- about a second of all lanes each, so that a crash loses no more
create table capture_part (
  capture_id bigint not null references capture,
  n int not null,
  lane int not null,
  samples int not null,
  content blob not null,
  primary key (capture_id, n, lane)
);
