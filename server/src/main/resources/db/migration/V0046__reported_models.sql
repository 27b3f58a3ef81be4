-- What a service says has answered: where it says so, and of each answer what it said.
alter table source add column model_pointer text not null default '';
alter table source alter column model_pointer drop default;
alter table answer add column model text;
