-- what a volt of a probe was told to mean at an instrument, the last time
create table probe_output (
  instrument varchar(300) not null,
  role varchar(40) not null,
  per_volt double precision not null,
  zero double precision not null,
  primary key (instrument, role)
);
