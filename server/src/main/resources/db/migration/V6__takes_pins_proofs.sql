-- Several takes of a clip: what the user thinks of each, and every state it was in, so that undo reaches across sessions.
alter table take
    add column made_at  datetime(6) not null default current_timestamp(6),
    add column verdict  enum ('OPEN', 'KEPT', 'DISCARDED') not null default 'OPEN',
    add column at_state int not null default 0 comment 'the state in take_state that it is in now';

create table take_state (
    take_id   uuid not null,
    number    int not null,
    recipe    json not null,
    in_frame  int null,
    out_frame int null,
    primary key (take_id, number),
    constraint take_state_take foreign key (take_id) references take (id) on delete cascade
);
insert into take_state (take_id, number, recipe, in_frame, out_frame)
    select id, 0, recipe, in_frame, out_frame from take;

-- Places to look at again and again, in pixels of the picture as it is turned.
create table pin (
    id       uuid not null primary key,
    clip_id  uuid not null,
    name     varchar(60) not null,
    frame    int not null,
    x        double not null,
    y        double not null,
    width    double not null,
    height   double not null,
    made_at  datetime(6) not null,
    constraint pin_clip foreign key (clip_id) references clip (id) on delete cascade
);

-- Short moving proofs: source over treated in one video each.
create table proof (
    id          uuid not null primary key,
    clip_id     uuid not null,
    take_id     uuid null,
    take_name   varchar(60) not null,
    recipe      json not null,
    from_frame  int not null,
    end_frame   int not null,
    x           int not null comment 'the part shown, in pixels of the treated picture',
    y           int not null,
    width       int not null,
    height      int not null,
    state       enum ('WAITING', 'RUNNING', 'DONE', 'STOPPED', 'FAILED') not null,
    frames      int not null comment 'to be made, in output frames',
    frames_done int not null default 0,
    rate        double not null comment 'output frames a second',
    sound       tinyint(1) not null,
    problem     varchar(1000) null,
    made_at     datetime(6) not null,
    constraint proof_clip foreign key (clip_id) references clip (id) on delete cascade
);

-- A clean file of the same scene to compare with, by its name inside the media folder.
alter table clip add column reference varchar(4096) null;

-- Recipes kept for other clips.
create table saved_recipe (
    id      uuid not null primary key,
    name    varchar(60) not null unique,
    recipe  json not null,
    made_at datetime(6) not null
);
