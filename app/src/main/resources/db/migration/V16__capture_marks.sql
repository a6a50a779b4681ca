-- what somebody saw, or did, at a time of a capture
create table capture_mark (
  id bigint generated always as identity primary key,
  capture_id bigint not null references capture (id) on delete cascade,
  seconds double precision not null,
  words varchar(200) not null,
  who varchar(80) not null,
  made timestamp(3) with time zone not null
);
create index capture_mark_capture on capture_mark (capture_id);
