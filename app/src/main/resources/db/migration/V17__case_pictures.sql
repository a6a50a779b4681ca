-- pictures of cases that came from elsewhere; those of own cases stay with their jobs
create table shelf_picture (
  id bigint generated always as identity primary key,
  import_id bigint not null references shelf_import on delete cascade,
  shows varchar(400) not null,
  note varchar(2000) not null,
  content blob not null,
  -- what lists show
  small blob not null
);

create index shelf_picture_import on shelf_picture (import_id);
