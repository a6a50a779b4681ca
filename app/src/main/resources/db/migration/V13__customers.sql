-- months after its closing for which a job keeps what is the customer's; 0 keeps it for good
alter table workshop add column keep_months int default 0 not null;
