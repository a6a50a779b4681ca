-- a long complaint and four long findings together had no room
alter table shelf_case alter column content clob not null;
alter table shelf_import alter column content clob not null;
