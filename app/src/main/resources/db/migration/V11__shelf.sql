-- cases that came from elsewhere, as files
create table shelf_import (
  id bigint generated always as identity primary key,
  content varchar(20000) not null
);
