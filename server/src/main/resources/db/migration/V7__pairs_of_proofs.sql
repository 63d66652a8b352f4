-- A proof made of two others: the treated picture of one above that of the other.
alter table proof
    add column treated_proof  uuid null comment 'whose treated picture is below',
    add column against_proof  uuid null comment 'whose treated picture stands in the place of the source',
    add column against_name   varchar(60) null,
    add column against_recipe json null;

-- The last reference a clip had, so that it can be taken up again.
alter table clip add column known_reference varchar(4096) null;
update clip set known_reference = reference;
