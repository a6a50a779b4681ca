-- modules that answered in a vehicle without description
create table found_module (
  vin varchar(17) not null,
  address int not null,
  primary key (vin, address)
);

-- what a take was recorded after, where a study asks: empty, or refuelled
alter table take add column circumstance varchar(40) default '' not null;
