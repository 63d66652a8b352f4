-- db-scheduler's own table, as its documentation gives it for MariaDB
create table scheduled_tasks (
    task_name            varchar(100) not null,
    task_instance        varchar(100) not null,
    task_data            blob,
    execution_time       timestamp(6) not null,
    picked               boolean not null,
    picked_by            varchar(50),
    last_success         timestamp(6) null,
    last_failure         timestamp(6) null,
    consecutive_failures int,
    last_heartbeat       timestamp(6) null,
    version              bigint not null,
    priority             smallint,
    primary key (task_name, task_instance),
    index execution_time_idx (execution_time),
    index last_heartbeat_idx (last_heartbeat),
    index priority_execution_time_idx (priority desc, execution_time asc)
);

-- Spring Session's own tables, as shipped with it for MySQL
create table SPRING_SESSION (
    PRIMARY_ID            char(36) not null,
    SESSION_ID            char(36) not null,
    CREATION_TIME         bigint not null,
    LAST_ACCESS_TIME      bigint not null,
    MAX_INACTIVE_INTERVAL int not null,
    EXPIRY_TIME           bigint not null,
    PRINCIPAL_NAME        varchar(100),
    constraint SPRING_SESSION_PK primary key (PRIMARY_ID)
) row_format = dynamic;
create unique index SPRING_SESSION_IX1 on SPRING_SESSION (SESSION_ID);
create index SPRING_SESSION_IX2 on SPRING_SESSION (EXPIRY_TIME);
create index SPRING_SESSION_IX3 on SPRING_SESSION (PRINCIPAL_NAME);
create table SPRING_SESSION_ATTRIBUTES (
    SESSION_PRIMARY_ID char(36) not null,
    ATTRIBUTE_NAME     varchar(200) not null,
    ATTRIBUTE_BYTES    blob not null,
    constraint SPRING_SESSION_ATTRIBUTES_PK primary key (SESSION_PRIMARY_ID, ATTRIBUTE_NAME),
    constraint SPRING_SESSION_ATTRIBUTES_FK foreign key (SESSION_PRIMARY_ID) references SPRING_SESSION (PRIMARY_ID) on delete cascade
) row_format = dynamic;
