-- modules that answered in a vehicle without description
create table found_module (
  vin varchar(17) not null,
  address int not null,
  primary key (vin, address)
);
