-- What people make: clips on the shelf, takes of them, renders sent out. Pictures and indexes are files.
create table clip (
    id          uuid not null primary key,
    title       varchar(200) not null,
    file_name   varchar(255) not null comment 'as it was called where it came from; never used as a path',
    stored      varchar(120) not null comment 'name inside the media folder',
    origin      enum ('UPLOAD', 'DEMO') not null,
    state       enum ('READING', 'READY', 'FAILED') not null,
    problem     varchar(1000) null comment 'why it failed, or what is wrong with it, in a sentence',
    progress    double not null default 0,
    bytes       bigint not null,
    facts       json null,
    frames      int null,
    added_at    datetime(6) not null,
    index clip_added (added_at)
);

create table take (
    id          uuid not null primary key,
    clip_id     uuid not null,
    name        varchar(60) not null,
    recipe      json not null,
    in_frame    int null comment 'first frame of the marked span',
    out_frame   int null comment 'frame behind the last of the marked span',
    version     int not null default 0,
    updated_at  datetime(6) not null,
    constraint take_clip foreign key (clip_id) references clip (id) on delete cascade
);

create table render (
    id           uuid not null primary key,
    clip_id      uuid not null,
    take_name    varchar(60) not null,
    recipe       json not null,
    deliverable  json not null,
    file_name    varchar(255) not null,
    from_frame   int not null,
    end_frame    int not null,
    whole_clip   tinyint(1) not null,
    width        int not null,
    height       int not null,
    state        enum ('WAITING', 'RUNNING', 'DONE', 'FAILED', 'CANCELLED') not null,
    frames_done  int not null default 0,
    problem      varchar(1000) null,
    note         varchar(1000) null,
    facts        json null,
    created_at   datetime(6) not null,
    started_at   datetime(6) null,
    finished_at  datetime(6) null,
    constraint render_clip foreign key (clip_id) references clip (id) on delete cascade,
    index render_created (created_at)
);

-- How fast this machine treats and encodes, as measured by its own renders: the time estimate uses the newest.
create table measured_rate (
    id               bigint not null auto_increment primary key,
    codec            varchar(20) not null,
    pixels_a_second  double not null,
    measured_at      datetime(6) not null
);
