-- minutes that finding the cause may take
alter table job add column budget double precision default 60 not null;
