-- What is set for everybody, by name.
create table app_setting (
    name  varchar(60) not null primary key,
    value json not null
);

-- Folders whose files are taken in, treated and sent out by themselves.
create table watched_folder (
    id           uuid not null primary key,
    path         varchar(1000) not null,
    way          json not null comment 'what each clip is treated with',
    deliverables json not null comment 'what is sent out of each',
    pattern      varchar(200) null,
    active       tinyint(1) not null default 1,
    problem      varchar(1000) null comment 'why it cannot be looked into',
    made_at      datetime(6) not null
);

create table watched_file (
    folder_id  uuid not null,
    name       varchar(255) character set utf8mb4 collate utf8mb4_bin not null,
    bytes      bigint not null,
    changed_at datetime(6) not null comment 'by the file''s own word',
    seen_at    datetime(6) not null comment 'since when it has been as it is',
    state      enum ('ARRIVING', 'TAKEN', 'SENT', 'FAILED') not null,
    clip_id    uuid null,
    problem    varchar(1000) null,
    primary key (folder_id, name),
    constraint watched_file_folder foreign key (folder_id) references watched_folder (id) on delete cascade
);
