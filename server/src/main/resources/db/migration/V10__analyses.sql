-- Looks through whole clips that steps of a recipe wait for. What was found lies in the clip's folder.
create table analysis (
    id          uuid not null primary key,
    clip_id     uuid not null,
    recipe      json not null,
    wanted      char(64) not null comment 'what it was asked for: a hash of the first analysis missing',
    state       enum ('WAITING', 'RUNNING', 'DONE', 'STOPPED', 'FAILED') not null,
    frames      int not null,
    frames_done int not null default 0,
    problem     varchar(1000) null,
    owner       varchar(50) null,
    attempt     int not null default 0,
    asked_at    datetime(6) not null,
    constraint analysis_clip foreign key (clip_id) references clip (id) on delete cascade,
    constraint analysis_once unique (clip_id, wanted)
);
