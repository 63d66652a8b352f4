-- Several files of one treatment are made at once; what was asked for together stays together; renders can rest and begin later.
alter table render modify state enum ('WAITING', 'RUNNING', 'DONE', 'FAILED', 'CANCELLED', 'PAUSED') not null;
alter table render
    add column bundle     uuid null comment 'files of one treatment: made at once by whichever of them comes first',
    add column batch      uuid null comment 'what was asked for together',
    add column batch_name varchar(100) null,
    add column not_before datetime(6) null comment 'does not begin earlier',
    add index render_bundle (bundle);

-- What people send out often, by their own names.
create table own_preset (
    id          uuid not null primary key,
    name        varchar(60) not null unique,
    deliverable json not null,
    is_default  tinyint(1) not null default 0,
    made_at     datetime(6) not null
);
