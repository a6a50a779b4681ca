-- one that went wrong and was done again stays, apart from the others
alter table capture add column set_aside boolean default false not null;
