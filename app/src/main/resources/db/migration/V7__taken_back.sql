-- what was entered by mistake is taken back and stays readable
alter table finding add column taken_back_by varchar(60);
alter table finding add column taken_back_at timestamp(3) with time zone;
-- what a finding without evidence is about, so that a proof knows when it was repeated
alter table finding add column about varchar(200) default '' not null;
alter table repair add column taken_back_by varchar(60);

-- the number plate, as people look for it
alter table job add column plate varchar(20) default '' not null;

-- a password that an administrator set is good for one sign-in and must be changed then
alter table account add column must_change boolean default false not null;
